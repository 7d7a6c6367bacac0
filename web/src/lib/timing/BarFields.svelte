<script lang="ts">
  import {
    changeBar,
    moveBar,
    removeBar,
    resizeBar,
    SHORTEST_BAR_MS,
    splitBar,
  } from '@flarik/core/timing/draw';
  import { lineName, type Cycle } from '@flarik/core/timing/pattern';
  import { endLevelOf, type Span } from '@flarik/core/timing/span';
  import TypedNumber from '$lib/ui/TypedNumber.svelte';
  import { getDesk } from '$lib/pieces/desk.svelte';

  /** The times, levels and colour of the bar chosen on the desk. */
  let { bar, index, cycle }: { bar: Span; index: number; cycle: Cycle } = $props();
  const desk = getDesk()();
  const percent = (share: number): number => Math.round(share * 100);
</script>

<h3>Bar {index + 1} of {lineName(cycle.by, desk.line).toLowerCase()}</h3>
<div class="pair">
  <TypedNumber
    label="From"
    unit="ms"
    value={bar.fromMs}
    min={0}
    max={cycle.cycleMs}
    onset={(ms: number) =>
      desk.draw('Change start of a bar', (p) =>
        ms < bar.toMs - SHORTEST_BAR_MS
          ? resizeBar(p, desk.line, index, 'from', ms)
          : moveBar(p, desk.line, index, ms),
      )}
  />
  <TypedNumber
    label="To"
    unit="ms"
    value={bar.toMs}
    min={1}
    max={cycle.cycleMs}
    onset={(ms: number) => desk.draw('Resize a bar', (p) => resizeBar(p, desk.line, index, 'to', ms))}
  />
  <TypedNumber
    label="Level"
    unit="%"
    value={percent(bar.level)}
    min={0}
    max={100}
    onset={(n: number) =>
      desk.draw('Level of a bar', (p) => changeBar(p, desk.line, index, { level: n / 100 }))}
  />
  <TypedNumber
    label="Level at its end"
    unit="%"
    value={percent(endLevelOf(bar))}
    min={0}
    max={100}
    onset={(n: number) =>
      desk.draw('Level at the end of a bar', (p) => changeBar(p, desk.line, index, { endLevel: n / 100 }))}
  />
</div>
<label>
  Colour slot
  <select
    value={String(bar.slot ?? '')}
    onchange={(event) => {
      const slot = ([1, 2, 3] as const).find((s) => String(s) === event.currentTarget.value);
      desk.draw('Colour of a bar', (p) => changeBar(p, desk.line, index, { slot }));
    }}
  >
    <option value="">slot of the cue</option>
    <option value="1">1</option>
    <option value="2">2</option>
    <option value="3">3</option>
  </select>
</label>
<div class="buttons">
  <button class="plain" onclick={() => desk.draw('Split a bar', (p) => splitBar(p, desk.line, index))}
    >Split</button
  >
  <button
    class="plain"
    onclick={() => {
      desk.draw('Delete a bar', (p) => removeBar(p, desk.line, index));
      desk.index = null;
    }}>Delete bar</button
  >
</div>

<style>
  h3 {
    font-size: 13px;
  }

  .pair {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 0.4rem;
  }

  label {
    display: grid;
    font-size: 12px;
    color: var(--cds-text-02);
  }

  .buttons {
    display: flex;
    gap: 3px;
  }
</style>
