import { isTimed } from '../controls/program.ts';
import type { ControlFunction } from '../design/functions.ts';
import { EVERY, NONE, type Diagram, type Renaming } from './diagrams.ts';
import { OFF, ON, STAYING, WAITING, type MachineEvent, type Part, type Variable } from './parts.ts';
import type { ByValue, SymbolicProgram, Valuation } from './symbolic.ts';
import { CLEARS, SETS, STEPS, type EventSubscription } from './wired.ts';

/** What an event does, as a relation of present states to next ones, over the variables that it changes; the others stay. */
export interface Relation {
  readonly event: MachineEvent;
  readonly relation: Diagram;
  /** The present and the next bits that it changes. */
  readonly presentCube: Diagram;
  readonly nextCube: Diagram;
  readonly toNext: Renaming;
  readonly toPresent: Renaming;
}

/** Under which states a function hears that it shall be cleared, set or stepped. */
interface Hearing {
  clears: Diagram;
  sets: Diagram;
  steps: Diagram;
}

/** What is so after an event, as sets of the states before it. */
class After implements Valuation {
  happens: Diagram = EVERY;
  readonly inputs = new Map<number, ByValue>();
  readonly memories = new Map<number, ByValue>();
  readonly phases = new Map<number, ByValue>();
  readonly ons = new Map<number, Diagram>();
  readonly #before: Valuation;

  constructor(before: Valuation) {
    this.#before = before;
  }

  input = (at: number): ByValue => this.inputs.get(at) ?? this.#before.input(at);
  memory = (rank: number): ByValue => this.memories.get(rank) ?? this.#before.memory(rank);
  phase = (rank: number): ByValue => this.phases.get(rank) ?? this.#before.phase(rank);
  isOn = (rank: number): Diagram => this.ons.get(rank) ?? this.#before.isOn(rank);
}

/** One event, exactly as the program takes it: its inputs move, functions hear, remember and are judged. */
export function relationOf(program: SymbolicProgram, part: Part, event: MachineEvent): Relation {
  const { diagrams: d } = program;
  const after = new After(program.present);
  const hearing = new Map<number, Hearing>();
  hear(program, hearing, event.heard, EVERY);
  if (event.move !== null) moveInputs(program, part, event.move, after, hearing);
  if (event.ends === null) remember(program, event, after, hearing);
  else endTimer(program, event.ends, after);
  settle(program, event, after);
  const changed: { readonly variable: Variable; readonly now: ByValue; readonly next: ByValue }[] = [];
  for (const variable of part.variables) {
    const { at, kind } = variable;
    const of = kind === 'input' ? 'input' : kind === 'memory' ? 'memory' : 'phase';
    const [now, next] = [program.present[of](at), after[of](at)];
    if (next.some((set, value) => set !== now[value])) changed.push({ variable, now, next });
  }
  const bits = changed.map(({ variable }) => program.bitsOf(variable));
  const present = bits.flatMap(({ levels }) => levels);
  let relation = after.happens;
  // From the bottom up, so that what is made stays small.
  for (const { variable, next } of changed.toSorted(
    (a, b) => (program.bitsOf(b.variable).levels[0] ?? 0) - (program.bitsOf(a.variable).levels[0] ?? 0),
  )) {
    const mine = program.bitsOf(variable);
    const becomes = next.map((set, value) => d.and(set, program.valueIs(mine, value, 1)));
    relation = d.and(relation, d.any(becomes));
  }
  return {
    event,
    relation,
    presentCube: d.cube(present),
    nextCube: d.cube(present.map((level) => level + 1)),
    toNext: d.renaming(present.map((level) => [level, level + 1])),
    toPresent: d.renaming(present.map((level) => [level + 1, level])),
  };
}

/** The states that an event leads to from some. */
export function image(
  { diagrams: d }: SymbolicProgram,
  { relation, presentCube, toPresent }: Relation,
  states: Diagram,
): Diagram {
  return d.rename(d.andExists(states, relation, presentCube), toPresent);
}

