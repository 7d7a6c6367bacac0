<script lang="ts">
  import { glowKey, type Glow } from './glow';
  import { lettersOf } from './letters';
  import type { LampPicture } from './pictures';

  let {
    picture,
    glows,
    selected,
    letters,
    named,
    unlit,
    calm,
    reach,
    letterM,
    onpress,
    onkey,
    onreach,
  }: {
    picture: LampPicture;
    glows: ReadonlyMap<string, Glow>;
    selected: boolean;
    letters: boolean;
    /** Its name stands beside it. */
    named: boolean;
    /** As it looks with everything off. */
    unlit: boolean;
    /** Lower contrast between lit and dark. */
    calm: boolean;
    /** The smallest half-size of the handle for the pointer, m. */
    reach: number;
    /** Size of letters, m. */
    letterM: number;
    onpress: (event: PointerEvent, picture: LampPicture) => void;
    onkey: (event: KeyboardEvent, picture: LampPicture) => void;
    onreach: (picture: LampPicture) => void;
  } = $props();

  const { placement, at, half } = $derived(picture);
  const glowOf = (moduleId: string): Glow | undefined => glows.get(glowKey(placement.id, moduleId));

  /** What its board says now. */
  const said = $derived(
    placement.modules.map((m) => glowOf(m.id)?.text ?? '').find((text) => text !== '') ?? placement.text,
  );

  function brightness(glow: Glow | undefined): number {
    if (glow?.driven !== true) return 0.28;
    return calm ? 0.45 + 0.45 * glow.level : 0.2 + 0.8 * glow.level;
  }
</script>

{#snippet drawing()}
  <rect
    class="handle"
    x={at[0] - Math.max(half[0], reach)}
    y={at[1] - Math.max(half[1], reach)}
    width={2 * Math.max(half[0], reach)}
    height={2 * Math.max(half[1], reach)}
    rx="0.02"
  />
  {#if picture.pole !== null}<path class="pole" d={picture.pole} />{/if}
  <path class="housing" class:inside={picture.behindGlass} d={picture.housing} />
  {#each picture.lenses as lens (lens.moduleId)}
    {@const glow = glowOf(lens.moduleId)}
    {#if glow !== undefined}
      {#if !unlit && glow.driven && glow.level > 0.5}
        <path class="halo" class:calm style:--lamp="var(--lamp-{glow.colour})" d={lens.path} />
      {/if}
      <path
        class="lens"
        class:unlit
        style:--lamp="var(--lamp-{glow.colour})"
        d={lens.path}
        style:fill-opacity={(unlit ? 1 : brightness(glow)) * (placement.status === 'planned' ? 0.5 : 1)}
      />
    {/if}
  {/each}
{/snippet}

{#if picture.primary}
  <g
    class="lamp"
    class:selected
    role="button"
    tabindex="0"
    aria-pressed={selected}
    aria-label={placement.label}
    data-placement={placement.id}
    data-lamp={placement.id}
    class:gone={placement.status === 'removed'}
    class:kept={placement.status === 'kept'}
    class:planned={placement.status === 'planned'}
    onpointerdown={(event) => onpress(event, picture)}
    onkeydown={(event) => onkey(event, picture)}
    onfocus={() => onreach(picture)}
  >
    {@render drawing()}
  </g>
{:else}
  <g
    class="lamp"
    class:selected
    class:gone={placement.status === 'removed'}
    class:kept={placement.status === 'kept'}
    class:planned={placement.status === 'planned'}
    aria-hidden="true"
    data-lamp={placement.id}
    onpointerdown={(event) => onpress(event, picture)}
  >
    {@render drawing()}
  </g>
{/if}

{#if said !== '' && picture.primary}
  <text class="text" aria-hidden="true" transform="translate({at[0]},{at[1]}) scale(1,-1)">{said}</text>
{/if}

{#if named}
  <text class="name" aria-hidden="true" transform="translate({at[0]},{at[1] - half[1] - 0.06}) scale(1,-1)"
    >{placement.label}</text
  >
{/if}

{#if letters}
  <g class="letters" class:selected style:--letter="{letterM}px" aria-hidden="true">
    {#each lettersOf(picture, glowOf, letterM) as letter (letter.moduleId)}
      <text transform="translate({letter.at[0]},{letter.at[1]}) scale(1,-1)" class:driven={letter.driven}
        >{letter.text}</text
      >
    {/each}
  </g>
{/if}

<style>
  .letters text {
    font-size: var(--letter);
  }

  .name {
    font-family: 'IBM Plex Sans', sans-serif;
    font-size: calc(11 * var(--px));
    text-anchor: middle;
    fill: var(--cds-text-01);
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: calc(3 * var(--px));
    pointer-events: none;
  }

  .text {
    font-size: min(0.16px, calc(14 * var(--px)));
    text-anchor: middle;
    dominant-baseline: middle;
    fill: var(--lamp-amber);
    stroke: #101316;
    pointer-events: none;
  }

  .gone .housing {
    stroke: var(--gap);
    stroke-dasharray: 3 2;
  }

  .kept .housing {
    stroke: var(--good);
  }

  .planned .housing {
    fill-opacity: 0.25;
    stroke: var(--accent);
    stroke-dasharray: 3 2;
  }

  .lamp {
    cursor: grab;
    outline: none;
  }

  .handle {
    fill: transparent;
    stroke: transparent;
    vector-effect: non-scaling-stroke;
  }

  .lamp:hover .handle {
    stroke: var(--accent);
    stroke-width: 1;
  }

  .lamp:focus-visible .handle {
    stroke: var(--cds-focus);
    stroke-width: 2.5;
  }

  .selected .handle {
    stroke: var(--accent);
    stroke-width: 2;
    fill: color-mix(in srgb, var(--accent) 22%, transparent);
  }

  .pole {
    fill: none;
    stroke: #7d8994;
    stroke-width: 2;
    vector-effect: non-scaling-stroke;
  }

  .housing {
    fill: #101316;
    stroke: #7d8994;
    stroke-width: 0.7;
    vector-effect: non-scaling-stroke;
  }

  .housing.inside {
    fill-opacity: 0.55;
    stroke-dasharray: 3 2;
  }

  .halo {
    fill: none;
    stroke: var(--lamp);
    stroke-width: 7;
    stroke-linejoin: round;
    stroke-opacity: 0.32;
    vector-effect: non-scaling-stroke;
  }

  .halo.calm {
    stroke-opacity: 0.2;
  }

  .lens {
    fill: var(--lamp);
  }

  .lens.unlit {
    fill: #5b646d;
  }

  text {
    font-family: var(--mono);
    font-size: min(0.125px, calc(13 * var(--px)));
    letter-spacing: 0;
    text-anchor: middle;
    fill: var(--cds-text-02);
    pointer-events: none;
    paint-order: stroke;
    stroke: var(--sheet);
    stroke-width: min(0.025px, calc(2.5 * var(--px)));
  }

  text.driven {
    fill: var(--cds-text-01);
    font-weight: 600;
  }
</style>
