<script lang="ts">
  import { bookOf } from '@flarik/core/timing/book';
  import { PATTERNS } from '@flarik/core/timing/library';
  import { pulsesThatFit, ROW_MOVES, type Pattern } from '@flarik/core/timing/pattern';
  import { rowMoveName } from '@flarik/core/timing/recipes/row';
  import { getEditor } from '$lib/editor/context';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';

  /** What a pattern along a row, by chance or of other patterns is made from. */
  let {
    pattern,
    onchange,
  }: { pattern: Exclude<Pattern, { kind: 'drawn' }>; onchange: (pattern: Pattern) => void } = $props();
  const editor = getEditor()();
  const book = $derived(bookOf(editor.build));
  const parts = $derived([...book.own, ...PATTERNS].filter((p) => p.kind !== 'sequence'));
</script>

{#if pattern.kind === 'row'}
  {@const p = pattern}
  <label>
    Direction of movement
    <select
      value={p.move}
      onchange={(event) => {
        const move = ROW_MOVES.find((m) => m === event.currentTarget.value);
        if (move !== undefined) onchange({ ...p, move });
      }}
    >
      {#each ROW_MOVES as move (move)}<option value={move}>{rowMoveName[move]}</option>{/each}
    </select>
  </label>
  <label>
    Each head
    <select
      value={p.show}
      onchange={(event) => onchange({ ...p, show: event.currentTarget.value === 'run' ? 'run' : 'hold' })}
    >
      <option value="hold">stays lit until all switch off</option>
      <option value="run">is lit for its own step</option>
    </select>
  </label>
  <div class="pair">
    <TypedNumber
      label="Heads"
      unit="in the row"
      value={p.heads}
      min={2}
      max={32}
      onset={(n: number) => onchange({ ...p, heads: Math.round(n) })}
    />
    <TypedNumber
      label="Step"
      unit="ms"
      value={p.stepMs}
      min={10}
      max={5000}
      onset={(n: number) => onchange({ ...p, stepMs: Math.round(n) })}
    />
    <TypedNumber
      label="Hold at the end"
      unit="ms"
      value={p.holdMs}
      min={0}
      max={10_000}
      onset={(n: number) => onchange({ ...p, holdMs: Math.round(n) })}
    />
    <TypedNumber
      label="Rest"
      unit="ms"
      value={p.restMs}
      min={0}
      max={10_000}
      onset={(n: number) => onchange({ ...p, restMs: Math.round(n) })}
    />
  </div>
{:else if pattern.kind === 'random'}
  {@const p = pattern}
  <div class="pair">
    <TypedNumber
      label="Seed"
      unit="number"
      value={p.seed}
      min={0}
      max={999_999}
      onset={(n: number) => onchange({ ...p, seed: Math.round(n) })}
    />
    <TypedNumber
      label="Repeats after"
      unit="ms"
      value={p.cycleMs}
      min={20}
      max={60_000}
      refuse={(n: number) =>
        pulsesThatFit({ ...p, cycleMs: Math.round(n) }) === null ? 'no pulses fill it' : ''}
      onset={(n: number) => onchange({ ...p, cycleMs: Math.round(n) })}
    />
    {#each ['pulse', 'dark'] as const as part (part)}
      {#each ['leastMs', 'mostMs'] as const as end (end)}
        <TypedNumber
          label="{part === 'pulse' ? 'Pulse' : 'Dark'}, {end === 'leastMs' ? 'least' : 'most'}"
          unit="ms"
          value={p[part][end]}
          min={10}
          max={20_000}
          refuse={(n: number) => {
            const next = { ...p, [part]: { ...p[part], [end]: Math.round(n) } };
            if (next[part].leastMs > next[part].mostMs) return 'least before most';
            return pulsesThatFit(next) === null ? 'no pulses fill the cycle' : '';
          }}
          onset={(n: number) => onchange({ ...p, [part]: { ...p[part], [end]: Math.round(n) } })}
        />
      {/each}
    {/each}
  </div>
  <p>
    Guaranteed: {Math.round(60_000 / (p.pulse.mostMs + p.dark.mostMs))} to {Math.round(
      60_000 / (p.pulse.leastMs + p.dark.leastMs),
    )} flashes a minute, never dark for longer than {p.dark.mostMs} ms.
  </p>
{:else}
  {@const p = pattern}
  {#each p.parts as part, i (i)}
    <div class="part">
      <select
        aria-label="Pattern {i + 1} of the sequence"
        value={part.patternId}
        onchange={(event) =>
          onchange({
            ...p,
            parts: p.parts.map((old, n) =>
              n === i ? { ...old, patternId: event.currentTarget.value } : old,
            ),
          })}
      >
        {#each parts as choice (choice.id)}<option value={choice.id}>{choice.name}</option>{/each}
      </select>
      <input
        type="number"
        min="1"
        max="50"
        aria-label="Times of pattern {i + 1}"
        value={part.times}
        onchange={(event) => {
          const times = Math.min(50, Math.max(1, Math.round(event.currentTarget.valueAsNumber || 1)));
          event.currentTarget.valueAsNumber = times;
          onchange({ ...p, parts: p.parts.map((old, n) => (n === i ? { ...old, times } : old)) });
        }}
      />
      <button
        class="plain"
        aria-label="Take pattern {i + 1} out"
        disabled={p.parts.length === 1}
        onclick={() => onchange({ ...p, parts: p.parts.filter((_, n) => n !== i) })}>×</button
      >
    </div>
  {/each}
  <button
    class="plain"
    disabled={p.parts.length >= 20}
    onclick={() => onchange({ ...p, parts: [...p.parts, { patternId: 'single', times: 2 }] })}
    >Add a pattern</button
  >
{/if}

<style>
  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  p {
    font-size: 12px;
    line-height: 1.35;
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }

  .part {
    display: grid;
    grid-template-columns: 1fr 3.5rem 26px;
    gap: 3px;
  }

  select,
  input,
  button {
    height: 28px;
  }
</style>
