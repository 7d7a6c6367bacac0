import { withLeaves, type Condition } from '../design/condition.ts';
import { putPanel, withControls } from '../design/controlEdits.ts';
import type { Control, Panel } from '../design/panel.ts';
import type { Build } from '../design/schema.ts';
import { SLIDE } from '../design/usualControls.ts';
import { freeId, newPanel } from './panelEdits.ts';
import { all, any, asking, is } from './templates/kit.ts';

/** More keys than this are no panel for a rear desk. */
const MOST = 24;

/** A panel at the rear with twins of the switches and keys there are, in their order. */
export function applyRearPanel(build: Build): Build {
  const wanted = build.controls.panels
    .flatMap((p) => p.controls)
    .filter((c) => c.twinOf === null && c.kind !== 'spare' && c.kind !== 'horn ring')
    .slice(0, MOST);
  const id = freeId(build, 'rear-panel');
  const empty: Panel = {
    id,
    name: 'Rear panel',
    place: 'rear desk',
    touch: false,
    cabPlaceId: null,
    widthMm: 160,
    heightMm: 60,
    depthMm: 40,
    controls: [],
  };
  // A row for each switch, then the keys, four in a row.
  const switches = wanted.filter((c) => 'values' in c);
  const keys = wanted.filter((c) => !('values' in c));
  const placed = [
    ...switches.map((c, i) => ({ c, column: 1, row: 1 + i })),
    ...keys.map((c, i) => ({ c, column: 1 + (i % 4), row: 1 + switches.length + Math.floor(i / 4) })),
  ];
  const controls = placed.map(({ c, column, row }): Control => ({
    ...c,
    id: freeId(build, `rear-${c.id}`),
    page: 1,
    column,
    row,
    twinOf: c.id,
  }));
  return controls.length === 0 ? build : putPanel(build, { ...empty, controls });
}

/** What a switch at the rear stands at while it leaves the stages to the front. */
const LEFT_TO_THE_FRONT = 'front';

/** A switch of its own at the rear desk: what it stands at goes before the slide, unless it leaves the stages to that. */
export function layLeadingPanel(build: Build): Build {
  const slide = build.controls.panels.flatMap((p) => p.controls).find((c) => c.id === SLIDE);
  const id = 'rear-lead';
  const there = build.controls.panels.some((p) => p.controls.some((c) => c.id === id));
  if (slide === undefined || !('values' in slide) || slide.values.length > 7 || there) return build;
  const lead: Control = {
    kind: 'rotary',
    id,
    label: 'Rear leads',
    page: 1,
    column: 1,
    row: 1,
    twinOf: null,
    backlit: true,
    values: [LEFT_TO_THE_FRONT, ...slide.values],
  };
  const panel: Panel = {
    ...newPanel(freeId(build, 'lead-panel'), 'Rear switch'),
    place: 'rear desk',
    controls: [lead],
  };
  const led = (c: Condition): Condition =>
    withLeaves(c, (leaf) =>
      leaf.kind === 'is' && leaf.input === SLIDE
        ? any(all(is(id, LEFT_TO_THE_FRONT), leaf), is(id, ...leaf.values))
        : leaf,
    );
  return withControls(putPanel(build, panel), {
    functions: build.controls.functions.map((fn) => asking(fn, led)),
  });
}
