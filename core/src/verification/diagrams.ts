import { OverBudget } from './cannotTell.ts';

/**
 * A set of assignments to boolean variables, as a node of a reduced ordered binary decision diagram (Bryant 1986): equal
 * sets are equal numbers as long as their package lives.
 */
export type Diagram = number;

/** No assignment, and every assignment. */
export const NONE: Diagram = 0;
export const EVERY: Diagram = 1;

/** A change of variables that keeps their order, for `rename`. */
export interface Renaming {
  readonly id: number;
  /** By level: the new level. */
  readonly to: Int32Array;
}

/** Nodes of a package when nothing is said: 16 B each. */
const MOST_NODES = 4_000_000;
const FIRST_NODES = 1 << 12;
/** Answers remembered at most; the table is direct-mapped, 20 B each. */
const MOST_CACHED = 1 << 19;

/** Operations, as the cache tells them apart; renamings have numbers from the last on. */
const ITE = 1;
const EXISTS = 2;
const AND_EXISTS = 3;
const RENAME = 4;

/** A package of decision diagrams over variables numbered by level, the topmost first. */
export class Diagrams {
  /** How many variables there are. */
  readonly levels: number;
  readonly #most: number;
  #level: Int32Array;
  #low: Int32Array;
  #high: Int32Array;
  #next: Int32Array;
  #heads: Int32Array;
  #count = 2;
  /** Operation, three operands, answer. */
  #cache: Int32Array;
  #renamings = 0;

  /** @param most - nodes it may hold */
  constructor(levels: number, most = MOST_NODES) {
    this.levels = levels;
    this.#most = most;
    this.#level = new Int32Array(FIRST_NODES);
    this.#low = new Int32Array(FIRST_NODES);
    this.#high = new Int32Array(FIRST_NODES);
    this.#next = new Int32Array(FIRST_NODES);
    this.#heads = new Int32Array(FIRST_NODES).fill(-1);
    this.#cache = new Int32Array(5 * FIRST_NODES);
    this.#level[NONE] = levels;
    this.#level[EVERY] = levels;
  }

  /** How many nodes it holds. */
  get size(): number {
    return this.#count;
  }

  /** How much of what it may hold it holds. */
  get filled(): number {
    return this.#count / this.#most;
  }

  /** The variable that a set is first told apart by; `levels` for none and every. */
  levelOf(f: Diagram): number {
    return this.#level[f] ?? 0;
  }

  low(f: Diagram): Diagram {
    return this.#low[f] ?? 0;
  }

  high(f: Diagram): Diagram {
    return this.#high[f] ?? 0;
  }

  /** The set in which one variable is true. */
  variable(level: number): Diagram {
    return this.#node(level, NONE, EVERY);
  }

  and(f: Diagram, g: Diagram): Diagram {
    return f < g ? this.ite(f, g, NONE) : this.ite(g, f, NONE);
  }

  or(f: Diagram, g: Diagram): Diagram {
    return f < g ? this.ite(f, EVERY, g) : this.ite(g, EVERY, f);
  }

  not(f: Diagram): Diagram {
    return this.ite(f, NONE, EVERY);
  }

  /** What is in the first and not in the second. */
  without(f: Diagram, g: Diagram): Diagram {
    return this.ite(g, NONE, f);
  }

  /** Those in which both are so or neither is. */
  same(f: Diagram, g: Diagram): Diagram {
    return this.ite(f, g, this.not(g));
  }

  all(sets: Iterable<Diagram>): Diagram {
    let out = EVERY;
    for (const set of sets) out = this.and(out, set);
    return out;
  }

  any(sets: Iterable<Diagram>): Diagram {
    let out = NONE;
    for (const set of sets) out = this.or(out, set);
    return out;
  }

