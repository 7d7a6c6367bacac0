import { SHUT } from './inputs.ts';
import { leavesOf, type Condition } from './condition.ts';
import type { Implication } from './controls.ts';
import type { ControlFunction } from './functions.ts';

/** Whether a condition holds, given the value of each input and the functions that are on. A part that is not there is shut. */
export function holds(
  condition: Condition,
  values: ReadonlyMap<string, string>,
  isOn: (functionId: string) => boolean,
): boolean {
  switch (condition.kind) {
    case 'all':
      return condition.of.every((part) => holds(part, values, isOn));
    case 'any':
      return condition.of.some((part) => holds(part, values, isOn));
    case 'not':
      return !holds(condition.of, values, isOn);
    case 'is':
      return condition.values.includes(values.get(condition.input) ?? SHUT);
    case 'on':
      return isOn(condition.functionId);
  }
}

const nothingOn = () => false;

/** Whether values together keep an implication. */
export const isAllowed = ({ when, then }: Implication, values: ReadonlyMap<string, string>): boolean =>
  !holds(when, values, nothingOn) || holds(then, values, nothingOn);

/** The functions that a function asks about, in its condition and in what enables it. */
export function conditionReads(fn: ControlFunction): string[] {
  const conditions = [fn.enabledBy, fn.when.way === 'while' ? fn.when.condition : null];
  const asked = conditions.flatMap((c) => (c === null ? [] : [...leavesOf(c)]));
  return [...new Set(asked.flatMap((leaf) => (leaf.kind === 'on' ? [leaf.functionId] : [])))];
}

/**
 * Functions in an order in which each comes after those that it asks about.
 * @returns null when they ask about each other in a ring
 */
export function dependencyOrder(functions: readonly ControlFunction[]): ControlFunction[] | null {
  const ids = new Set(functions.map((f) => f.id));
  const done = new Set<string>();
  const out: ControlFunction[] = [];
  let left = [...functions];
  while (left.length > 0) {
    const ready = left.filter((fn) => conditionReads(fn).every((id) => done.has(id) || !ids.has(id)));
    if (ready.length === 0) return null;
    for (const fn of ready) done.add(fn.id);
    out.push(...ready);
    left = left.filter((fn) => !done.has(fn.id));
  }
  return out;
}

/** A ring of functions that wait for each other; null when there is none. `at` is where its first stands. */
export function findCycle(functions: readonly ControlFunction[]): { at: number; names: string[] } | null {
  const byId = new Map(functions.map((f) => [f.id, f]));
  const safe = new Set<string>();
  for (const start of functions) {
    const way: string[] = [];
    const seek = (id: string): string[] | null => {
      if (way.includes(id)) return [...way.slice(way.indexOf(id)), id];
      const fn = byId.get(id);
      if (fn === undefined || safe.has(id)) return null;
      way.push(id);
      for (const asked of conditionReads(fn)) {
        const ring = seek(asked);
        if (ring !== null) return ring;
      }
      way.pop();
      safe.add(id);
      return null;
    };
    const ring = seek(start.id);
    if (ring !== null)
      return {
        at: functions.findIndex((f) => f.id === ring[0]),
        names: ring.map((id) => `"${byId.get(id)?.name ?? 'deleted function'}"`),
      };
  }
  return null;
}
