<script lang="ts">
  import { formatDate } from '$lib/ui/formatDate';
  import { choosePack } from '@flarik/core/design/packEdits';
  import type { RulePack } from '@flarik/core/design/rulePack';
  import type { Build } from '@flarik/core/design/schema';
  import type { CheckResult } from '@flarik/core/rules/finding';
  import { differences } from '@flarik/core/rules/packEdits';
  import { Button, Modal, Select, SelectItem } from 'carbon-components-svelte';
  import { onDestroy, onMount } from 'svelte';
  import type { BuildSummary, PackVersion } from '$lib/api';
  import { listBuilds, loadBuild, packVersions } from '$lib/client';
  import { startAnalysis } from '$lib/workers/analysis';

  /** A pack tried on the builds there are, alone or against an earlier version of it. */
  let { pack, onclose }: { pack: RulePack; onclose: () => void } = $props();

  /** How the rules of a version come out on a build: how many are broken, and the gravest finding. */
  interface Out {
    readonly broken: readonly string[];
    readonly untold: number;
    readonly worst: string;
  }
  interface Row {
    readonly build: BuildSummary;
    readonly now: Out | null;
    readonly before: Out | null;
    readonly trouble: string;
  }

  let versions = $state.raw<readonly PackVersion[]>([]);
  let rows = $state.raw<readonly Row[]>([]);
  let running = $state(false);
  let trouble = $state('');
  let chosen = $state('');
  let run = 0;
  let analysis = startAnalysis();
  onDestroy(() => {
    run++;
    analysis.end();
  });

  const against = $derived(versions.find((v) => String(v.version) === chosen)?.pack ?? null);
  const changed = $derived(against === null ? [] : differences(against, pack));

  onMount(async () => {
    try {
      versions = await packVersions(pack.id);
    } catch (error) {
      trouble = error instanceof Error ? error.message : String(error);
    }
  });

  const outOf = ({ findings, outcomes }: CheckResult, { id }: RulePack): Out => {
    const mine = outcomes.filter((o) => o.packId === id);
    return {
      broken: mine.filter((o) => o.verdict === 'broken').map((o) => o.ruleId),
      untold: mine.filter((o) => o.verdict === 'cannot tell').length,
      worst: findings.find((f) => f.packId === id)?.sentence ?? '',
    };
  };

  type Api = typeof analysis.api;

  async function check(api: Api, build: Build, of: RulePack): Promise<Out> {
    const alone = choosePack({ ...build, rulePacks: [] }, of);
    await api.take(alone);
    return outOf(await api.check(), of);
  }

  async function tryAll(): Promise<void> {
    // A worker that was lost is not asked again.
    stop();
    const mine = ++run;
    // A run that is stopped keeps its own worker, and never asks that of the next.
    const { api } = analysis;
    running = true;
    trouble = '';
    rows = [];
    try {
      for (const summary of (await listBuilds()).filter((b) => !b.archived)) {
        const row = await tryOn(api, summary);
        if (mine !== run) return;
        rows = [...rows, row];
      }
    } catch (error) {
      if (mine === run) trouble = error instanceof Error ? error.message : String(error);
    } finally {
      if (mine === run) running = false;
    }
  }

  async function tryOn(api: Api, summary: BuildSummary): Promise<Row> {
    try {
      const { build } = await loadBuild(summary.id, fetch);
      const now = await check(api, build, pack);
      const before = against === null ? null : await check(api, build, against);
      return { build: summary, now, before, trouble: '' };
    } catch (error) {
      const why = error instanceof Error ? error.message : String(error);
      return { build: summary, now: null, before: null, trouble: why };
    }
  }

  function stop(): void {
    run++;
    running = false;
    analysis.end();
    analysis = startAnalysis();
  }

  const text = (out: Out): string =>
    [
      out.broken.length === 0 ? 'no failures' : `${out.broken.length} fail`,
      ...(out.untold > 0 ? [`${out.untold} inconclusive`] : []),
    ].join(', ');
  const differs = ({ now, before }: Row): boolean =>
    now !== null && before !== null && now.broken.join() !== before.broken.join();
</script>

<Modal open passiveModal modalHeading="Test {pack.name} on other builds" on:close={onclose}>
  <div class="ask">
    <Select size="sm" labelText="Compare with" bind:selected={chosen} disabled={running}>
      <SelectItem value="" text="none: current pack" />
      {#each versions as v (v.version)}
        <SelectItem
          value={String(v.version)}
          text="library version {v.version}, {v.pack.edition}, {formatDate(v.savedAt, 'date')}"
        />
      {/each}
    </Select>
    {#if running}
      <Button size="small" kind="tertiary" on:click={stop}>Stop</Button>
    {:else}
      <Button size="small" on:click={() => void tryAll()}>Try</Button>
    {/if}
  </div>
  {#if trouble !== ''}<p class="bad" role="alert">{trouble}</p>{/if}
  {#if against !== null}
    <h3>Changed rules</h3>
    <ul aria-label="Changed rules">
      {#each changed as d (d.ruleId)}
        <li>
          {#if d.before === null}<span class="mark">new</span> {d.after}
          {:else if d.after === null}<span class="mark">removed</span> {d.before}
          {:else}<span class="mark">before</span> {d.before}<br /><span class="mark">now</span> {d.after}{/if}
        </li>
      {:else}<li class="quiet">No rule has changed.</li>{/each}
    </ul>
  {/if}
  <div aria-live="polite" aria-busy={running}>
    {#if rows.length > 0}
      <table>
        <caption class="visually-hidden">Results by build</caption>
        <thead>
          <tr>
            <th scope="col">Build</th>
            {#if against !== null}<th scope="col">Before</th>{/if}
            <th scope="col">{against === null ? 'Outcome' : 'Now'}</th>
            <th scope="col">Worst</th>
          </tr>
        </thead>
        <tbody>
          {#each rows as row (row.build.id)}
            <tr class:differs={differs(row)}>
              <td>{row.build.name}</td>
              {#if row.now === null}
                <td colspan={against === null ? 2 : 3} class="bad">Not checked: {row.trouble}</td>
              {:else}
                {#if against !== null}<td>{row.before === null ? '' : text(row.before)}</td>{/if}
                <td class:bad={row.now.broken.length > 0}
                  >{text(row.now)}{differs(row) ? ' (differs)' : ''}</td
                >
                <td class="quiet">{row.now.worst}</td>
              {/if}
            </tr>
          {/each}
        </tbody>
      </table>
    {/if}
    {#if running}<p class="quiet">checking {rows.length + 1} …</p>{/if}
  </div>
</Modal>

<style>
  .ask {
    display: grid;
    grid-template-columns: minmax(0, 24rem) auto;
    justify-content: start;
    align-items: end;
    gap: 0.75rem;
  }

  h3 {
    padding: 0.75rem 0 0.25rem;
    font-size: 14px;
  }

  li,
  td {
    font-size: 13px;
    line-height: 1.4;
  }

  li {
    padding: 0.25rem 0;
  }

  .mark {
    display: inline-block;
    min-width: 3.2rem;
    color: var(--cds-text-02);
  }

  table {
    width: 100%;
    margin-top: 0.75rem;
    border-collapse: collapse;
  }

  th,
  td {
    padding: 0.3rem 0.75rem 0.3rem 0;
    text-align: left;
    vertical-align: top;
    border-top: 1px solid var(--cds-ui-03);
  }

  th {
    font-size: 12px;
    font-weight: 400;
    color: var(--cds-text-02);
  }

  tr.differs {
    background: var(--cds-ui-03);
  }

  .bad {
    color: var(--gap);
  }
</style>
