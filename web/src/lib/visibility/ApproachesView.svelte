<script lang="ts">
  import type { Approach } from '@flarik/core/design/approach';
  import type { ApproachResult } from '@flarik/core/sight/approach';
  import { airText, seenText, spareText } from '@flarik/core/sight/words';
  import { addApproach } from '@flarik/core/design/approachEdits';
  import { freshId } from '$lib/editor/freshId';
  import { getEditor } from '$lib/editor/context';
  import ApproachEdit from './ApproachEdit.svelte';
  import ApproachChart from './ApproachChart.svelte';
  import type { Sight } from './sight.svelte';

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
  const OBSERVER = { normal: 'Normal eye', protan: 'Sees red poorly', deutan: 'Sees green poorly' } as const;

  const result = $derived(rows.find(({ approach }) => approach.id === chosen?.id) ?? rows[0]);
  const detail = $derived(
    sight.approach.answer?.approach.id === result?.approach.id ? sight.approach.answer : null,
  );
  const labels = $derived(new Map(editor.build.placements.map((p) => [p.id, p.label])));
  const gains = $derived(detail?.gains ?? []);
  const own = $derived(editor.build.approaches.find(({ id }) => id === result?.approach.id));
  function copy(approach: Approach): void {
    const id = freshId('approach');
    editor.edit(`Add the approach ${approach.name}`, (b) =>
      addApproach(b, { ...approach, name: `${approach.name.slice(0, 70)} (own)` }, id),
    );
    const made = editor.build.approaches.find((one) => one.id === id);
    if (made !== undefined) onchoose(made);
  }
  const metres = (m: number, beyond: boolean): string => `${beyond ? '≥ ' : ''}${Math.round(m)} m`;
</script>

<div class="approaches">
  <div class="table">
    <table>
      <thead>
        <tr>
          <th>Who comes, in what air</th>
          <th class="figure">km/h</th>
          <th class="figure">Seen from</th>
          <th class="figure">To stop</th>
          <th class="figure">To spare</th>
          <th class="figure">Red poorly</th>
          <th class="figure">Green poorly</th>
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
            <td class="figure">{normal.seenM === 0 ? 'not seen' : metres(normal.seenM, normal.beyond)}</td>
            <td class="figure">{Math.round(row.neededM)} m</td>
            <td class="figure spare"
              >{normal.marginS < 0 ? '▼ ' : ''}{normal.beyond ? '≥ ' : ''}{normal.marginS.toFixed(1)} s</td
            >
            {#each [protan, deutan] as one, i (i)}
              <td class="figure" class:late={(one?.marginS ?? 0) < 0}
                >{one === undefined ? '' : `${one.beyond ? '≥ ' : ''}${one.marginS.toFixed(1)} s`}</td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
  {#if result !== undefined}
    <aside aria-label="The approach looked at">
      <h2>{result.approach.name} <span class="quiet">{airText(result.approach)}</span></h2>
      <dl>
        {#each result.sightings as sighting (sighting.observer)}
          <dt>{OBSERVER[sighting.observer]}</dt>
          <dd class:late={sighting.marginS < 0}>{seenText(sighting)}, {spareText(sighting)}</dd>
        {/each}
        <dt>Needed to stop</dt>
        <dd>
          {Math.round(result.neededM)} m at {result.approach.speedKmh} km/h{result.approach.weather === 'rain'
            ? ', wet'
            : ''}
        </dd>
      </dl>
      {#if own !== undefined}
        <ApproachEdit approach={own} />
      {:else}
        <p>
          <button class="plain" onclick={() => copy(result.approach)}>Make it one of this build’s own</button>
          <span class="quiet">to change its road, air or what must be seen.</span>
        </p>
      {/if}
      {#if detail === null}
        <p class="quiet">Working it out …</p>
      {:else}
        <ApproachChart {result} curve={detail.curve} />
        <h2>What each lamp adds</h2>
        {#if gains.length === 0}
          <p class="quiet">No single lamp: without any one of them it is seen from as far.</p>
        {:else}
          <ol>
            {#each gains.slice(0, 6) as { placementId, gainM } (placementId)}
              <li>
                <button
                  class:on={editor.selection.has(placementId)}
                  onclick={() => editor.select([placementId])}
                >
                  <span>{labels.get(placementId) ?? placementId}</span>
                  <span class="figure">+{Math.round(gainM)} m</span>
                </button>
              </li>
            {/each}
          </ol>
        {/if}
      {/if}
      <p class="quiet small">
        Just visible against that background, by one eye that looks: to be noticed while driving takes many
        times as much. A design figure, not a measurement. Eyes that see colours poorly are a simplification.
      </p>
    </aside>
  {/if}
</div>

<style>
  .approaches {
    display: grid;
    grid-template-columns: minmax(0, 1fr) 24rem;
    height: 100%;
    min-height: 0;
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

  p {
    font-size: 13px;
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

  aside {
    display: grid;
    align-content: start;
    gap: 0.5rem;
    padding: 0.5rem 0.75rem;
    overflow-y: auto;
    background: var(--cds-ui-01);
  }

  dl {
    display: grid;
    grid-template-columns: auto 1fr;
    gap: 0.2rem 0.6rem;
    font-size: 13px;
  }

  dt {
    color: var(--cds-text-02);
  }

  ol button {
    display: flex;
    justify-content: space-between;
    width: 100%;
    padding: 0.2rem 0.4rem;
    border: 0;
    background: none;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
    cursor: pointer;
  }

  ol button:hover,
  ol button.on {
    background: var(--cds-ui-03);
  }

  .small {
    font-size: 12px;
    line-height: 1.4;
  }
</style>
