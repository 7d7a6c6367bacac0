import type { ControlProgram, ProgramEvent } from '../controls/program.ts';
import { initialControlState } from '../controls/step.ts';
import { EVERY, NONE, type Diagram } from './diagrams.ts';
import { PHASES, type Part } from './parts.ts';
import { image, preImage, relationOf, type Relation } from './relations.ts';
import { SymbolicProgram } from './symbolic.ts';

/** States as near to rest as no others, and a shortest sequence to one of them. */
export interface Nearest {
  readonly depth: number;
  readonly events: readonly ProgramEvent[];
}

/** Layers may fill so much of a package: what is asked of them needs the rest. */
const LAYERS_SHARE = 0.6;

/** What of a part can be reached from rest: all of it, or what so many events reach. */
export class ReachedPart {
  readonly part: Part;
  readonly relations: readonly Relation[];
  readonly states: Diagram;
  /** The states reached are all; else those within so many events. */
  readonly within: number | null;
  readonly #program: SymbolicProgram;
  /** By number of events: the states whose shortest sequence is as long. */
  readonly #layers: Diagram[];
  #met: Diagram;

  constructor(program: SymbolicProgram, part: Part) {
    this.part = part;
    this.#program = program;
    const { diagrams } = program;
    const rest = atRestIn(program, part);
    this.#layers = [rest];
    this.#met = rest;
    const relations = part.events.map((event) => diagrams.attempt(() => relationOf(program, part, event)));
    this.relations = relations.filter((one): one is Relation => one !== null && one.relation !== NONE);
    const isWhole = !relations.includes(null);
    const states = isWhole ? diagrams.attempt(() => chained(program, this.relations, rest)) : null;
    // Without one of the events no layer is whole.
    this.within = states !== null ? null : isWhole ? this.#fillLayers() : 0;
    this.states = states ?? this.#met;
  }

