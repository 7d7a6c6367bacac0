import { leavesOf, type Condition } from '../design/condition.ts';
import { holds } from '../design/programmeFaults.ts';
import { allBits, Rows } from './bits.ts';
import type { Registers } from './machine.ts';
import { Numbering } from './numbering.ts';
import type { Variable } from './parts.ts';
import type { Reach, ReachedPart } from './reach.ts';

/** States of a part that differ in what functions and conditions ask: of each kind the nearest. */
export interface Faces {
  /** Of the part. */
  readonly index: number;
  readonly places: readonly number[];
}

/**
 * Of each part the states that differ, the part with most of them first.
 * @param told - functions that are told apart, by rank
 * @param asked - conditions that are told apart, too
 */
export function facesOf(reach: Reach, told: ReadonlySet<number>, asked: readonly Condition[]): Faces[] {
  const classes = classesOf(reach.machine.programme, told, asked);
  return reach.parts
    .map((part, index): Faces => ({ index, places: placesOf(reach.machine.blank(), part, classes, told) }))
    .toSorted((a, b) => b.places.length - a.places.length);
}

/**
 * By input and value: values that no function and no condition asked tells apart have one number.
 * @param told - functions that are told apart, by rank
 */
function classesOf(
  { inputs, controls, ranked }: Reach['machine']['programme'],
  told: ReadonlySet<number>,
  asked: readonly Condition[],
): readonly (readonly number[])[] {
  const conditions = [
    ...ranked.flatMap((fn, rank) =>
      !told.has(rank)
        ? []
        : [
            ...(fn.when.way === 'while' ? [fn.when.condition] : []),
            ...(fn.enabledBy === null ? [] : [fn.enabledBy]),
          ],
    ),
    ...(controls.enabledBy === null ? [] : [controls.enabledBy]),
    ...asked,
  ];
  const leaves = conditions.flatMap((c) => [...leavesOf(c)]).filter((leaf) => leaf.kind === 'is');
  return inputs.map(({ id, values }) => {
    const mine = leaves.filter((leaf) => leaf.input === id);
    const known = new Map<string, number>();
    return values.map((value) => {
      const told = mine
        .map((leaf) => (holds(leaf, new Map([[id, value]]), () => false) ? '1' : '0'))
        .join('');
      const number = known.get(told) ?? known.size;
      known.set(told, number);
      return number;
    });
  });
}

/** Of states that are told apart by nothing, the nearest. */
function placesOf(
  r: Registers,
  { part, states, count }: ReachedPart,
  classes: readonly (readonly number[])[],
  functions: ReadonlySet<number>,
): number[] {
  const told = part.variables.filter((v) =>
    v.kind === 'input' ? new Set(classes[v.at]).size > 1 : functions.has(v.at),
  );
  if (told.length === 0) return [0];
  const numbering = new Numbering(part);
  // What is told of a state, a byte each.
  const width = Math.ceil(told.length / 4);
  const rows = new Uint32Array(count * width);
  for (let place = 0; place < count; place++) {
    numbering.into(states[place] ?? 0, r);
    for (let i = 0; i < told.length; i++) {
      const variable = told[i];
      const word = place * width + (i >>> 2);
      if (variable !== undefined) rows[word] = (rows[word] ?? 0) | (byteOf(variable) << (8 * (i & 3)));
    }
  }
  return Array.from(new Rows(rows, width).classes(allBits(width)).firsts);

  function byteOf({ kind, at }: Variable): number {
    switch (kind) {
      case 'input':
        return classes[at]?.[r.values[at] ?? 0] ?? 0;
      case 'memory':
        return r.memory[at] ?? 0;
      case 'phase':
        return r.phases[at] ?? 0;
    }
  }
}