/** The states from which an event leads to some. */
export function preImage(
  { diagrams: d }: SymbolicProgram,
  { relation, nextCube, toNext }: Relation,
  states: Diagram,
): Diagram {
  return d.andExists(d.rename(states, toNext), relation, nextCube);
}

function hear(
  { diagrams: d }: SymbolicProgram,
  hearing: Map<number, Hearing>,
  heard: readonly EventSubscription[],
  under: Diagram,
): void {
  for (const { fn, does } of heard) {
    const mine = hearing.get(fn) ?? { clears: NONE, sets: NONE, steps: NONE };
    if ((does & CLEARS) !== 0) mine.clears = d.or(mine.clears, under);
    if ((does & SETS) !== 0) mine.sets = d.or(mine.sets, under);
    if ((does & STEPS) !== 0) mine.steps = d.or(mine.steps, under);
    hearing.set(fn, mine);
  }
}

/** The input takes its value, others follow; what leads to a forbidden combination does not happen. */
function moveInputs(
  program: SymbolicProgram,
  part: Part,
  { input, value }: { readonly input: number; readonly value: number },
  after: After,
  hearing: Map<number, Hearing>,
): void {
  const { diagrams: d, wired } = program;
  const now = program.present.input(input);
  after.happens = d.not(now[value] ?? NONE);
  after.inputs.set(
    input,
    now.map((_, i) => (i === value ? EVERY : NONE)),
  );
  const moved = new Map<number, Diagram>([[input, EVERY]]);
  for (const { input: leader, at, follower, takes, heard } of wired.follows) {
    const values = after.input(follower);
    const leads = d.any([...at].map((one) => after.input(leader)[one] ?? NONE));
    const free = d.not(d.or(moved.get(follower) ?? NONE, values[takes] ?? NONE));
    const under = d.all([moved.get(leader) ?? NONE, leads, free]);
    if (under === NONE) continue;
    after.inputs.set(
      follower,
      values.map((set, i) => (i === takes ? d.or(set, under) : d.without(set, under))),
    );
    moved.set(follower, d.or(moved.get(follower) ?? NONE, under));
    hear(program, hearing, heard, under);
  }
  const alone = { input: after.input, isOn: () => NONE };
  for (const { when, then } of part.never)
    after.happens = d.without(
      after.happens,
      d.without(program.holds(when, alone), program.holds(then, alone)),
    );
}

/** A timer that runs ends: waiting becomes on, staying becomes off, a memory is cleared. */
function endTimer(
  { diagrams: d, order, present, programme }: SymbolicProgram,
  rank: number,
  after: After,
): void {
  const fn = programme.ranked[rank];
  const variable = order.functions[rank]?.variable;
  if (fn !== undefined && isTimed(fn.when) && variable?.kind === 'phase') {
    const now = present.phase(rank);
    const of = (phase: number): Diagram => now[variable.phases.indexOf(phase)] ?? NONE;
    after.happens = d.or(of(WAITING), of(STAYING));
    const becomes = (phase: number): Diagram =>
      phase === ON ? of(WAITING) : phase === OFF ? of(STAYING) : NONE;
    after.phases.set(rank, variable.phases.map(becomes));
    return;
  }
  const now = present.memory(rank);
  after.happens = d.not(now[0] ?? NONE);
  after.memories.set(
    rank,
    now.map((_, i) => (i === 0 ? EVERY : NONE)),
  );
}

