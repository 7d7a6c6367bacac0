<script lang="ts">
  import type { MovingPart } from '@flarik/core/vehicle/types';
  import { isOpen, posedSolids, stopOf } from '@flarik/core/vehicle/vehicle';
  import { outlineOf, project } from '@flarik/core/vehicle/picture/views';
  import { getEditor } from '$lib/editor/context';
  import { pathOf } from '$lib/sheet/pictures';

  const editor = getEditor()();
  /** More parts than these are listed in a box that opens. */
  const MOST_IN_ROWS = 6;

  const { vehicle } = $derived(editor);
  const open = $derived(new Set(editor.state.open));
  const standing = $derived(
    vehicle.parts.map((part) => ({ part, stop: stopOf(part, open), text: textOf(part) })),
  );
  const many = $derived(vehicle.parts.length > MOST_IN_ROWS);
  const openCount = $derived(standing.filter(({ stop }) => stop !== null).length);

  /** The parts from above, front up: those that lie flat below others first. */
  const shapes = $derived(
    posedSolids(vehicle, open)
      .filter((s) => s.partId !== null)
      .map((s) => ({
        id: s.id,
        partId: s.partId ?? '',
        stands: isOpen(vehicle, s.partId, open),
        path: pathOf(
          outlineOf(s.vertices.map((v) => project('plan', v))).map(([a, b]): [number, number] => [-b, -a]),
        ),
      })),
  );
  const half = $derived({ x: vehicle.widthM / 2 + 0.9, y: vehicle.lengthM / 2 + 0.5 });

  function textOf(part: MovingPart): string {
    const stop = stopOf(part, open);
    return stop === null || part.stops.length === 1 ? part.name : `${part.name}: ${stop.name}`;
  }
</script>

{#snippet names()}
  {#each standing as { part, stop, text } (part.id)}
    <button class:open={stop !== null} aria-pressed={stop !== null} onclick={() => editor.moveOn(part.id)}>
      <span aria-hidden="true">{stop === null ? '□' : '◨'}</span>
      {text}
    </button>
  {/each}
{/snippet}

<div class="plan" role="group" aria-label="Doors, hatch and other moving parts">
  <svg viewBox="{-half.x} {-half.y} {2 * half.x} {2 * half.y}" width="44" height="56">
    <rect
      class="hull"
      x={-vehicle.widthM / 2}
      y={-vehicle.lengthM / 2}
      width={vehicle.widthM}
      height={vehicle.lengthM}
      rx="0.3"
    />
    {#each shapes as shape (shape.id)}
      <path
        class="part"
        class:open={shape.stands}
        d={shape.path}
        role="presentation"
        onclick={() => editor.moveOn(shape.partId)}
      />
    {/each}
  </svg>
  {#if many}
    <details>
      <summary>{vehicle.parts.length} doors and parts{openCount > 0 ? `, ${openCount} open` : ''}</summary>
      <div class="names box">{@render names()}</div>
    </details>
  {:else}
    <div class="names">{@render names()}</div>
  {/if}
</div>

<style>
  .plan {
    display: flex;
    align-items: center;
    gap: 0.25rem;
  }
  svg {
    display: none;
  }

  .hull {
    fill: var(--car-body);
    stroke: var(--car-edge);
    stroke-width: 0.06;
  }

  .part {
    fill: var(--car-glass);
    stroke: var(--car-edge);
    stroke-width: 0.05;
    cursor: pointer;
  }

  .part.open {
    fill: var(--warn);
    stroke: var(--cds-text-01);
  }

  .part:hover {
    stroke: var(--accent);
    stroke-width: 0.12;
  }

  .names {
    display: grid;
    grid-template-columns: repeat(3, auto);
    gap: 2px 4px;
  }

  details {
    position: relative;
  }

  summary {
    padding: 2px 8px;
    border: 1px solid var(--cds-ui-04);
    font-size: 13px;
    line-height: 22px;
    white-space: nowrap;
    cursor: pointer;
  }

  .box {
    position: absolute;
    z-index: 30;
    top: calc(100% + 4px);
    left: 0;
    grid-template-columns: repeat(2, auto);
    gap: 3px;
    padding: 0.5rem;
    background: var(--cds-ui-01);
    border: 1px solid var(--cds-ui-04);
    box-shadow: 0 4px 14px rgb(0 0 0 / 40%);
  }

  .names button {
    padding: 1px 6px;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    line-height: 20px;
    text-align: left;
    cursor: pointer;
    white-space: nowrap;
  }

  .names button.open {
    border-color: var(--warn);
    background: color-mix(in srgb, var(--warn) 22%, transparent);
    font-weight: 600;
  }
</style>
