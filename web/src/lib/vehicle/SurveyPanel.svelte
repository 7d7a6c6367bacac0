<script lang="ts">
  import { changeSurvey } from '@flarik/core/arrange/vehicleEdits';
  import { Checkbox } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import RemarkField from '$lib/ui/RemarkField.svelte';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import SurveyedKeepOuts from './SurveyedKeepOuts.svelte';
  import SurveyedLamps from './SurveyedLamps.svelte';

  /** What is found on the vehicle itself: its own lamps, glass, thin panels, and what must be kept clear. */
  const editor = getEditor()();
  const { survey } = $derived(editor.build.vehicle);
  const { vehicle } = $derived(editor);
  const panes = $derived(vehicle.solids.filter((s) => s.transmission > 0));
  const panels = $derived(vehicle.zones.filter((z) => z.mount === 'panel' || z.mount === 'roof'));
  const words = (id: string): string => id.charAt(0).toUpperCase() + id.slice(1).replaceAll('-', ' ');
</script>

<section aria-label="Survey">
  <h2>Survey</h2>
  <p class="quiet small">Inspect the vehicle and correct values that differ.</p>
  <SurveyedLamps />
  <details>
    <summary>Glass <span class="quiet">{panes.length}</span></summary>
    <p class="quiet small">Share of light that passes; tinted glass passes far less.</p>
    <div class="numbers">
      {#each panes as pane (pane.id)}
        <TypedNumber
          label={words(pane.id)}
          unit="%"
          value={pane.transmission * 100}
          min={0}
          max={100}
          onset={(v: number) =>
            editor.edit(`Glass of the ${words(pane.id).toLowerCase()}`, (b) =>
              changeSurvey(b, { glass: { ...b.vehicle.survey.glass, [pane.id]: v / 100 } }),
            )}
        />
      {/each}
    </div>
  </details>
  <details>
    <summary
      >Single-wall panels <span class="quiet"
        >{panels.filter((z) => z.singleWall).length} of {panels.length}</span
      ></summary
    >
    <p class="quiet small">One skin only: not to be drilled.</p>
    {#each panels as zone (zone.id)}
      <Checkbox
        labelText="{zone.name}: {zone.behind}"
        checked={zone.singleWall}
        on:check={(event) => {
          if (event.detail !== zone.singleWall)
            editor.edit(`Skin of ${zone.name.toLowerCase()}`, (b) =>
              changeSurvey(b, { singleWall: { ...b.vehicle.survey.singleWall, [zone.id]: event.detail } }),
            );
        }}
      />
    {/each}
  </details>
  <SurveyedKeepOuts />
  <RemarkField
    label="Notes"
    placeholder="Rust, repairs, earlier holes, what was measured and by whom."
    value={survey.notes}
    onset={(notes: string) => editor.edit('Notes of the survey', (b) => changeSurvey(b, { notes }))}
  />
</section>

<style>
  section {
    display: grid;
    gap: 0.5rem;
  }

  summary {
    padding: 0.25rem 0;
    font-weight: 600;
    cursor: pointer;
  }

  .small {
    font-size: 12px;
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    padding: 0.25rem 0;
  }
</style>
