import { leavesOf, type Condition } from '../design/condition.ts';
import { holds } from '../design/programmeFaults.ts';
import { allBits, Rows } from './bits.ts';
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
    .map((part, index): Faces => ({ index, places: placesOf(part, classes, told) }))
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
  { part, states, count }: ReachedPart,
  classes: readonly (readonly number[])[],
  functions: ReadonlySet<number>,
): number[] {
  const { weights } = new Numbering(part);
  const told = part.variables.flatMap((variable, i) => {
    const { kind, at, size } = variable;
    if (kind === 'input' ? new Set(classes[at]).size < 2 : !functions.has(at)) return [];
    return [{ weight: weights[i] ?? 1, size, bytes: bytesOf(variable, classes) }];
  });
  if (told.length === 0) return [0];
  // What is told of a state, a byte each.
  const width = Math.ceil(told.length / 4);
  const rows = new Uint32Array(count * width);
  for (const [i, { weight, size, bytes }] of told.entries()) {
    const shift = 8 * (i & 3);
    for (let place = 0; place < count; place++) {
      const word = place * width + (i >>> 2);
      const value = Math.floor((states[place] ?? 0) / weight) % size;
      rows[word] = (rows[word] ?? 0) | ((bytes[value] ?? 0) << shift);
    }
  }
  return Array.from(new Rows(rows, width).classes(allBits(width)).firsts);
}

/** By value of a variable: a byte that is equal where nothing tells values apart. */
function bytesOf({ kind, at, size }: Variable, classes: readonly (readonly number[])[]): Uint8Array {
  return Uint8Array.from({ length: size }, (_, value) =>
    kind === 'input' ? (classes[at]?.[value] ?? 0) : value,
  );
}
