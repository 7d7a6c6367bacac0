<script lang="ts">
  import { openText } from '@flarik/core/state/state';
  import type { MovingPart } from '@flarik/core/vehicle/types';
  import { isOpen, posedSolids, stopOf } from '@flarik/core/vehicle/vehicle';
  import { outlineOf, project } from '@flarik/core/vehicle/picture/views';
  import { getEditor } from '$lib/editor/context';
  import { pathOf } from '$lib/sheet/pictures';
  import HangingBox from '$lib/ui/HangingBox.svelte';

  const editor = getEditor()();
  const upperFirst = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);
  const { vehicle } = $derived(editor);
  const open = $derived(editor.open);
  const standing = $derived(
    vehicle.parts.map((part) => ({ part, stop: stopOf(part, open), text: textOf(part) })),
  );
  const openCount = $derived(standing.filter(({ stop }) => stop !== null).length);
  const summary = $derived(
    openCount === 0 && editor.state.open.length === 0
      ? 'All closed'
      : openCount > 2
        ? `${openCount} of ${standing.length} open`
        : upperFirst(openText(editor.build, editor.state.open)),
  );
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

<HangingBox
  id="moving-parts"
  label="Doors, hatch and other moving parts"
  title="Doors, hatch and other moving parts"
  {summary}
  tone={openCount > 0 ? 'mind' : 'plain'}
>
  <div class="inside">
    <svg viewBox="{-half.x} {-half.y} {2 * half.x} {2 * half.y}" aria-hidden="true">
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
    <div class="names" class:two={standing.length > 8}>
      {#each standing as { part, stop, text } (part.id)}
        <button
          class:open={stop !== null}
          aria-pressed={stop !== null}
          onclick={() => editor.moveOn(part.id)}
        >
          <span aria-hidden="true">{stop === null ? '□' : '◨'}</span>
          {text}
        </button>
      {/each}
      <button class="plain" disabled={openCount === 0} onclick={() => editor.shutEverything()}
        >Close all</button
      >
    </div>
  </div>
</HangingBox>

<style>
  .names button.open {
    border-color: var(--warn);
    background: color-mix(in srgb, var(--warn) 22%, transparent);
    font-weight: 600;
  }

  .inside {
    display: flex;
    align-items: flex-start;
    gap: 0.75rem;
  }

  svg {
    width: 120px;
    height: 210px;
  }

  .hull {
    fill: var(--car-body);
    stroke: var(--car-edge);
    stroke-width: 0.03;
  }

  .part {
    fill: var(--car-glass);
    stroke: var(--car-edge);
    stroke-width: 0.03;
    cursor: pointer;
  }

  .part.open {
    fill: var(--warn);
    stroke: var(--cds-text-01);
  }

  .part:hover {
    stroke: var(--accent);
    stroke-width: 0.09;
  }

  .names {
    display: grid;
    gap: 3px 4px;
  }

  .names.two {
    grid-template-columns: repeat(2, auto);
  }

  .names button:not(:global(.plain)) {
    padding: 1px 8px;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 13px;
    line-height: 22px;
    text-align: left;
    cursor: pointer;
    white-space: nowrap;
  }
</style>
