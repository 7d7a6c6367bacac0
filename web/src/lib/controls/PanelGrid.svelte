<script lang="ts">
  import { moveOnPanel } from '@flarik/core/arrange/panelEdits';
  import { putPanel } from '@flarik/core/design/controlEdits';
  import {
    columnsOf,
    controlName,
    MOST_COLUMNS,
    MOST_PAGES,
    MOST_ROWS,
    type Control,
    type Panel,
  } from '@flarik/core/design/panel';
  import { getEditor } from '$lib/editor/context';
  import { trackDrag } from '$lib/editor/trackDrag';

  /** A page of a panel while its controls are moved: dragged from cell to cell, or by arrow keys. */
  let {
    panel,
    page,
    onpage,
  }: {
    panel: Panel;
    page: number;
    onpage: (page: number) => void;
  } = $props();
  const editor = getEditor()();

  interface Cell {
    readonly column: number;
    readonly row: number;
  }
  const ROW_PX = 52;
  let grid = $state<HTMLElement>();
  let over = $state.raw<(Cell & { readonly controlId: string }) | null>(null);
  let said = $state('');
  const controls = $derived(panel.controls.filter((c) => c.page === page));
  /** One column and one row more than are used, to move to. */
  const columns = $derived(
    Math.min(MOST_COLUMNS, Math.max(4, 1 + Math.max(0, ...controls.flatMap(columnsOf)))),
  );
  const rows = $derived(Math.min(MOST_ROWS, Math.max(2, 1 + Math.max(0, ...controls.map((c) => c.row)))));
  const cells = $derived(
    Array.from({ length: columns * rows }, (_, i) => ({
      column: (i % columns) + 1,
      row: Math.floor(i / columns) + 1,
    })),
  );
  const fits = $derived(
    over !== null &&
      moveOnPanel(panel, over.controlId, { page, column: over.column, row: over.row }) !== null,
  );
  const overColumns = $derived.by(() => {
    const moved = controls.find(({ id }) => id === over?.controlId);
    return moved === undefined ? 1 : columnsOf(moved).length;
  });

  /** @returns whether there was room */
  function move(control: Control, to: Cell & { readonly page: number }): boolean {
    const moved = moveOnPanel(panel, control.id, to);
    said = moved === null ? `No room there for ${controlName(control)}.` : '';
    if (moved !== null)
      editor.edit(`Move ${controlName(control)}`, (b) => putPanel(b, moved), `place ${control.id}`);
    return moved !== null;
  }

  function cellAt(x: number, y: number): Cell {
    const { left, top, width, height } = grid?.getBoundingClientRect() ?? new DOMRect();
    const at = (share: number, count: number): number =>
      Math.min(count, Math.max(1, Math.floor(share * count) + 1));
    return { column: at((x - left) / width, columns), row: at((y - top) / height, rows) };
  }

  function drag(press: PointerEvent, control: Control): void {
    // Held by its middle, a wide switch would start half its width before the pointer.
    const grabbed = cellAt(press.clientX, press.clientY).column - control.column;
    const target = (x: number, y: number): Cell => {
      const { column, row } = cellAt(x, y);
      return { column: Math.max(1, column - grabbed), row };
    };
    trackDrag(press, {
      move: (x, y) => (over = { controlId: control.id, ...target(x, y) }),
      drop: (x, y) => {
        over = null;
        move(control, { page, ...target(x, y) });
      },
      cancel: () => (over = null),
    });
  }

  const STEPS: Readonly<Record<string, Cell>> = {
    ArrowLeft: { column: -1, row: 0 },
    ArrowRight: { column: 1, row: 0 },
    ArrowUp: { column: 0, row: -1 },
    ArrowDown: { column: 0, row: 1 },
  };

  function onkeydown(event: KeyboardEvent, control: Control): void {
    const step = STEPS[event.key];
    const turn = event.key === 'PageDown' ? 1 : event.key === 'PageUp' ? -1 : 0;
    if (step === undefined && turn === 0) return;
    event.preventDefault();
    event.stopPropagation();
    const { column, row } = control;
    if (step !== undefined) move(control, { page, column: column + step.column, row: row + step.row });
    else if (
      page + turn >= 1 &&
      page + turn <= MOST_PAGES &&
      move(control, { page: page + turn, column, row })
    )
      onpage(page + turn);
  }
</script>

<div
  class="grid"
  bind:this={grid}
  role="group"
  aria-label="Places on {panel.name}"
  style:grid-template="repeat({rows}, {ROW_PX}px) / repeat({columns}, minmax(0, 1fr))"
>
  {#each cells as { column, row } (`${row}/${column}`)}
    <div class="cell" style:grid-area="{row} / {column}"></div>
  {/each}
  {#each controls as control (control.id)}
    <button
      class="held"
      style:grid-area="{control.row} / {control.column} / auto / span {columnsOf(control).length}"
      aria-label="{controlName(control)}, column {control.column}, row {control.row}; arrow keys move it"
      onpointerdown={(event) => drag(event, control)}
      onkeydown={(event) => onkeydown(event, control)}>{controlName(control)}</button
    >
  {/each}
  {#if over !== null}
    <div
      class="target"
      class:misfit={!fits}
      style:grid-area="{over.row} / {over.column} / auto / span {overColumns}"
    ></div>
  {/if}
</div>
<p class="quiet" role="status">
  {said === ''
    ? 'Drag a control to its place, or use the arrow keys. Page Up and Page Down change its page.'
    : said}
</p>

<style>
  .grid {
    position: relative;
    display: grid;
    touch-action: none;
  }

  .cell {
    margin: 2px;
    border: 1px dashed var(--cds-ui-04);
    border-radius: 5px;
  }

  .held {
    z-index: 1;
    margin: 2px;
    padding: 0.2rem;
    overflow: hidden;
    border: 1px solid var(--cds-ui-05);
    border-radius: 5px;
    background: var(--cds-ui-02);
    color: var(--cds-text-01);
    font: inherit;
    font-size: 12px;
    line-height: 1.15;
    overflow-wrap: anywhere;
    cursor: grab;
  }

  .held:focus-visible {
    outline: 2px solid var(--cds-focus);
  }

  .target {
    z-index: 2;
    margin: 0;
    border: 2px solid var(--zone-fit);
    border-radius: 6px;
    pointer-events: none;
  }

  .target.misfit {
    border-color: var(--gap);
  }

  p {
    margin-top: 0.3rem;
    font-size: 12px;
  }
</style>
