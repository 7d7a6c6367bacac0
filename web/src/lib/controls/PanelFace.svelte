<script lang="ts">
  import { readOn } from '@flarik/core/design/controls';
  import { eventsOf, originalOf } from '@flarik/core/design/inputs';
  import { columnsOf, controlName, type Control, type Panel } from '@flarik/core/design/panel';
  import { getEditor } from '$lib/editor/context';
  import PanelGrid from './PanelGrid.svelte';

  /** A panel as it is worked: its controls in their places, each doing what it does. */
  let { panel }: { panel: Panel } = $props();
  const editor = getEditor()();
  const { cockpit } = editor;
  let page = $state(1);
  /** The controls are moved, not operated. */
  let arranging = $state(false);
  const pages = $derived(Math.max(1, page, ...panel.controls.map((c) => c.page)));
  const controls = $derived(
    panel.controls.filter((c) => c.page === page).toSorted((a, b) => a.row - b.row || a.column - b.column),
  );
  const columns = $derived(Math.max(4, ...panel.controls.flatMap(columnsOf)));
  const onIds = $derived(new Set(cockpit.on.map((on) => readOn(on).id)));
  /** Keys being held by the pointer, to tell a long press. */
  let held: { id: string; timer: ReturnType<typeof setTimeout>; long: boolean } | null = null;

  const inputId = (control: Control): string => originalOf(editor.build.controls, control.id);
  const valueOf = (control: Control): string => cockpit.valueOf(inputId(control));
  const isLit = (control: Control): boolean =>
    control.kind === 'button' && control.lamp !== null && onIds.has(control.lamp.functionId);

  function move(control: Control, value: string): void {
    if (valueOf(control) === value) return;
    cockpit.operate({ kind: 'arrives', input: control.id, value });
    const [rest] = control.kind === 'rocker' ? control.values : [];
    if (control.kind === 'rocker' && control.springs && rest !== undefined && rest !== value)
      cockpit.operate({ kind: 'arrives', input: control.id, value: rest });
  }

  /** Keys of this panel that do something when they are pressed together with another. */
  const chords = $derived.by(() => {
    const { controls: all } = editor.build;
    const here = new Set(panel.controls.map((c) => originalOf(all, c.id)));
    const used = eventsOf(all).filter((event) => event.kind === 'chord');
    const byKeys = new Map(used.map((event) => [event.controls.toSorted().join('+'), event]));
    return [...byKeys.values()].filter((event) => event.controls.some((id) => here.has(originalOf(all, id))));
  });
  const labelOf = (id: string): string => {
    const control = editor.build.controls.panels.flatMap((p) => p.controls).find((c) => c.id === id);
    return control === undefined ? 'deleted key' : controlName(control);
  };

  /** A key that has a value stays down until it is pressed again; any other gives a press. */
  function press(control: Control, kind: 'short' | 'long'): void {
    if (cockpit.programme.hasValue(inputId(control)))
      move(control, valueOf(control) === 'down' ? 'up' : 'down');
    else cockpit.operate({ kind: 'press', control: control.id, press: kind });
  }

  function pointerDown(control: Control): void {
    // A key without a long press is quick or slow: it is pressed.
    if (control.kind !== 'button' || !cockpit.programme.isDeliberate(control.id)) return;
    held = {
      id: control.id,
      long: false,
      timer: setTimeout(() => {
        if (held === null) return;
        held.long = true;
        press(control, 'long');
      }, control.holdMs),
    };
  }

  function click(control: Control): void {
    const was = held;
    if (was !== null) clearTimeout(was.timer);
    held = null;
    if (was?.long !== true) press(control, 'short');
  }
</script>

