<script lang="ts">
  import { getEditor } from '$lib/editor/context';

  const editor = getEditor()();

  /** Where each part stands on the little plan, front up: a rectangle in a 44 × 60 picture, and its open form. */
  const PARTS: Readonly<Record<string, { shut: string; open: string }>> = {
    bonnet: { shut: 'M12,4H32L33,18H11Z', open: 'M11,18H33L31,12H13Z' },
    hatch: { shut: 'M12,50H32V56H12Z', open: 'M12,54H32L34,60H10Z' },
    'door-front-left': { shut: 'M8,22H12V34H8Z', open: 'M10,21L12,23L3,32L1,30Z' },
    'door-front-right': { shut: 'M32,22H36V34H32Z', open: 'M34,21L32,23L41,32L43,30Z' },
    'door-rear-left': { shut: 'M8,36H12V47H8Z', open: 'M10,35L12,37L3,46L1,44Z' },
    'door-rear-right': { shut: 'M32,36H36V47H32Z', open: 'M34,35L32,37L41,46L43,44Z' },
  };
</script>

<div class="plan" role="group" aria-label="Doors, hatch and bonnet">
  <svg viewBox="0 0 44 62" width="40" height="56">
    <path class="hull" d="M14,3H30Q35,8 35,16V50Q35,57 30,58H14Q9,57 9,50V16Q9,8 14,3Z" />
    <path class="roof" d="M14,24H30L31,46H13Z" />
    {#each editor.vehicle.parts as part (part.id)}
      {@const isOpen = editor.state.open.includes(part.id)}
      {@const shape = PARTS[part.id]}
      {#if shape !== undefined}
        <path
          class="part"
          class:open={isOpen}
          d={isOpen ? shape.open : shape.shut}
          role="presentation"
          onclick={() => editor.toggleOpen(part.id)}><title>{part.name}</title></path
        >
      {/if}
    {/each}
  </svg>
  <div class="names">
    {#each editor.vehicle.parts as part (part.id)}
      {@const isOpen = editor.state.open.includes(part.id)}
      <button class:open={isOpen} aria-pressed={isOpen} onclick={() => editor.toggleOpen(part.id)}>
        <span aria-hidden="true">{isOpen ? '◨' : '□'}</span>
        {part.name}
      </button>
    {/each}
  </div>
</div>

<style>
  .plan {
    display: flex;
    align-items: center;
    gap: 0.25rem;
  }

  @media (max-width: 1150px) {
    svg {
      display: none;
    }
  }

  .hull {
    fill: var(--car-body);
    stroke: var(--car-edge);
  }

  .roof {
    fill: var(--car-shade);
  }

  .part {
    fill: var(--car-glass);
    stroke: var(--car-edge);
    cursor: pointer;
  }

  .part.open {
    fill: var(--warn);
    stroke: var(--cds-text-01);
  }

  .part:hover {
    stroke: var(--accent);
    stroke-width: 2;
  }

  .names {
    display: grid;
    grid-template-columns: repeat(3, auto);
    gap: 2px 4px;
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

  .names button:focus-visible {
    outline: 2px solid var(--cds-focus);
  }
</style>
