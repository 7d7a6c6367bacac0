<script lang="ts">
  import type { Approach } from '@flarik/core/design/approach';
  import type { ApproachResult } from '@flarik/core/sight/approach';
  import { airText, reflectiveText, detectionText, timeMarginText } from '@flarik/core/sight/words';
  import { addMore, type MoreLamps } from '@flarik/core/rules/estimateGain';
  import { moneyText } from '@flarik/core/rules/brief/words';
  import { addOwn } from '@flarik/core/design/ownEdits';
  import { MOST_OWN } from '@flarik/core/design/site';
  import { freshId } from '$lib/editor/freshId';
  import { getEditor } from '$lib/editor/context';
  import Beside from './Beside.svelte';
  import LampList from './LampList.svelte';
  import ApproachEdit from './ApproachEdit.svelte';
  import ApproachChart from './ApproachChart.svelte';
  import type { Sight } from '$lib/editor/sight.svelte';

  /** Who comes upon the vehicle, from where and in what air: whether it is seen in time, worst first. */
  let {
    sight,
    rows,
    chosen,
    onchoose,
  }: {
    sight: Sight;
    rows: readonly ApproachResult[];
    chosen: Approach | null;
    onchoose: (approach: Approach) => void;
  } = $props();
  const editor = getEditor()();
  const OBSERVER = {
    normal: 'Normal vision',
    protan: 'Protan (red-deficient)',
    deutan: 'Deutan (green-deficient)',
  } as const;

  const result = $derived(rows.find(({ approach }) => approach.id === chosen?.id) ?? rows[0]);
  const detail = $derived(
    sight.approach.answer?.approach.id === result?.approach.id ? sight.approach.answer : null,
  );
  const gains = $derived(detail?.gains ?? []);
  const own = $derived(editor.build.approaches.find(({ id }) => id === result?.approach.id));
  function copy(approach: Approach): void {
    const id = freshId('approach');
    editor.edit(`Add approach ${approach.name}`, (b) =>
      addOwn(b, 'approaches', { ...approach, id, name: `${approach.name.slice(0, 70)} (copy)` }),
    );
    const made = editor.build.approaches.find((one) => one.id === id);
    if (made !== undefined) onchoose(made);
  }
  /** What was tried for this very approach, build and state; null when nothing was. */
  const more = $derived.by(() => {
    const tried = sight.wouldGain.answer;
    return tried?.approach.id === result?.approach.id &&
      tried?.looked.build === editor.seen &&
      tried.looked.state === editor.state
      ? tried.more
      : null;
  });
  function tryMore(): void {
    if (result !== undefined)
      void sight.wouldGain.run({
        looked: { build: editor.seen, state: editor.state },
        approach: result.approach,
      });
  }
  const zoneName = (zoneId: string): string =>
    editor.vehicle.zones.find(({ id }) => id === zoneId)?.name ?? 'deleted zone';
  function add(lamps: MoreLamps): void {
    const id = freshId('p');
    const what = editor.lookup.fixture(lamps.fixtureId).name;
    editor.edit(`Add ${what}`, (b) => addMore(b, lamps, id, editor.state.on));
    editor.select([id]);
  }
  const metres = (m: number, beyond: boolean): string => `${beyond ? '≥ ' : ''}${Math.round(m)}`;
  const signed = (s: number): string => s.toFixed(1).replace('-', '−');
</script>