<section class="face" aria-label={panel.name}>
  <div class="head">
    <h2>{panel.name}</h2>
    <span class="quiet">{panel.place}</span>
    {#if pages > 1}
      <span class="pages" role="group" aria-label="Pages of {panel.name}">
        {#each Array.from({ length: pages }, (_, i) => i + 1) as n (n)}
          <button class="plain" aria-pressed={page === n} onclick={() => (page = n)}>{n}</button>
        {/each}
      </span>
    {/if}
    {#if panel.controls.length > 0}
      <button
        class="link arrange"
        aria-pressed={arranging}
        aria-label="{arranging ? 'Operate' : 'Arrange'} {panel.name}"
        onclick={() => (arranging = !arranging)}>{arranging ? 'Operate' : 'Arrange'}</button
      >
    {/if}
  </div>
  {#if arranging}
    <PanelGrid {panel} {page} onpage={(to: number) => (page = to)} />
  {:else}
    <div class="controls" style:grid-template-columns="repeat({columns}, minmax(0, 1fr))">
      {#each controls as control (control.id)}
        <div
          class="place"
          style:grid-row={control.row}
          style:grid-column="{control.column} / span {columnsOf(control).length}"
        >
          {#if control.kind === 'spare'}
            <div class="spare" title="Spare position">spare</div>
          {:else if control.kind === 'button' || control.kind === 'horn ring'}
            {@const down = valueOf(control) === 'down'}
            <button
              class="key"
              class:down
              class:ring={control.kind === 'horn ring'}
              aria-pressed={isLit(control) || down}
              title={control.kind === 'button' && cockpit.programme.isDeliberate(control.id)
                ? `Held ${control.holdMs} ms, or with Shift+Enter, it is a long press`
                : undefined}
              onpointerdown={() => pointerDown(control)}
              onpointerleave={() => {
                if (held !== null) clearTimeout(held.timer);
                held = null;
              }}
              onclick={() => click(control)}
              onkeydown={(event) => {
                if (event.key === 'Enter' && event.shiftKey) {
                  event.preventDefault();
                  press(control, 'long');
                }
              }}
            >
              {#if control.kind === 'button' && control.lamp !== null}
                <span
                  class="lamp"
                  class:lit={isLit(control)}
                  style:--lamp="var(--lamp-{control.lamp.colour})"
                  aria-hidden="true"
                ></span>
              {/if}
              <span>{controlName(control)}</span>
            </button>
          {:else}
            <div class="switch {control.kind}" role="radiogroup" aria-label={controlName(control)}>
              <span class="caption">{controlName(control)}</span>
              <span class="track">
                {#each control.values as value (value)}
                  <button
                    role="radio"
                    aria-checked={valueOf(control) === value}
                    class:here={valueOf(control) === value}
                    onclick={() => move(control, value)}>{value}</button
                  >
                {/each}
              </span>
            </div>
          {/if}
        </div>
      {:else}
        <p class="quiet">No controls on this panel yet. Add them under Panels.</p>
      {/each}
    </div>
  {/if}
  {#each chords as chord (chord.controls.join('+'))}
    <button class="plain chord" onclick={() => cockpit.operate(chord)}
      >{chord.controls.map(labelOf).join(' and ')} together</button
    >
  {/each}
</section>

<style>
  .chord {
    margin-top: 0.35rem;
  }

  .face {
    container-type: inline-size;
    border: 1px solid var(--cds-ui-04);
    border-radius: 8px;
    padding: 0.5rem 0.6rem 0.6rem;
    background: color-mix(in srgb, var(--car-tyre) 12%, var(--cds-ui-01));
  }

  .head {
    display: flex;
    align-items: baseline;
    gap: 0.5rem;
    margin-bottom: 0.4rem;
    font-size: 12px;
  }

  h2 {
    font-size: 13px;
    font-weight: 600;
  }

  .pages,
  .arrange {
    margin-left: auto;
  }

  .pages + .arrange {
    margin-left: 0;
  }

  .controls {
    display: grid;
    gap: 0.35rem;
  }

  .key,
  .spare {
    display: flex;
    flex-direction: column;
    align-items: center;
    justify-content: center;
    gap: 0.25rem;
    width: 100%;
    min-height: 46px;
    padding: 0.25rem;
    border: 1px solid var(--cds-ui-05);
    border-radius: 5px;
    background: var(--cds-ui-02);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    line-height: 1.15;
    text-align: center;
    overflow-wrap: anywhere;
  }

  .key {
    cursor: pointer;
    box-shadow: 0 2px 0 var(--cds-ui-04);
  }

  .key:active,
  .key.down {
    box-shadow: none;
    transform: translateY(2px);
  }

  .key.down {
    border-color: var(--on);
  }

  .key.ring {
    border-radius: 50%;
  }

  .spare {
    border-style: dashed;
    background: transparent;
    color: var(--cds-text-02);
  }

  .lamp {
    width: 9px;
    height: 9px;
    border-radius: 50%;
    border: 1px solid var(--car-edge);
    background: var(--car-shade);
  }

  .lamp.lit {
    background: var(--lamp);
    box-shadow: 0 0 6px var(--lamp);
  }

  .caption {
    display: block;
    margin-bottom: 2px;
    font-size: 11.5px;
    line-height: 1.35;
    color: var(--cds-text-02);
  }

  .track {
    display: flex;
    border: 1px solid var(--cds-ui-05);
    border-radius: 5px;
    overflow: hidden;
  }

  .track button {
    flex: 1;
    height: 30px;
    border: 0;
    border-left: 1px solid var(--cds-ui-04);
    background: var(--cds-ui-02);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    cursor: pointer;
  }

  .track button:first-child {
    border-left: 0;
  }

  .track .here {
    background: var(--on);
    color: var(--on-text);
    font-weight: 600;
  }

  .rotary .track {
    border-radius: 15px;
  }

  /* A word of a key is not taken apart where smaller letters keep it whole. */
  @container (max-width: 16rem) {
    .key,
    .spare {
      padding: 0.25rem 0;
      font-size: 10px;
      letter-spacing: -0.01em;
    }
  }

  button:focus-visible {
    outline: 2px solid var(--cds-focus);
    outline-offset: 1px;
  }
</style>
