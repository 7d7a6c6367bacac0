import { readOn } from '../design/controls.ts';
import type { Issue } from '../rules/judgement.ts';
import { severalPartsOpen } from '../rules/severalPartsOpen.ts';
import { Situation } from '../rules/situation.ts';
import { stateWith, type State } from '../state/state.ts';
import { AMBIENTS } from '../words/ambient.ts';
import type { Asked } from './asked.ts';
import { Bounds, troublesOf } from './bounds.ts';
import { NONE, type Diagram } from './diagrams.ts';
import { LeastMargin } from './leastMargin.ts';
import type { Known, RuleTrouble } from './ruleTrouble.ts';
import type { Pose, Poses } from './poses.ts';
import { RegardedChannels, type Lot } from './regarded.ts';
import { regionsOf, type Region, type Sight } from './regions.ts';
import type { RepresentativeState } from './representative.ts';
import { nodeOf, parted, worstIn, type Answers, type Heading, type Node } from './search.ts';
import type { VerificationSubject } from './subject.ts';

/** A rule is judged so often at most before it is said that it cannot be told. */
const MOST_JUDGED = 40_000;
/** A margin that differs by less is the same. */
const NO_WORSE = 0.001;

/** What came of a rule. */
export interface SearchResult {
  readonly troubles: readonly RuleTrouble[];
  /** How many output states it speaks of, by day and at night. */
  readonly count: number;
  readonly margin: number | null;
  /** Whether there may be more room than the margin says. */
  readonly isBound: boolean;
  /** Why it could not be told; null when it could. */
  readonly why: string | null;
}

/**
 * Looks through all output states in which a rule speaks, by branch and bound: of many states together what lights in any of
 * them, or in all, is judged; where that leaves something open they are parted by what one of the modules shows.
 */
export class RuleSearch {
  readonly #subject: VerificationSubject;
  readonly #asked: Asked;
  readonly #known: Known;
  readonly #poses: Poses;
  readonly #sight: Sight;
  readonly #regarded: RegardedChannels;
  readonly #regions: readonly Region[];
  readonly #lots: readonly Lot[];
  readonly #bounds: Bounds;
  readonly #heading: Heading;
  /** By trouble: the nearest to rest of the states that show it, as far as is known. */
  readonly #met = new Map<string, RepresentativeState>();
  #why: string | null = null;