<Beside label="Selected approach">
  <div class="table">
    <table>
      <thead>
        <tr>
          <th>Approach, conditions</th>
          <th class="figure">km/h</th>
          <th class="figure">Detection, m</th>
          <th class="figure">Stopping, m</th>
          <th class="figure">Margin, s</th>
          <th class="figure">Protan, s</th>
          <th class="figure">Deutan, s</th>
        </tr>
      </thead>
      <tbody>
        {#each rows as row (row.approach.id)}
          {@const [normal, protan, deutan] = row.sightings}
          <tr class:chosen={row.approach.id === result?.approach.id} class:late={normal.marginS < 0}>
            <td>
              <button
                aria-pressed={row.approach.id === result?.approach.id}
                onclick={() => onchoose(row.approach)}
                >{row.approach.name}
                <span class="quiet">{airText(row.approach)}</span></button
              >
            </td>
            <td class="figure">{row.approach.speedKmh}</td>
            <td class="figure">{normal.seenM === 0 ? 'not detected' : metres(normal.seenM, normal.beyond)}</td
            >
            <td class="figure">{Math.round(row.neededM)}</td>
            <td class="figure spare"
              >{normal.marginS < 0 ? '▼ ' : ''}{normal.beyond ? '≥ ' : ''}{signed(normal.marginS)}</td
            >
            {#each [protan, deutan] as one, i (i)}
              <td class="figure" class:late={(one?.marginS ?? 0) < 0}
                >{one === undefined ? '' : `${one.beyond ? '≥ ' : ''}${signed(one.marginS)}`}</td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#snippet says()}
    {#if result !== undefined}
      <h2>{result.approach.name} <span class="quiet">{airText(result.approach)}</span></h2>
      <dl>
        {#each result.sightings as sighting (sighting.observer)}
          <dt>{OBSERVER[sighting.observer]}</dt>
          <dd class:late={sighting.marginS < 0}>{detectionText(sighting)}, {timeMarginText(sighting)}</dd>
        {/each}
        <dt>Stopping distance</dt>
        <dd>
          {Math.round(result.neededM)} m at {result.approach.speedKmh} km/h{result.approach.weather === 'rain'
            ? ' (wet road)'
            : ''}
        </dd>
        {#if detail !== null && detail.reflectiveM !== null}
          <dt>Lamps off</dt>
          <dd>{reflectiveText(detail.reflectiveM)}</dd>
        {/if}
      </dl>
      {#if own !== undefined}
        <ApproachEdit approach={own} />
      {:else}
        <p>
          <button
            class="plain"
            disabled={editor.build.approaches.length >= MOST_OWN}
            onclick={() => copy(result.approach)}>Copy to this build</button
          >
          <span class="quiet">
            A copy can be edited. Default set for duty “{editor.build.brief.duty}”.
          </span>
        </p>
      {/if}
      {#if detail === null}
        <p class="quiet">Calculating …</p>
      {:else}
        <ApproachChart {result} curve={detail.curve} />
        <h2>Contribution by lamp</h2>
        {#if gains.length === 0}
          <p class="quiet">No single lamp: removing any one leaves the detection distance unchanged.</p>
        {:else}
          <LampList
            rows={gains.slice(0, 6).map(({ placementId, gainM }) => ({
              placementId,
              figure: `+${Math.round(gainM)} m`,
            }))}
          />
        {/if}
        {#if detail.dims.length > 0}
          <h2>Effect of dimming</h2>
          <ul class="dims">
            {#each detail.dims as { functionId, name, withM, withoutM, lostS } (functionId)}
              <li>
                <strong>{name}</strong>: detection {Math.round(withM)} m instead of {Math.round(withoutM)} m ({lostS.toFixed(
                  1,
                )} s later).
              </li>
            {/each}
          </ul>
        {/if}
        <h2>Suggested lamps</h2>
        {#if sight.wouldGain.running}
          <p class="quiet">Testing lamps …</p>
        {:else if more === null}
          <p>
            <button class="plain" onclick={tryMore}>Find lamps</button>
            <span class="quiet">Tests a pair or a bar in every zone that faces this approach.</span>
          </p>
        {:else if more.length === 0}
          <p class="quiet">No pair or bar adds 1 m or more.</p>
        {:else}
          <ul class="more">
            {#each more as one (`${one.fixtureId} ${one.zoneId}`)}
              <li>
                <span class="figure">+{Math.round(one.gainM)} m</span>
                <span
                  >{one.pair ? 'pair of ' : ''}{editor.lookup.fixture(one.fixtureId).name}, {zoneName(
                    one.zoneId,
                  )}
                  <span class="quiet">{moneyText(one.priceMinor, editor.build.brief.currency)}</span></span
                >
                <button class="plain" onclick={() => add(one)}>Add</button>
              </li>
            {/each}
          </ul>
        {/if}
      {/if}
      <p class="quiet small">
        Detection threshold for an attentive observer. Being noticed while driving needs many times more
        light. Design value, not a measurement. Colour deficiency is simplified.
      </p>
    {/if}
  {/snippet}
</Beside>

<style>
  .dims {
    font-size: 13px;
  }

  .more {
    display: grid;
    gap: 0.25rem;
  }

  .more li {
    display: grid;
    grid-template-columns: 4rem 1fr auto;
    gap: 0.5rem;
    align-items: center;
    font-size: 13px;
  }

  .table {
    overflow-y: auto;
    padding: 0 0.75rem;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }

  th {
    position: sticky;
    top: 0;
    padding: 0.3rem 0.4rem;
    background: var(--sheet);
    color: var(--cds-text-02);
    font-weight: 400;
    text-align: left;
  }

  td {
    padding: 0.15rem 0.4rem;
    border-top: 1px solid var(--sheet-line);
  }

  .figure {
    text-align: right;
    white-space: nowrap;
  }

  td button {
    padding: 0.1rem 0;
    border: 0;
    background: none;
    color: var(--cds-text-01);
    font: inherit;
    text-align: left;
    cursor: pointer;
  }

  .plain {
    padding: 0;
    border: 0;
    background: none;
    color: var(--cds-link-01);
    font: inherit;
    cursor: pointer;
  }

  .chosen td {
    background: var(--cds-ui-03);
  }

  .late .spare,
  td.late,
  dd.late {
    color: var(--gap);
    font-weight: 600;
  }
</style>
