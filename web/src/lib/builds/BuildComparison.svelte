<script lang="ts">
  import { formatNumber } from '@flarik/core/words/quantity';
  import type { Build } from '@flarik/core/design/schema';
  import type { Variant } from '@flarik/core/sight/variant';
  import type { Ambient } from '@flarik/core/words/ambient';
  import { FACES } from '@flarik/core/words/face';
  import { loadBuild } from '$lib/client';
  import Choice from '$lib/ui/Choice.svelte';
  import { startSight } from '$lib/workers/sight';

  /** Builds side by side: light, current, holes and money of each, in one stage. */
  let { ids }: { ids: readonly string[] } = $props();

  interface Held {
    readonly build: Build;
    /** By mode and light around; null where the build has nothing of that mode. */
    readonly figures: ReadonlyMap<string, Variant | null>;
    readonly modes: readonly number[];
  }
  let held = $state.raw<readonly Held[]>([]);
  let trouble = $state('');
  let chosenMode = $state<number | null>(null);
  let ambient = $state<Ambient>('day');
  const AROUND = [
    { value: 'day', text: 'day' },
    { value: 'night', text: 'night' },
  ] as const;

  const keyOf = (mode: number, around: Ambient): string => `${mode} ${around}`;

  async function holdOne(id: string, api: ReturnType<typeof startSight>['api']): Promise<Held> {
    const { build } = await loadBuild(id, fetch);
    const { modes, figures } = await api.variants(build);
    return { build, modes, figures: new Map(figures.map((f) => [keyOf(f.mode, f.ambient), f.variant])) };
  }

  $effect(() => {
    const wanted = ids;
    const { api, end } = startSight();
    held = [];
    trouble = '';
    void (async () => {
      try {
        const found: Held[] = [];
        for (const id of wanted) found.push(await holdOne(id, api));
        held = found;
      } catch (error) {
        trouble = error instanceof Error ? error.message : String(error);
      }
      end();
    })();
    return end;
  });

  /** Modes that all of them have. */
  const modes = $derived(
    (held[0]?.modes ?? []).filter((mode) => held.every((one) => one.modes.includes(mode))),
  );
  const mode = $derived(chosenMode !== null && modes.includes(chosenMode) ? chosenMode : modes.at(-1));
  const variants = $derived(
    mode === undefined ? [] : held.map(({ figures }) => figures.get(keyOf(mode, ambient)) ?? null),
  );

  interface Row {
    readonly name: string;
    readonly value: (variant: Variant, build: Build) => number | null;
    readonly text: (value: number, build: Build) => string;
    readonly best: 'most' | 'least';
    /** It is no better or worse than in another currency. */
    readonly inMoney?: true;
  }
  const whole = (v: number): string => formatNumber(v);
  const money = (v: number, { brief }: Build): string => `${formatNumber(v / 100, 2)} ${brief.currency}`;
  const ROWS: readonly Row[] = [
    ...FACES.map((face): Row => ({
      name: `Least light to the ${face}, cd·s/min`,
      value: ({ light }) => light[face].least,
      text: whole,
      best: 'most',
    })),
    ...FACES.map((face): Row => ({
      name: `Light to the ${face}, mean`,
      value: ({ light }) => light[face].mean,
      text: whole,
      best: 'most',
    })),
    { name: 'Power, average, W', value: (v) => v.meanW, text: whole, best: 'least' },
    { name: 'Current, average, A', value: (v) => v.current.meanA, text: (a) => a.toFixed(1), best: 'least' },
    {
      name: 'Current, peak, A',
      value: (v) => v.current.worstA.value,
      text: (a) => a.toFixed(1),
      best: 'least',
    },
    { name: 'Lamps', value: (v) => v.counts.heads, text: whole, best: 'least' },
    { name: 'Holes', value: (v) => v.counts.holes, text: whole, best: 'least' },
    { name: 'Fixture cost', value: (v) => v.counts.costMinor, text: money, best: 'least', inMoney: true },
    {
      name: 'Fitting time, h',
      value: (v) => v.counts.installMinutes / 60,
      text: (h) => h.toFixed(1),
      best: 'least',
    },
    {
      name: 'Average light per 100 of cost',
      value: (v) => v.perHundred,
      text: whole,
      best: 'most',
      inMoney: true,
    },
  ];
  const oneCurrency = $derived(new Set(held.map(({ build }) => build.brief.currency)).size === 1);

  /** What each build comes to in a row, as text; the best is marked where they differ. */
  function cells({ value, text, best, inMoney }: Row): { readonly text: string; readonly isBest: boolean }[] {
    const values = variants.map((variant, i) => {
      const build = held[i]?.build;
      return variant === null || build === undefined ? null : value(variant, build);
    });
    const known = values.filter((v) => v !== null);
    const top = best === 'most' ? Math.max(...known) : Math.min(...known);
    const texts = values.map((v, i) => {
      const build = held[i]?.build;
      return v === null || build === undefined ? '–' : text(v, build);
    });
    const differ = new Set(texts).size > 1 && (inMoney !== true || oneCurrency);
    return texts.map((one, i) => ({ text: one, isBest: differ && values[i] === top }));
  }
</script>

{#if trouble !== ''}
  <p role="alert">{trouble}</p>
{:else if held.length === 0}
  <p class="quiet">Calculating …</p>
{:else if mode === undefined}
  <p>The builds have no stage in common. Their light cannot be compared.</p>
{:else}
  <div class="head">
    <Choice
      label="Stage"
      small
      options={modes.map((m) => ({ value: String(m), text: `Stage ${m}` }))}
      value={String(mode)}
      onchoose={(v: string) => (chosenMode = Number(v))}
    />
    <Choice
      label="Light around"
      small
      options={AROUND}
      value={ambient}
      onchoose={(v: Ambient) => (ambient = v)}
    />
    <span class="quiet">Horizontal, everything closed. ● marks the better value.</span>
  </div>
  <table>
    <thead>
      <tr>
        <td></td>
        {#each held as { build } (build.id)}<th scope="col">{build.name}</th>{/each}
      </tr>
    </thead>
    <tbody>
      {#each ROWS as row (row.name)}
        <tr>
          <th scope="row">{row.name}</th>
          {#each cells(row) as cell, i (held[i]?.build.id ?? i)}
            <td class:best={cell.isBest}>{cell.isBest ? '● ' : ''}{cell.text}</td>
          {/each}
        </tr>
      {/each}
    </tbody>
  </table>
{/if}

<style>
  .head {
    display: flex;
    flex-wrap: wrap;
    gap: 1rem;
    align-items: center;
    margin-bottom: 0.5rem;
  }

  table {
    width: 100%;
    border-collapse: collapse;
    font-size: 13px;
  }

  th,
  td {
    padding: 0.25rem 0.75rem;
    border-bottom: 1px solid var(--cds-ui-03);
    text-align: right;
    font-variant-numeric: tabular-nums;
  }

  th[scope='row'] {
    text-align: left;
    font-weight: 400;
    color: var(--cds-text-02);
  }

  .best {
    font-weight: 600;
  }
</style>
