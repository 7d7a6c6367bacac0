<script lang="ts">
  import { changeSurvey } from '@flarik/core/arrange/vehicleEdits';
  import { boundsOf } from '@flarik/core/geometry/solid';
  import type { SurveyedKeepOut } from '@flarik/core/vehicle/survey';
  import type { KeepOut } from '@flarik/core/vehicle/types';
  import { bodyKeepOuts } from '@flarik/core/vehicle/vehicle';
  import { Button, TextInput } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import OwnFigures from './OwnFigures.svelte';
  import { tryEdit } from './tryEdit';

  /** Where no lamp may stand, as the body type says; what the survey found otherwise is said with its reason. */
  const editor = getEditor()();
  const { survey } = $derived(editor.build.vehicle);
  const ofBody = $derived(bodyKeepOuts(editor.build.vehicle));
  const own = $derived(editor.build.vehicle.keepOuts);
  /** Reasons typed and not yet used, by keep-out. */
  let reasons: Record<string, string> = $state({});
  let trouble = $state('');

  const reasonOf = (id: string): string => reasons[id] ?? survey.keepOuts[id]?.reason ?? '';
  const stateOf = (id: string): string => {
    const found = survey.keepOuts[id];
    if (found === undefined) return '';
    return found.box === null ? `lifted: ${found.reason}` : `moved or cut: ${found.reason}`;
  };

  function find({ id, name }: KeepOut, box: SurveyedKeepOut['box'], how: string): void {
    const reason = reasonOf(id).trim();
    if (reason === '') {
      trouble = `${name}: say first who found it so, and why.`;
      return;
    }
    trouble = tryEdit(editor, `${how} the keep-out ${name}`, (b) =>
      changeSurvey(b, { keepOuts: { ...b.vehicle.survey.keepOuts, [id]: { box, reason } } }),
    );
  }

  const boxOf = ({ id, solid }: KeepOut): NonNullable<SurveyedKeepOut['box']> => {
    const found = survey.keepOuts[id]?.box ?? null;
    const bounds = boundsOf([solid]);
    if (found !== null || bounds === null) return found ?? { from: [0, 0, 0], to: [0.1, 0.1, 0.1] };
    return { from: [...bounds.low], to: [...bounds.high] };
  };

  function putBack({ id, name }: KeepOut): void {
    trouble = tryEdit(editor, `Restore keep-out ${name}`, (b) =>
      changeSurvey(b, {
        keepOuts: Object.fromEntries(Object.entries(b.vehicle.survey.keepOuts).filter(([one]) => one !== id)),
      }),
    );
  }
</script>

<details>
  <summary>Keep-outs <span class="quiet">{ofBody.length + own.length}</span></summary>
  <p class="quiet small">
    Radar and camera views, airbag zones, latches, sliding glass: lamps are not permitted there. Lift a
    keep-out only when this vehicle does not have it. Add others under “Custom parts”.
  </p>
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
  {#each ofBody as keepOut (keepOut.id)}
    {@const found = survey.keepOuts[keepOut.id]}
    <details class="one">
      <summary>
        {keepOut.name} <span class="quiet">{keepOut.kind}</span>
        {#if found !== undefined}<span class="found">{stateOf(keepOut.id)}</span>{/if}
      </summary>
      <TextInput
        size="sm"
        labelText="Found by, and reason"
        value={reasonOf(keepOut.id)}
        on:input={(event) => (reasons[keepOut.id] = String(event.detail ?? ''))}
      />
      {#if found?.box !== null}
        <OwnFigures
          item={{ id: keepOut.id, name: 'Move or cut', ...boxOf(keepOut) }}
          what=""
          named={false}
          choices={{}}
          onchange={(patch: object) => find(keepOut, { ...boxOf(keepOut), ...patch }, 'Move or cut')}
        />
        <Button size="small" kind="ghost" on:click={() => find(keepOut, null, 'Lift')}>Lift it</Button>
      {/if}
      {#if found !== undefined}
        <Button size="small" kind="ghost" on:click={() => putBack(keepOut)}>Use the body type’s value</Button>
      {/if}
    </details>
  {/each}
  {#each own as keepOut (keepOut.id)}
    <p class="own">{keepOut.name} <span class="quiet">{keepOut.kind}, custom</span></p>
  {/each}
</details>

<style>
  summary {
    padding: 0.25rem 0;
    font-weight: 600;
    cursor: pointer;
  }

  .one summary,
  .own {
    font-weight: 400;
    font-size: 13px;
  }

  .one {
    padding-left: 0.75rem;
  }

  .found {
    display: block;
    color: var(--cds-text-02);
    font-size: 12px;
  }

  .small {
    font-size: 12px;
  }

  .trouble {
    color: var(--gap);
  }
</style>