/** What functions remember, by what enables them with the new inputs and what was on before. */
function remember(
  program: SymbolicProgram,
  { reaches }: MachineEvent,
  after: After,
  hearing: ReadonlyMap<number, Hearing>,
): void {
  const { diagrams: d, present, programme } = program;
  const came = new Map<number, Diagram>();
  const before = { input: after.input, isOn: present.isOn };
  for (const rank of reaches) {
    const fn = programme.ranked[rank];
    if (fn === undefined) continue;
    const { clears, sets, steps } = hearing.get(rank) ?? { clears: NONE, sets: NONE, steps: NONE };
    const now = present.memory(rank);
    const enabled = program.enabled(fn, before);
    const clear = d.or(d.and(enabled, clears), fn.forgets ? d.not(enabled) : NONE);
    const set = d.without(d.and(enabled, sets), clears);
    const step = d.without(d.and(enabled, steps), d.or(clears, sets));
    const stay = d.not(d.any([clear, set, step]));
    const next = now.map((value, i) => {
      const stepped = now.map((from, k) => (steppedFrom(fn, k) === i ? from : NONE));
      return d.any([
        ...(i === 0 ? [clear] : []),
        ...(i === 1 ? [set] : []),
        d.and(stay, value),
        d.and(step, d.any(stepped)),
      ]);
    });
    after.memories.set(rank, next);
    came.set(rank, d.without(now[0] ?? NONE, next[0] ?? NONE));
  }
  keepChoices(program, reaches, came, after);
}

/** Of a choice one is remembered: the one that came last; of several at once the strongest. */
function keepChoices(
  { diagrams: d, programme: { ranked } }: SymbolicProgram,
  reaches: readonly number[],
  came: ReadonlyMap<number, Diagram>,
  after: After,
): void {
  const settled = new Map<string, Diagram>();
  for (const rank of reaches) {
    const choiceId = ranked[rank]?.choiceId ?? null;
    if (choiceId === null) continue;
    const first = d.without(came.get(rank) ?? NONE, settled.get(choiceId) ?? NONE);
    if (first === NONE) continue;
    settled.set(choiceId, d.or(settled.get(choiceId) ?? NONE, first));
    for (const other of reaches)
      if (other !== rank && ranked[other]?.choiceId === choiceId) forget(d, other, first, after);
  }
}

/** Clears a memory in some states. */
function forget(d: SymbolicProgram['diagrams'], rank: number, where: Diagram, after: After): void {
  after.memories.set(
    rank,
    after.memory(rank).map((set, i) => (i === 0 ? d.or(set, where) : d.without(set, where))),
  );
}

/** Judges functions, each after those that it asks about; those that forget and are not enabled forget. */
function settle(program: SymbolicProgram, { judges }: MachineEvent, after: After): void {
  const { diagrams: d, order, programme } = program;
  for (const rank of judges) {
    const fn = programme.ranked[rank];
    if (fn === undefined) continue;
    const { when } = fn;
    if (fn.forgets && (when.way === 'latched' || when.way === 'cycle'))
      forget(d, rank, d.not(program.enabled(fn, after)), after);
    const variable = order.functions[rank]?.variable;
    if (isTimed(when) && variable?.kind === 'phase') {
      const holds = d.and(program.enabled(fn, after), program.holds(when.condition, after));
      const now = after.phase(rank);
      const enabled = program.enabled(fn, after);
      const next = variable.phases.map((phase) =>
        d.any(
          variable.phases.map((from, i) => {
            const moves = [
              nextPhase(from, true, when.afterMs > 0, when.staysMs > 0) === phase ? holds : NONE,
              nextPhase(from, false, when.afterMs > 0, when.staysMs > 0) === phase
                ? d.without(enabled, holds)
                : NONE,
              phase === OFF ? d.not(enabled) : NONE,
            ];
            return d.and(now[i] ?? NONE, d.any(moves));
          }),
        ),
      );
      after.phases.set(rank, next);
    }
    after.ons.set(rank, program.judged(rank, after));
  }
}

/** What a function remembers after an event that toggles or steps it. */
function steppedFrom({ when, shows }: ControlFunction, before: number): number {
  if (when.way !== 'cycle') return 1 - before;
  if (before < shows.length) return before + 1;
  return when.wraps === 'first' ? 1 : 0;
}

function nextPhase(phase: number, holds: boolean, waits: boolean, stays: boolean): number {
  switch (phase) {
    case OFF:
      return holds ? (waits ? WAITING : ON) : OFF;
    case WAITING:
      return holds ? WAITING : OFF;
    case ON:
      return holds ? ON : stays ? STAYING : OFF;
    default:
      return holds ? ON : STAYING;
  }
}