  /** @throws {OverBudget} what lights is too much to tell */
  constructor(subject: VerificationSubject, asked: Asked, known: Known, poses: Poses) {
    this.#subject = subject;
    this.#asked = asked;
    this.#known = known;
    this.#poses = poses;
    this.#regarded = new RegardedChannels(subject, asked);
    const { lamps, weightOf } = this.#regarded;
    const hasEyes = asked.sees === 'light' && asked.elevationsDeg === null && asked.poses === null;
    const carried = hasEyes ? poses.carriedTogether(lamps) : [];
    if (carried === null) this.#why = 'too many parts that open carry its lamps';
    this.#sight = {
      alike:
        asked.elevationsDeg === null ? null : subject.memory.poses(subject.build, lamps, asked.elevationsDeg),
      carried: carried ?? [],
    };
    this.#regions = regionsOf(subject, asked, this.#regarded, poses, this.#sight);
    this.#lots = this.#regarded.lots(asked);
    this.#bounds = new Bounds(subject, asked, this.#regarded, { poses, sight: this.#sight });
    this.#heading = { seek: asked.more === 'helps' ? 'least' : 'most', weightOf };
  }

  /** What the rule comes to: of each trouble the state nearest to rest, and the worst where that is worse. It pauses now and then. */
  *result(): Generator<undefined, SearchResult> {
    for (const region of this.#regions) yield* this.#findIn(region);
    for (const about of this.#met.keys())
      for (const region of this.#regions)
        for (const { mode, states } of region.modes) yield* this.#bringNearer(region, mode, states, about);
    const least = new LeastMargin(this.#subject, this.#asked, this.#bounds, {
      regions: this.#regions,
      lots: this.#lots,
      heading: this.#heading,
      known: this.#known,
    });
    const troubles: RuleTrouble[] = [];
    for (const about of this.#met.keys()) troubles.push(...(yield* this.#told(about, least)));
    const { within } = this.#subject.whole;
    if (this.#bounds.isCut) this.#why ??= 'not all positions of parts that open together could be tried';
    if (within !== null) this.#why ??= `passes for up to ${within} events; longer sequences were not checked`;
    return {
      troubles,
      count: this.#count(),
      ...(yield* least.room(troubles.length === 0 && this.#why === null)),
      why: this.#why,
    };
  }

  #count(): number {
    const { program, diagrams: d } = this.#subject;
    const levels = [...program.order.ons.values()].toSorted((a, b) => a - b);
    return AMBIENTS.reduce((sum, ambient) => {
      const mine = this.#regions.filter((region) => region.ambient === ambient);
      const states = d.any(mine.map((region) => region.states));
      return sum + Number(d.countOver(program.outputStates(states, program.order.ons.keys()), levels));
    }, 0);
  }

  /** Looks for troubles in a region: in all modes together, and where there are any, mode by mode. */
  *#findIn(region: Region): Generator<undefined, void> {
    const seen = new Set<string>();
    yield* this.#hunt(region, region.states, {
      isOpen: (about) => !seen.has(about) && !this.#met.has(about),
      meet: (about) => seen.add(about),
    });
    if (seen.size === 0) return;
    // What is told of a function by itself is told of its mode.
    for (const { mode, states } of region.modes)
      yield* this.#hunt(region, states, {
        isOpen: (about) => !this.#met.has(about) && !this.#known(this.#asked, about, mode),
        meet: (about, node) => this.#meet(about, states, node),
      });
  }

  /** Looks for states of a trouble nearer to rest than what is known, until there are none. */
  *#bringNearer(region: Region, mode: number, states: Diagram, about: string): Generator<undefined, void> {
    if (this.#known(this.#asked, about, mode)) return;
    for (let known = this.#met.get(about); known !== undefined;) {
      const before: RepresentativeState = known;
      const near = this.#subject.whole.nearerThan(states, before.events.length);
      if (near === NONE) return;
      yield* this.#hunt(region, near, {
        isOpen: (one) => one === about && this.#met.get(about) === before,
        meet: (one, node) => this.#meet(one, near, node),
      });
      known = this.#met.get(about);
      if (known === before) return;
    }
  }

  /** Looks for troubles that are open still, lot by lot. */
  *#hunt(
    region: Region,
    states: Diagram,
    on: {
      readonly isOpen: (about: string) => boolean;
      readonly meet: (about: string, when: Diagram) => void;
    },
  ): Generator<undefined, void> {
    const { program, diagrams } = this.#subject;
    const root = nodeOf(diagrams, region.cells, program.outputStates(states, region.heeds));
    for (const lot of this.#lots) {
      const isOpen = (about: string): boolean =>
        (lot.about === null || lot.about === about) && on.isOpen(about);
      const left = [root];
      for (let node = left.pop(); node !== undefined; node = left.pop()) {
        const parts = this.#partsOf(region, lot, node, { isOpen, meet: on.meet });
        if (parts === null) return;
        if (this.#bounds.isPauseDue()) yield;
        left.push(...parts.toReversed());
      }
    }
  }

  /** What of a node is left to look at; nothing where all is settled, null where it was too much. */
  #partsOf(
    region: Region,
    lot: Lot,
    node: Node,
    {
      isOpen,
      meet,
    }: {
      readonly isOpen: (about: string) => boolean;
      readonly meet: (about: string, when: Diagram) => void;
    },
  ): readonly Node[] | null {
    const { more, lots } = this.#asked;
    const d = this.#subject.diagrams;
    // An empty lot says nothing; one that may be empty is not judged by what is in all.
    if (lots !== null && (node.any & lot.channels) === 0n) return [];
    const isTold = lots === null || (node.every & lot.channels) !== 0n;
    const isSettled = ((node.any ^ node.every) & lot.channels) === 0n;
    if (isTold && (more !== null || isSettled)) {
      const open = this.#bounds
        .look(region, worstIn(node, this.#heading))
        .troubles.filter(({ about }) => isOpen(about));
      if (open.length === 0) return [];
      const isExact = node.any === node.every;
      if (isExact || more === null) for (const { about } of open) meet(about, node.when);
      if (isExact || !open.some(({ about }) => isOpen(about))) return [];
    }
    if (this.#bounds.count > MOST_JUDGED) {
      this.#why ??= this.#tooMany(node.cells);
      return null;
    }
    return parted(d, node, lots === null ? 0n : lot.channels, this.#heading) ?? [];
  }

  /** Notes where a trouble is: the nearest to rest of some output states. */
  #meet(about: string, states: Diagram, when: Diagram): void {
    const { diagrams: d, program, whole } = this.#subject;
    const there = d.and(states, program.statesWhere(when));
    const known = this.#met.get(about);
    const where = this.#subject.nearest(
      known === undefined ? there : whole.nearerThan(there, known.events.length),
    );
    if (where !== null) this.#met.set(about, where);
  }

  /** A trouble as it is told, nearest to rest, and besides where it is worst. */
  *#told(about: string, least: LeastMargin): Generator<undefined, RuleTrouble[]> {
    const where = this.#met.get(about);
    const nearest = where === undefined ? null : this.#tell(about, where, 'reached');
    if (nearest === null) return [];
    const room = (nearest.trouble.margin ?? -Infinity) - NO_WORSE;
    const at = yield* least.worstOf(about, room);
    const worst = at === null ? null : this.#tell(about, at, 'worst');
    return worst === null || (worst.trouble.margin ?? -Infinity) >= room ? [nearest] : [nearest, worst];
  }

  /**
   * Judges a state as any other: what was bounded is told only where it is so in the state itself. The nearest is told in the
   * first pose that shows it, the worst in the worst.
   */
  #tell(about: string, where: RepresentativeState, which: 'reached' | 'worst'): RuleTrouble | null {
    const { open, ...there } = this.#subject.stateAt(where);
    const asked = this.#poses.askedOf(open);
    const state = stateWith({ ...there, open: asked });
    const shown = this.#shownIn(state, about);
    const [first] = which === 'reached' ? shown : shown.toSorted((a, b) => roomOf(a) - roomOf(b));
    if (first === undefined) {
      this.#why = 'the bound of the search did not match the state';
      return null;
    }
    return { asked: this.#asked, where, which, ...first };
  }

  /** What a state shows of a trouble, in each of its poses. */
  #shownIn(state: State, about: string): { readonly trouble: Issue; readonly state: State }[] {
    const { sees, poses: named, limits, upperAboveM } = this.#asked;
    const at = new Situation(this.#subject.build, state, upperAboveM);
    const together = limits(at).map((limit) =>
      severalPartsOpen(at, limit, { stopsOf: this.#poses.stopsOf(state.open) }),
    );
    const poses: readonly Pose[] =
      sees === 'light'
        ? [
            ...this.#poses.posesWith(state.open, named, this.#sight.carried),
            ...together.flatMap((found) => found.poses.map((pose) => [...new Set([...state.open, ...pose])])),
          ]
        : [state.open];
    return [
      ...poses.flatMap((open) => {
        const posed = { ...state, open };
        return troublesOf(this.#bounds.judge(posed)).map((trouble) => ({ trouble, state: posed }));
      }),
      ...together.flatMap(({ inconclusive: untold }) => untold.map((trouble) => ({ trouble, state }))),
    ].filter(({ trouble }) => trouble.about === about);
  }

  /** Why a rule cannot be told: the functions whose combinations are too many. */
  #tooMany(cells: readonly Answers[]): string {
    const { program, diagrams: d, functions } = this.#subject;
    const open = cells.reduce<Answers>((most, cell) => (cell.length > most.length ? cell : most), []);
    const levels = new Set(d.support(...open.map(({ when }) => when)));
    const ids = new Set(
      [...program.order.ons].flatMap(([on, level]) => (levels.has(level) ? [readOn(on).id] : [])),
    );
    const names = functions.flatMap(({ id, name }) => (ids.has(id) ? [name] : []));
    return `too many combinations of ${[...new Set(names)].join(', ')}. Make some of them exclude each other`;
  }
}

const roomOf = ({ trouble }: { readonly trouble: Issue }): number => trouble.margin ?? -Infinity;