  /** The states whose shortest sequence has so many events; none beyond the farthest, or beyond what was looked at. */
  layer(depth: number): Diagram {
    while (this.#layers.length <= depth) {
      if (this.#layers.at(-1) === NONE || (this.within !== null && this.#layers.length > this.within))
        return NONE;
      this.#layers.push(this.#nextLayer());
    }
    return this.#layers[depth] ?? NONE;
  }

  #nextLayer(): Diagram {
    const { diagrams: d } = this.#program;
    const last = this.#layers.at(-1) ?? NONE;
    let next = NONE;
    for (const relation of this.relations) next = d.or(next, image(this.#program, relation, last));
    const layer = d.without(next, this.#met);
    this.#met = d.or(this.#met, layer);
    return layer;
  }

  /** As many layers as fit. @returns how many events the last of them takes */
  #fillLayers(): number {
    const { diagrams } = this.#program;
    while (this.#layers.at(-1) !== NONE && diagrams.filled < LAYERS_SHARE) {
      const layer = diagrams.attempt(() => this.#nextLayer());
      if (layer === null) break;
      this.#layers.push(layer);
    }
    return this.#layers.length - 1;
  }

  /** A shortest sequence to a state. @param state - one state of the part, by its present bits */
  sequenceTo(state: Diagram): ProgramEvent[] {
    const { diagrams: d } = this.#program;
    let depth = 0;
    while (d.and(this.layer(depth), state) === NONE) depth++;
    const events: ProgramEvent[] = [];
    const levels = this.#program.levelsOf([this.part]);
    for (let here = state; depth > 0; depth--) {
      const before = this.layer(depth - 1);
      // Going back, what comes last in the order of events is taken first: the key is told before the slide.
      for (let i = this.relations.length - 1; i >= 0; i--) {
        const relation = this.relations[i];
        if (relation === undefined) continue;
        const from = d.and(preImage(this.#program, relation, here), before);
        if (from === NONE) continue;
        events.unshift(relation.event.event);
        here = d.point(levels, d.pick(from));
        break;
      }
    }
    return events;
  }
}

/** The state of a part at rest: inputs at their first values, memories clear, timed functions judged once. */
function atRestIn(program: SymbolicProgram, { variables }: Part): Diagram {
  const { phases } = initialControlState(program.programme);
  return program.diagrams.all(
    variables.map((variable) => {
      const id = variable.kind === 'phase' ? program.programme.ranked[variable.at]?.id : undefined;
      const phase = PHASES.indexOf(phases.get(id ?? '') ?? 'off');
      const value = variable.kind === 'phase' ? variable.phases.indexOf(phase) : 0;
      return program.valueIs(program.bitsOf(variable), value, 0);
    }),
  );
}

/** All that can be reached: events are applied in turns to what is new to them, until nothing is. */
function chained(program: SymbolicProgram, relations: readonly Relation[], rest: Diagram): Diagram {
  const { diagrams: d } = program;
  let met = rest;
  const seen = relations.map(() => NONE);
  for (let isNew = true; isNew;) {
    isNew = false;
    for (const [i, relation] of relations.entries()) {
      const fresh = d.without(met, seen[i] ?? NONE);
      if (fresh === NONE) continue;
      isNew = true;
      seen[i] = met;
      met = d.or(met, image(program, relation, fresh));
    }
  }
  return met;
}

/** What a program can reach from rest, part by part and together. */
export class ReachableSet {
  readonly program: SymbolicProgram;
  readonly parts: readonly ReachedPart[];
  /** All that was reached. */
  readonly states: Diagram;
  /** Null where that is all; else it is what so many events reach of the part that was looked at least far. */
  readonly within: number | null;
  readonly #joint = new Map<string, Diagram[]>();

  constructor(programme: ControlProgram, most?: number) {
    this.program = new SymbolicProgram(programme, most);
    this.parts = this.program.parts.map((part) => new ReachedPart(this.program, part));
    const cut = this.parts.flatMap(({ within }) => within ?? []);
    this.within = cut.length === 0 ? null : Math.min(...cut);
    this.states = this.program.diagrams.all(this.parts.map(({ states }) => states));
  }

  /** The state at rest. */
  get atRest(): Diagram {
    return this.program.diagrams.all(this.parts.map((part) => part.layer(0)));
  }

  /** Values of all inputs, memories and phases multiplied. */
  get raw(): bigint {
    return this.program.parts
      .flatMap(({ variables }) => variables)
      .reduce((product, { size }) => product * BigInt(size), 1n);
  }

  /** How many states can be reached. */
  get count(): bigint {
    const { program } = this;
    return this.parts.reduce(
      (product, { part, states }) => product * program.diagrams.countOver(states, program.levelsOf([part])),
      1n,
    );
  }

  /** The parts that a set depends on. */
  partsOf(states: Diagram): ReachedPart[] {
    const { program } = this;
    const asked = new Set(program.diagrams.support(states));
    return this.parts.filter(({ part }) => program.levelsOf([part]).some((level) => asked.has(level)));
  }

  /**
   * States of some parts whose shortest sequence has so many events, the other parts left open.
   * @returns null beyond the farthest
   */
  layerOf(parts: readonly ReachedPart[], depth: number): Diagram | null {
    const d = this.program.diagrams;
    const [last] = parts.slice(-1);
    if (last === undefined) return depth === 0 ? EVERY : null;
    const key = parts.map((part) => this.parts.indexOf(part)).join();
    const known = this.#joint.get(key) ?? [];
    this.#joint.set(key, known);
    const done = known[depth];
    if (done !== undefined) return done;
    const others = parts.slice(0, -1);
    let layer = NONE;
    let isBeyond = true;
    for (let mine = 0; mine <= depth; mine++) {
      const before = this.layerOf(others, depth - mine);
      const here = last.layer(mine);
      if (here === NONE) break;
      if (before === null) continue;
      isBeyond = false;
      layer = d.or(layer, d.and(before, here));
    }
    if (isBeyond) return null;
    known[depth] = layer;
    return layer;
  }

  /** Of some states those that fewer events reach than so many, the parts that they do not depend on at rest. */
  nearerThan(states: Diagram, depth: number): Diagram {
    const d = this.program.diagrams;
    const parts = this.partsOf(states);
    let near = NONE;
    for (let n = 0; n < depth; n++) {
      const layer = this.layerOf(parts, n);
      if (layer === null) break;
      near = d.or(near, layer);
    }
    return d.and(states, near);
  }

  /** The nearest to rest of some states, and a shortest sequence there; null where none of them is reached. */
  nearest(states: Diagram): Nearest | null {
    const d = this.program.diagrams;
    const parts = this.partsOf(states);
    for (let depth = 0; ; depth++) {
      const layer = this.layerOf(parts, depth);
      if (layer === null) return null;
      const met = d.and(layer, states);
      if (met === NONE) continue;
      const is = d.pick(met);
      const events = parts.flatMap((reached) =>
        reached.sequenceTo(d.point(this.program.levelsOf([reached.part]), is)),
      );
      return { depth, events };
    }
  }

  /** Of some states those that are nearest to rest, all else at rest. */
  allNearest(states: Diagram): Diagram {
    const { program } = this;
    const d = program.diagrams;
    const parts = this.partsOf(states);
    const rest = d.all(this.parts.flatMap((part) => (parts.includes(part) ? [] : [part.layer(0)])));
    for (let depth = 0; ; depth++) {
      const layer = this.layerOf(parts, depth);
      if (layer === null) return NONE;
      const met = d.and(layer, states);
      if (met !== NONE) return d.and(met, rest);
    }
  }
}
