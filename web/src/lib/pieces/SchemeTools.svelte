<script lang="ts">
  import type { Placement } from '@flarik/core/design/placement';
  import {
    applyScheme,
    numbers,
    schemeName,
    schemeParts,
    SCHEMES,
    type Scheme,
  } from '@flarik/core/arrange/schemes';
  import { getEditor } from '$lib/editor/context';
  import { nameOf } from '$lib/editor/names';

  /** Ready ways to share out phases over these lamps, each shown as a small picture before it is laid. */
  let { placements }: { placements: readonly Placement[] } = $props();
  const editor = getEditor()();
  let open = $state(false);

  const ids = $derived(new Set(placements.map((p) => p.id)));
  const half = $derived({ x: editor.vehicle.widthM / 2 + 0.25, y: editor.vehicle.lengthM / 2 + 0.25 });
  /** Worked out only while the pictures are looked at. */
  const pictures = $derived(
    open ? SCHEMES.map((scheme) => ({ scheme, parts: schemeParts(editor.build, ids, scheme) })) : [],
  );

  const lay = (scheme: Scheme): void =>
    editor.edit(`${schemeName[scheme]} for ${nameOf(editor.build, [...ids])}`, (b) =>
      applyScheme(b, ids, scheme),
    );
</script>

<details bind:open>
  <summary>Assign phases to {placements.length === 1 ? 'its modules' : `${placements.length} lamps`}</summary>
  <div class="schemes">
    {#each pictures as { scheme, parts } (scheme)}
      <button onclick={() => lay(scheme)}>
        <svg viewBox="{-half.y} {-half.x} {2 * half.y} {2 * half.x}" aria-hidden="true">
          <rect
            x={-editor.vehicle.lengthM / 2}
            y={-editor.vehicle.widthM / 2}
            width={editor.vehicle.lengthM}
            height={editor.vehicle.widthM}
            rx="0.3"
          />
          {#each parts as part (`${part.placementId}/${part.moduleId}`)}
            {#if numbers(scheme) && parts.length <= 24}
              <text x={part.at[0]} y={-part.at[1] + 0.12}>{part.order}</text>
            {:else}
              <circle class={part.phase} cx={part.at[0]} cy={-part.at[1]} r="0.13" />
            {/if}
          {/each}
        </svg>
        {schemeName[scheme]}
      </button>
    {/each}
  </div>
  <p class="quiet">
    ● phase A, ○ B, <span class="c">●</span> C, <span class="d">●</span> D; front to the right. Numbered lamps need
    a pattern along a row.
  </p>
</details>

<style>
  summary {
    font-size: 13px;
    cursor: pointer;
  }

  .schemes {
    display: grid;
    grid-template-columns: 1fr 1fr;
    gap: 4px;
    margin: 0.4rem 0;
  }

  button {
    display: grid;
    gap: 2px;
    padding: 0.3rem;
    border: 1px solid var(--cds-ui-04);
    background: transparent;
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    text-align: left;
    cursor: pointer;
  }

  button:hover {
    border-color: var(--accent);
  }

  svg {
    width: 100%;
    height: 44px;
  }

  rect {
    fill: var(--car-shade);
    stroke: var(--car-edge);
    stroke-width: 0.04;
  }

  .A {
    fill: var(--warn);
    stroke: var(--warn);
    stroke-width: 0.05;
  }

  .C,
  .D {
    fill: var(--accent);
    stroke: var(--accent);
    stroke-width: 0.05;
  }

  .D {
    fill: var(--good);
    stroke: var(--good);
  }

  .c {
    color: var(--accent);
  }

  .d {
    color: var(--good);
  }

  text {
    fill: var(--cds-text-01);
    font-size: 0.36px;
    text-anchor: middle;
  }

  .B {
    fill: var(--sheet);
    stroke: var(--warn);
    stroke-width: 0.06;
  }

  p {
    font-size: 12px;
  }
</style>
