<script lang="ts">
  import { changeSurvey } from '@flarik/core/arrange/vehicleEdits';
  import { FACINGS } from '@flarik/core/vehicle/measures';
  import { asFound, type AddedLamp, type Survey } from '@flarik/core/vehicle/survey';
  import { openingZoneId } from '@flarik/core/vehicle/tieIn';
  import type { FactoryLamp } from '@flarik/core/vehicle/types';
  import { FACTORY_FUNCTIONS } from '@flarik/core/words/factoryFunction';
  import { Button } from 'carbon-components-svelte';
  import { getEditor } from '$lib/editor/context';
  import { freshId } from '$lib/editor/freshId';
  import OwnFigures from './OwnFigures.svelte';
  import { tryEdit } from './tryEdit';

  /** Lamps the maker fitted: what they are for, where they were found, and which a flasher may drive. */
  const editor = getEditor()();
  const { survey } = $derived(editor.build.vehicle);
  const { vehicle } = $derived(editor);
  const CHOICES = { does: FACTORY_FUNCTIONS, facing: FACINGS };
  /** The lamp whose figures are shown. */
  let measuredId: string | null = $state(null);
  let trouble = $state('');

  function change(label: string, patch: (before: Survey) => Partial<Survey>): void {
    trouble = tryEdit(editor, label, (b) => changeSurvey(b, patch(b.vehicle.survey)));
  }

  const added = (id: string): AddedLamp | undefined => survey.addedLamps.find((lamp) => lamp.id === id);
  const figuresOf = (lamp: FactoryLamp): { id: string; name: string } =>
    added(lamp.id) ?? { id: lamp.id, name: lamp.name, ...(survey.lamps[lamp.id] ?? asFound(lamp)) };

  function measure(lamp: FactoryLamp, patch: object): void {
    const own = added(lamp.id);
    if (own === undefined)
      change(`Measure the ${lamp.name.toLowerCase()}`, ({ lamps }) => ({
        lamps: { ...lamps, [lamp.id]: { ...(lamps[lamp.id] ?? asFound(lamp)), ...patch } },
      }));
    else
      change(`Change ${own.name}`, ({ addedLamps }) => ({
        addedLamps: addedLamps.map((other) => (other.id === lamp.id ? { ...other, ...patch } : other)),
      }));
  }

  /** Use the body type’s value; one of the survey's own goes. */
  function forget(lamp: FactoryLamp): void {
    measuredId = null;
    if (added(lamp.id) !== undefined)
      change(`Delete ${lamp.name}`, ({ addedLamps }) => ({
        addedLamps: addedLamps.filter(({ id }) => id !== lamp.id),
      }));
    else
      change(`Put the ${lamp.name.toLowerCase()} where its body type has it`, ({ lamps }) => ({
        lamps: Object.fromEntries(Object.entries(lamps).filter(([id]) => id !== lamp.id)),
      }));
  }

  function add(): void {
    const id = freshId('lamp-');
    const lamp: AddedLamp = {
      id,
      name: `Lamp found ${survey.addedLamps.length + 1}`,
      partId: null,
      does: 'marker',
      middle: [vehicle.lengthM / 2 - 0.5, 0, vehicle.heightM + 0.02],
      widthM: 0.08,
      heightM: 0.03,
      facing: 'front',
      panDeg: 0,
      tiltDeg: 0,
    };
    change('Add a lamp found', ({ addedLamps }) => ({ addedLamps: [...addedLamps, lamp] }));
    if (trouble === '') measuredId = id;
  }
</script>

<details open>
  <summary>Factory lamps <span class="quiet">{vehicle.factoryLamps.length}</span></summary>
  <table>
    <thead>
      <tr
        ><th scope="col">Lamp</th><th scope="col">Function</th><th scope="col">May be tied in</th><th
          scope="col">Removed</th
        ><th scope="col"><span class="visually-hidden">Where</span></th></tr
      >
    </thead>
    <tbody>
      {#each vehicle.factoryLamps as lamp (lamp.id)}
        {@const isMeasured = survey.lamps[lamp.id] !== undefined}
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
                change(
                  `${may ? 'Allow' : 'Forbid'} tying in the ${lamp.name.toLowerCase()}`,
                  ({ mayTie }) => ({
                    mayTie: { ...mayTie, [lamp.id]: may },
                  }),
                );
              }}
            />
          </td>
          <td>
            <input
              type="checkbox"
              aria-label="{lamp.name} is removed"
              checked={false}
              onchange={() =>
                change(`Remove ${lamp.name.toLowerCase()}`, ({ removedLamps }) => ({
                  removedLamps: [...removedLamps, lamp.id],
                }))}
            />
          </td>
          <td>
            <button
              class="link"
              aria-label="Measure {lamp.name}"
              aria-expanded={measuredId === lamp.id}
              onclick={() => (measuredId = measuredId === lamp.id ? null : lamp.id)}
              >{isMeasured ? 'measured' : 'measure'}</button
            >
          </td>
        </tr>
        {#if measuredId === lamp.id}
          <tr>
            <td colspan="5">
              <OwnFigures
                item={figuresOf(lamp)}
                what={added(lamp.id) === undefined ? 'of the body type' : 'found'}
                open
                named={added(lamp.id) !== undefined}
                choices={CHOICES}
                onchange={(patch: object) => measure(lamp, patch)}
              />
              {#if isMeasured || added(lamp.id) !== undefined}
                <Button size="small" kind="ghost" on:click={() => forget(lamp)}
                  >{isMeasured ? 'Use the body type’s values' : 'Delete this lamp'}</Button
                >
              {/if}
            </td>
          </tr>
        {/if}
      {/each}
    </tbody>
  </table>
  <Button size="small" kind="ghost" on:click={add}>Add a factory lamp</Button>
  {#if trouble !== ''}<p class="trouble" role="alert">{trouble}</p>{/if}
  {#if survey.removedLamps.length > 0}
    <ul class="openings">
      {#each survey.removedLamps as id (id)}
        {@const opening = vehicle.zones.find((z) => z.id === openingZoneId(id))}
        {@const name = opening?.name ?? 'A lamp that this body type does not have'}
        <li>
          {name}
          <Button
            kind="ghost"
            size="small"
            on:click={() =>
              change(`Restore ${name.toLowerCase()}`, ({ removedLamps }) => ({
                removedLamps: removedLamps.filter((other) => other !== id),
              }))}>Restore</Button
          >
        </li>
      {/each}
    </ul>
    <p class="quiet small">Each opening is a zone that another lamp can take.</p>
  {/if}
  <p class="quiet small">
    Stop, turn and plate lamps are regulated. Do not connect anything to their circuits without the
    manufacturer’s approval and your local code.
  </p>
</details>

<style>
  summary {
    padding: 0.25rem 0;
    font-weight: 600;
    cursor: pointer;
  }

  .small {
    font-size: 12px;
  }

  .trouble {
    color: var(--gap);
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
</style>