  /** If f then g, else h. */
  ite(f: Diagram, g: Diagram, h: Diagram): Diagram {
    if (f === EVERY) return g;
    if (f === NONE) return h;
    if (g === h) return g;
    if (g === EVERY && h === NONE) return f;
    const known = this.#known(ITE, f, g, h);
    if (known >= 0) return known;
    const level = Math.min(this.levelOf(f), this.levelOf(g), this.levelOf(h));
    const low = this.ite(this.#lowAt(f, level), this.#lowAt(g, level), this.#lowAt(h, level));
    const high = this.ite(this.#highAt(f, level), this.#highAt(g, level), this.#highAt(h, level));
    return this.#keep(ITE, f, g, h, this.#node(level, low, high));
  }

  /** All variables of a list together true: what `exists` and `andExists` are told by. */
  cube(levels: Iterable<number>): Diagram {
    let out = EVERY;
    for (const level of [...levels].toSorted((a, b) => b - a)) out = this.#node(level, NONE, out);
    return out;
  }

  /** Whatever the variables of a cube are. */
  exists(f: Diagram, cube: Diagram): Diagram {
    const level = this.levelOf(f);
    let left = cube;
    while (this.levelOf(left) < level) left = this.high(left);
    if (f <= EVERY || left === EVERY) return f;
    const known = this.#known(EXISTS, f, left, 0);
    if (known >= 0) return known;
    const low = this.exists(this.low(f), left);
    if (this.levelOf(left) !== level)
      return this.#keep(EXISTS, f, left, 0, this.#node(level, low, this.exists(this.high(f), left)));
    const out = low === EVERY ? EVERY : this.or(low, this.exists(this.high(f), left));
    return this.#keep(EXISTS, f, left, 0, out);
  }

  /** What is in both, whatever the variables of a cube are: the relational product (Burch et al. 1994). */
  andExists(f: Diagram, g: Diagram, cube: Diagram): Diagram {
    if (f === NONE || g === NONE) return NONE;
    if (f === EVERY) return this.exists(g, cube);
    if (g === EVERY || f === g) return this.exists(f, cube);
    const [a, b] = f < g ? [f, g] : [g, f];
    const level = Math.min(this.levelOf(a), this.levelOf(b));
    let left = cube;
    while (this.levelOf(left) < level) left = this.high(left);
    if (left === EVERY) return this.and(a, b);
    const known = this.#known(AND_EXISTS, a, b, left);
    if (known >= 0) return known;
    const low = this.andExists(this.#lowAt(a, level), this.#lowAt(b, level), left);
    if (this.levelOf(left) === level && low === EVERY) return this.#keep(AND_EXISTS, a, b, left, EVERY);
    const high = this.andExists(this.#highAt(a, level), this.#highAt(b, level), left);
    const out = this.levelOf(left) === level ? this.or(low, high) : this.#node(level, low, high);
    return this.#keep(AND_EXISTS, a, b, left, out);
  }

  /** A change of variables. @param pairs - from level, to level; the order of those that a set depends on must stay */
  renaming(pairs: readonly (readonly [number, number])[]): Renaming {
    const to = Int32Array.from({ length: this.levels }, (_, level) => level);
    for (const [from, level] of pairs) to[from] = level;
    return { id: this.#renamings++, to };
  }

  rename(f: Diagram, by: Renaming): Diagram {
    if (f <= EVERY) return f;
    const op = RENAME + by.id;
    const known = this.#known(op, f, 0, 0);
    if (known >= 0) return known;
    const low = this.rename(this.low(f), by);
    const high = this.rename(this.high(f), by);
    return this.#keep(op, f, 0, 0, this.#node(by.to[this.levelOf(f)] ?? 0, low, high));
  }

  /**
   * A set with sets in place of its variables.
   * @param by - by level: what stands for the variable; one that is left out stays
   */
  compose(f: Diagram, by: ReadonlyMap<number, Diagram>): Diagram {
    const known = new Map<Diagram, Diagram>([
      [NONE, NONE],
      [EVERY, EVERY],
    ]);
    const walk = (node: Diagram): Diagram => {
      const done = known.get(node);
      if (done !== undefined) return done;
      const level = this.levelOf(node);
      const is = by.get(level) ?? this.variable(level);
      const out = this.ite(is, walk(this.high(node)), walk(this.low(node)));
      known.set(node, out);
      return out;
    };
    return walk(f);
  }

  /** How many assignments to some variables a set holds; it must depend on no others. @param levels - rising */
  countOver(f: Diagram, levels: readonly number[]): bigint {
    const placeOf = new Map(levels.map((level, place) => [level, place]));
    const known = new Map<Diagram, bigint>();
    const place = (node: Diagram): number =>
      node <= EVERY ? levels.length : (placeOf.get(this.levelOf(node)) ?? Number.NaN);
    const below = (node: Diagram): bigint => {
      if (node <= EVERY) return BigInt(node);
      const done = known.get(node);
      if (done !== undefined) return done;
      const at = place(node);
      if (Number.isNaN(at)) throw new RangeError(`variable ${this.levelOf(node)} is not counted`);
      const half = (child: Diagram): bigint => below(child) << BigInt(place(child) - at - 1);
      const out = half(this.low(node)) + half(this.high(node));
      known.set(node, out);
      return out;
    };
    return below(f) << BigInt(place(f));
  }

  /** The variables that a set depends on, the topmost first. */
  support(...sets: readonly Diagram[]): number[] {
    const met = new Set<Diagram>();
    const levels = new Set<number>();
    const walk = (node: Diagram): void => {
      if (node <= EVERY || met.has(node)) return;
      met.add(node);
      levels.add(this.levelOf(node));
      walk(this.low(node));
      walk(this.high(node));
    };
    for (const set of sets) walk(set);
    return [...levels].toSorted((a, b) => a - b);
  }

  /** One assignment of a set, false wherever it can be: the variables that are true in it. @throws {RangeError} it is empty */
  pick(f: Diagram): Set<number> {
    if (f === NONE) throw new RangeError('nothing can be picked from an empty set');
    const out = new Set<number>();
    for (let node = f; node > EVERY;) {
      if (this.low(node) !== NONE) {
        node = this.low(node);
        continue;
      }
      out.add(this.levelOf(node));
      node = this.high(node);
    }
    return out;
  }

  /** Whether an assignment is in a set. @param isTrue - the variables that are true in it */
  holdsAt(f: Diagram, isTrue: ReadonlySet<number>): boolean {
    let node = f;
    while (node > EVERY) node = isTrue.has(this.levelOf(node)) ? this.high(node) : this.low(node);
    return node === EVERY;
  }

  /** The one assignment to some variables in which just these are true. */
  point(levels: readonly number[], isTrue: ReadonlySet<number>): Diagram {
    let out = EVERY;
    for (const level of levels.toSorted((a, b) => b - a))
      out = isTrue.has(level) ? this.#node(level, NONE, out) : this.#node(level, out, NONE);
    return out;
  }

  /**
   * Works something out that may need too many nodes: null then, and all that was made meanwhile is freed. Nobody may keep any
   * of it but in the answer.
   */
  attempt<T>(work: () => T): T | null {
    const before = this.#count;
    try {
      return work();
    } catch (problem) {
      if (!(problem instanceof OverBudget)) throw problem;
      this.#release(before);
      return null;
    }
  }

  #release(count: number): void {
    if (this.#count === count) return;
    // Of each chain the newest stand first, so they go first.
    for (let node = this.#count - 1; node >= count; node--) {
      const hash = this.#hash(this.#level[node] ?? 0, this.#low[node] ?? 0, this.#high[node] ?? 0);
      this.#heads[hash] = this.#next[node] ?? -1;
    }
    this.#count = count;
    this.#cache.fill(0);
  }

  #lowAt(f: Diagram, level: number): Diagram {
    return this.levelOf(f) === level ? this.low(f) : f;
  }

  #highAt(f: Diagram, level: number): Diagram {
    return this.levelOf(f) === level ? this.high(f) : f;
  }

  #hash(level: number, low: Diagram, high: Diagram): number {
    const mixed = Math.imul(level, 0x9e3779b1) ^ Math.imul(low, 0x85ebca6b) ^ Math.imul(high, 0xc2b2ae35);
    return (mixed ^ (mixed >>> 15)) & (this.#heads.length - 1);
  }

  #node(level: number, low: Diagram, high: Diagram): Diagram {
    if (low === high) return low;
    const hash = this.#hash(level, low, high);
    for (let node = this.#heads[hash] ?? -1; node >= 0; node = this.#next[node] ?? -1)
      if (this.#level[node] === level && this.#low[node] === low && this.#high[node] === high) return node;
    if (this.#count >= this.#most) throw new OverBudget(`decision diagrams of more than ${this.#most} nodes`);
    if (this.#count === this.#level.length) {
      this.#grow();
      return this.#add(this.#hash(level, low, high), level, low, high);
    }
    return this.#add(hash, level, low, high);
  }

  #add(hash: number, level: number, low: Diagram, high: Diagram): Diagram {
    const node = this.#count++;
    this.#level[node] = level;
    this.#low[node] = low;
    this.#high[node] = high;
    this.#next[node] = this.#heads[hash] ?? -1;
    this.#heads[hash] = node;
    return node;
  }

  #grow(): void {
    const size = 2 * this.#level.length;
    const longer = (from: Int32Array): Int32Array => {
      const into = new Int32Array(size);
      into.set(from);
      return into;
    };
    this.#level = longer(this.#level);
    this.#low = longer(this.#low);
    this.#high = longer(this.#high);
    this.#next = longer(this.#next);
    this.#heads = new Int32Array(size).fill(-1);
    for (let node = 2; node < this.#count; node++) {
      const hash = this.#hash(this.#level[node] ?? 0, this.#low[node] ?? 0, this.#high[node] ?? 0);
      this.#next[node] = this.#heads[hash] ?? -1;
      this.#heads[hash] = node;
    }
    if (size <= MOST_CACHED) this.#cache = new Int32Array(5 * size);
  }

  #slot(op: number, a: number, b: number, c: number): number {
    const mixed =
      Math.imul(op, 0x27d4eb2f) ^
      Math.imul(a, 0x9e3779b1) ^
      Math.imul(b, 0x85ebca6b) ^
      Math.imul(c, 0xc2b2ae35);
    return 5 * ((mixed ^ (mixed >>> 13)) & (this.#cache.length / 5 - 1));
  }

  /** What an operation came to; -1 where that is not remembered. */
  #known(op: number, a: number, b: number, c: number): number {
    const slot = this.#slot(op, a, b, c);
    const cache = this.#cache;
    return cache[slot] === op && cache[slot + 1] === a && cache[slot + 2] === b && cache[slot + 3] === c
      ? (cache[slot + 4] ?? -1)
      : -1;
  }

  #keep(op: number, a: number, b: number, c: number, answer: Diagram): Diagram {
    const slot = this.#slot(op, a, b, c);
    const cache = this.#cache;
    cache[slot] = op;
    cache[slot + 1] = a;
    cache[slot + 2] = b;
    cache[slot + 3] = c;
    cache[slot + 4] = answer;
    return answer;
  }
}
