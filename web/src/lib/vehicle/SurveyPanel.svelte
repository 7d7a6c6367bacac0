<script lang="ts">
  import { changeSurvey } from '@flarik/core/arrange/vehicleEdits';
  import { Survey } from '@flarik/core/vehicle/spec';
  import { openingZoneId } from '@flarik/core/vehicle/tieIn';
  import { Button, Checkbox, TextArea } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';

  /** What is found on the vehicle itself: its own lamps, glass, thin panels, and what must be kept clear. */
  const editor = getEditor()();
  const { survey } = $derived(editor.build.vehicle);
  const { vehicle } = $derived(editor);
  const own = $derived(new Set(editor.build.vehicle.keepOuts.map((k) => k.id)));
  const panes = $derived(vehicle.solids.filter((s) => s.transmission > 0));
  const panels = $derived(vehicle.zones.filter((z) => z.mount === 'panel' || z.mount === 'roof'));
  let refused = $state('');

  const words = (id: string): string => id.charAt(0).toUpperCase() + id.slice(1).replaceAll('-', ' ');

  function note(text: string): void {
    const notes = Survey.shape.notes.safeParse(text);
    refused = notes.success ? '' : (notes.error.issues[0]?.message ?? '');
    if (notes.success && notes.data !== survey.notes)
      editor.edit('Notes of the survey', (b) => changeSurvey(b, { notes: notes.data }));
  }
</script>

<section aria-label="Survey">
  <h2>Survey</h2>
  <p class="quiet small">Walk round the vehicle and put right what differs from what stands here.</p>
  <details open>
    <summary>Factory lamps <span class="quiet">{vehicle.factoryLamps.length}</span></summary>
    <table>
      <thead>
        <tr
          ><th scope="col">Lamp</th><th scope="col">Function</th><th scope="col">May be tied in</th><th
            scope="col">Taken out</th
          ></tr
        >
      </thead>
      <tbody>
        {#each vehicle.factoryLamps as lamp (lamp.id)}
          <tr>
            <th scope="row">{lamp.name}</th>
            <td>{lamp.does}</td>
            <td>
              <input
                type="checkbox"
                aria-label="{lamp.name} may be tied in"
                checked={lamp.mayTie}
                onchange={(event) => {
                  const may = event.currentTarget.checked;
                  editor.edit(`${may ? 'Allow' : 'Forbid'} tying in the ${lamp.name.toLowerCase()}`, (b) =>
                    changeSurvey(b, { mayTie: { ...b.vehicle.survey.mayTie, [lamp.id]: may } }),
                  );
                }}
              />
            </td>
            <td>
              <input
                type="checkbox"
                aria-label="{lamp.name} is taken out"
                checked={false}
                onchange={() =>
                  editor.edit(`Take out the ${lamp.name.toLowerCase()}`, (b) =>
                    changeSurvey(b, { removedLamps: [...b.vehicle.survey.removedLamps, lamp.id] }),
                  )}
              />
            </td>
          </tr>
        {/each}
      </tbody>
    </table>
    {#if survey.removedLamps.length > 0}
      <ul class="openings">
        {#each survey.removedLamps as id (id)}
          {@const opening = vehicle.zones.find((z) => z.id === openingZoneId(id))}
          <li>
            {opening?.name ?? id}
            <Button
              kind="ghost"
              size="small"
              on:click={() =>
                editor.edit(`Put back the ${words(id).toLowerCase()}`, (b) =>
                  changeSurvey(b, {
                    removedLamps: b.vehicle.survey.removedLamps.filter((other) => other !== id),
                  }),
                )}>Put it back</Button
            >
          </li>
        {/each}
      </ul>
      <p class="quiet small">Each opening is a zone that another lamp can take.</p>
    {/if}
    <p class="quiet small">
      Stop, turn and plate lamps have a meaning in law; tie nothing into their circuits without the maker’s
      word and your local code.
    </p>
  </details>
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
  <details>
    <summary>Keep-outs <span class="quiet">{vehicle.keepOuts.length}</span></summary>
    <ul>
      {#each vehicle.keepOuts as k (k.id)}
        <li>
          {k.name} <span class="quiet">{k.kind}{own.has(k.id) ? ', your own' : ''}</span>
        </li>
      {/each}
    </ul>
    <p class="quiet small">
      Views of radar and cameras, airbags’ ways, latches, sliding glass: no lamp may stand in them. Draw
      others under “Your own parts”.
    </p>
  </details>
  <TextArea
    rows={3}
    labelText="Notes"
    placeholder="Rust, repairs, earlier holes, what was measured and by whom."
    value={survey.notes}
    invalid={refused !== ''}
    invalidText={refused}
    on:change={(event) => {
      if (event.target instanceof HTMLTextAreaElement) note(event.target.value);
    }}
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

  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 2px 4px 2px 0;
    text-align: left;
    font-weight: 400;
    border-bottom: 1px solid var(--cds-ui-03);
  }

  thead th {
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .numbers {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.5rem;
    padding: 0.25rem 0;
  }
</style>
