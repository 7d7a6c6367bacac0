import { leavesOf } from '../design/condition.ts';
import type { PreviousControl } from '../design/controls.ts';
import { conditionsOf, eventsOf, originalOf } from '../design/inputs.ts';
import type { Control, Panel } from '../design/panel.ts';
import type { Build } from '../design/schema.ts';

/** What became of an old control. */
export interface ControlChange {
  readonly old: PreviousControl;
  /** The controls that work now what it worked, on whatever panel. */
  readonly now: readonly { readonly panel: Panel; readonly control: Control }[];
  /** In words, what differs; empty when nothing does. */
  readonly changes: readonly string[];
}

/** The controls that switch a function: those that its condition, its enabling and its events name; twins are one. */
export function controlsOf(build: Build, functionId: string): { panel: Panel; control: Control }[] {
  const { controls } = build;
  const functions = controls.functions.filter(({ id }) => id === functionId);
  const part = { ...controls, functions, never: [], enabledBy: null };
  const named = new Set<string>();
  for (const condition of conditionsOf(part))
    for (const leaf of leavesOf(condition))
      if (leaf.kind === 'is') named.add(originalOf(controls, leaf.input));
  for (const event of eventsOf(part))
    for (const id of event.kind === 'chord'
      ? event.controls
      : [event.kind === 'press' ? event.control : event.input])
      named.add(originalOf(controls, id));
  return controls.panels.flatMap((panel) =>
    panel.controls.filter((c) => named.has(c.id)).map((control) => ({ panel, control })),
  );
}

/** What became of each old control: whether what it did is switched in the same place, order, kind and by the same name. */
export const controlChanges = (build: Build): ControlChange[] =>
  build.controls.oldPanel.map((old) => {
    const now = old.functionIds.flatMap((id) => controlsOf(build, id));
    const unique = now.filter(({ control }, i) => now.findIndex((n) => n.control.id === control.id) === i);
    return { old, now: unique, changes: changesOf(old, unique) };
  });

function changesOf(old: PreviousControl, now: ControlChange['now']): string[] {
  if (old.kind === 'spare') return [];
  if (old.functionIds.length === 0) return ['no new control has this effect'];
  if (now.length === 0) return ['no control works it any more'];
  // The one that is most like it counts: others are ways besides.
  const changes = now.map(({ panel, control }) => [
    ...(control.kind === old.kind ? [] : [`a ${control.kind} now, where a ${old.kind} was`]),
    ...(control.label.trim().toLowerCase() === old.label.trim().toLowerCase()
      ? []
      : [`label “${control.label}” instead of “${old.label}”`]),
    ...(control.column === old.column && control.row === old.row
      ? []
      : [
          `row ${control.row}, column ${control.column} of ${panel.name} instead of row ${old.row}, column ${old.column}`,
        ]),
  ]);
  return changes.reduce((a, b) => (b.length < a.length ? b : a));
}

/** A panel as it is now, put down as the old one: its first page, with what each control switches. */
export function previousPanelFrom(build: Build, panel: Panel, freshId: () => string): PreviousControl[] {
  const workedBy = build.controls.functions.map((fn) => ({
    id: fn.id,
    controls: new Set(controlsOf(build, fn.id).map(({ control }) => control.id)),
  }));
  return panel.controls
    .filter(({ page }) => page === 1)
    .map(({ id, kind, label, column, row }) => {
      const functionIds = workedBy.filter((fn) => fn.controls.has(id)).map((fn) => fn.id);
      return { id: freshId(), kind, label, column, row, functionIds: functionIds.slice(0, 8) };
    });
}
