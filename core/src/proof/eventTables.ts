import { isTimed, type Programme } from '../controls/programme.ts';
import type { Machine } from './machine.ts';
import type { MachineEvent, Part, Variable } from './parts.ts';

/** What an event does is kept in tables where each depends on no more combinations of values than this. */
const MOST_ROWS = 2 ** 14;
/** What an event adds to the number of a state by changing some variables: it depends on some variables alone, row by row. */
export interface TableShape {
  /** Places of the variables it depends on, and what one step of each is in the row. */
  readonly at: readonly number[];
  readonly steps: readonly number[];
  /** Places of the variables that it tells the change of. */
  readonly changes: readonly number[];
  /** Whether it tells that the event does not happen. */
  readonly decides: boolean;
  readonly rowCount: number;
}

/** Tables for an event of a part, yet to be filled: one if that is small, else one a variable; null where that is not small. */
export function tablesOf(
  { wired, programme }: Machine,
  part: Part,
  event: MachineEvent,
): readonly TableShape[] | null {
  const { move, ends, reaches, judges } = event;
  const { variables } = part;
  const moved = new Set<number>(move === null ? [] : [move.input]);
  if (move !== null && wired.follows.some(({ input }) => input === move.input))
    for (const { input, follower } of wired.follows) moved.add(input).add(follower);
  // What is forbidden and names nothing that moves is as it was before: not so.
  const forbidden = part.never.flatMap(({ inputs }) => (inputs.some((at) => moved.has(at)) ? inputs : []));
  const decided = placesIn(
    variables,
    new Set([...moved, ...forbidden]),
    new Set(ends === null ? [] : [ends]),
  );
  // Judging changes what is remembered of those that forget, and the phases of those with timers.
  const judged = judges.filter((rank) => {
    const fn = programme.ranked[rank];
    return fn !== undefined && (fn.forgets || isTimed(fn.when));
  });
  const changed = placesIn(
    variables,
    moved,
    new Set([...reaches, ...judged, ...(ends === null ? [] : [ends])]),
  );
  const each = changed.map((place) => {
    const variable = variables[place];
    const inputs = new Set(moved);
    const functions = new Set<number>();
    const asked = variable?.kind === 'input' ? [] : bound(programme, variable?.at ?? -1, reaches);
    for (const rank of asked) {
      const cone = wired.dependsOn(rank);
      for (const at of cone.inputs) inputs.add(at);
      for (const fn of cone.functions) functions.add(fn);
    }
    return { changes: [place], at: placesIn(variables, inputs, functions) };
  });
  const all = [...new Set([...decided, ...each.flatMap(({ at }) => at)])];
  const one = tableOf(variables, all, changed, true);
  if (one !== null) return [one];
  const apart = [
    tableOf(variables, decided, [], true),
    ...each.map(({ at, changes }) => tableOf(variables, at, changes, false)),
  ];
  const small = apart.filter((table) => table !== null);
  return small.length < apart.length ? null : small;
}

/** The places of the variables of some inputs and functions. */
const placesIn = (
  variables: readonly Variable[],
  inputs: ReadonlySet<number>,
  functions: ReadonlySet<number>,
): number[] =>
  variables.flatMap((variable, place) =>
    (variable.kind === 'input' ? inputs : functions).has(variable.at) ? [place] : [],
  );

/** A function, and those that an event reaches with which it is one choice. */
function bound({ ranked }: Programme, rank: number, reaches: readonly number[]): number[] {
  const choiceId = ranked[rank]?.choiceId ?? null;
  return choiceId === null
    ? [rank]
    : [rank, ...reaches.filter((other) => ranked[other]?.choiceId === choiceId)];
}

/** @returns null when it would have too many rows */
function tableOf(
  variables: readonly Variable[],
  at: readonly number[],
  changes: readonly number[],
  decides: boolean,
): TableShape | null {
  let rows = 1;
  const steps = at.map((place) => {
    const mine = rows;
    rows *= variables[place]?.size ?? 1;
    return mine;
  });
  return rows > MOST_ROWS ? null : { at, steps, changes, decides, rowCount: rows };
}
