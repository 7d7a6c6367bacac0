import { highestCd, type Drive } from '../resolve/channels.ts';
import { readOn, type On } from '../design/controls.ts';
import type { PoseClasses } from '../coverage/poseClasses.ts';
import type { Judgement, Trouble } from '../rules/judgement.ts';
import { openTogether } from '../rules/openTogether.ts';
import { Situation } from '../rules/situation.ts';
import { checkedOns, modeSteps, poseKey, stateWith, type State } from '../state/state.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import type { Asked } from './asked.ts';
import { NONE, OverBudget, type Diagram } from './diagrams.ts';
import type { Judged } from './memory.ts';
import type { Known, RuleTrouble } from './packRules.ts';
import type { Pose, PoseGroup, Poses } from './poses.ts';
import type { RepresentativeState } from './representative.ts';
import {
  nodeOf,
  numbersIn,
  parted,
  type Answer,
  type Channels,
  type Node,
  type SearchSpace,
} from './search.ts';
import type { ProofSubject } from './subject.ts';

/** A rule is judged so often at most before it is said that it cannot be told. */
const MOST_JUDGED = 10_000;
/** Of what is known to hold or to be broken the worst figure is looked for by so many judgements at most. */
const MOST_FOR_MARGIN = 400;
/** A margin that differs by less is the same. */
const NO_WORSE = 0.001;

/** Output states in which a rule speaks, of one mode, in one light, with parts standing so that it sees the same. */
interface Region {
  readonly ambient: Ambient;
  readonly mode: number;
  readonly poses: readonly Pose[];
  /** Whether several functions are on; null where nobody asks. */
  readonly several: boolean | null;
  readonly states: Diagram;
  readonly space: SearchSpace;
  /** The functions that its modules heed. */
  readonly heeds: readonly On[];
}

/** Channels that are judged by themselves. */
interface Lot {
  /** What its troubles are about; null for any. */
  readonly about: string | null;
  readonly channels: Channels;
}

/** A trouble that was met, and where: the nearest to rest that is known. */
interface Met {
  readonly about: string;
  readonly where: RepresentativeState;
}

/** What came of a rule. */
export interface SearchResult {
  readonly troubles: readonly RuleTrouble[];
  /** How many output states it speaks of. */
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
  readonly #subject: ProofSubject;
  readonly #asked: Asked;
  readonly #known: Known;
  readonly #poses: Poses;
  readonly #alike: PoseClasses | null;
  readonly #carried: readonly Pose[];
  /** The channels regarded, by number. */
  readonly #drives: Drive[] = [];
  readonly #numbers = new Map<number, number>();
  readonly #regions: Region[] = [];
  readonly #lots: readonly Lot[];
  readonly #texts = new Map<Channels, string>();
  readonly #given = new Map<Channels, readonly Drive[]>();
  readonly #met = new Map<string, Met>();
  #count = 0;
  /** What was judged, remembered or not: so that an answer does not depend on what was asked before. */
  readonly #judged = new Set<string>();
  #why: string | null = null;

  /** @throws {OverBudget} what lights is too much to tell */
  constructor(subject: ProofSubject, asked: Asked, known: Known, poses: Poses) {
    this.#subject = subject;
    this.#asked = asked;
    this.#known = known;
    this.#poses = poses;
    const cells = AMBIENTS.map((ambient) => ({ ambient, ...this.#regardedIn(ambient) }));
    const lamps = new Set(this.#drives.map(({ placementId }) => placementId));
    this.#alike =
      asked.elevationsDeg === null ? null : subject.memory.poses(subject.build, lamps, asked.elevationsDeg);
    const hasEyes = asked.sees === 'light' && asked.elevationsDeg === null && asked.poses === null;
    const carried = hasEyes ? poses.carriedTogether(lamps) : [];
    this.#carried = carried ?? [];
    if (carried === null) this.#why = 'too many parts that open carry its lamps';
    for (const { ambient, answers, heeds } of cells)
      if (asked.ambients.includes(ambient)) this.#addRegions(ambient, answers, heeds);
    this.#lots = this.#lotsOf();
  }

  /** The answers of modules that the rule regards, those together in which it regards the same. */
  #regardedIn(ambient: Ambient): {
    readonly answers: readonly (readonly Answer[])[];
    readonly heeds: readonly On[];
  } {
    const { diagrams: d, memory } = this.#subject;
    const heeds = new Set<On>();
    const answers = this.#subject.cells.flatMap((cell): Answer[][] => {
      if (cell.ambient !== ambient) return [];
      const byChannels = new Map<Channels, Diagram>();
      for (const { when, drives } of cell.answers) {
        let channels = 0n;
        for (const drive of drives.flat())
          if (this.#asked.regards(drive)) {
            const known = memory.numberOf(drive);
            const number = this.#numbers.get(known) ?? this.#drives.push(drive) - 1;
            this.#numbers.set(known, number);
            channels |= 1n << BigInt(number);
          }
        byChannels.set(channels, d.or(byChannels.get(channels) ?? NONE, when));
      }
      if (byChannels.size === 1 && byChannels.has(0n)) return [];
      for (const on of cell.heeds) heeds.add(on);
      return [Array.from(byChannels, ([channels, when]) => ({ channels, when }))];
    });
    return { answers, heeds: [...heeds] };
  }

  #addRegions(ambient: Ambient, cells: readonly (readonly Answer[])[], heeds: readonly On[]): void {
    const { diagrams: d, program } = this.#subject;
    const { when, modes, asksAlone } = this.#asked;
    const all = this.#subject.statesIn(ambient);
    const spoken = when === null ? all : d.and(all, program.holds(when));
    const groups = this.#groups();
    const several = severalOn(this.#subject);
    for (const [mode, isMode] of modesOf(this.#subject)) {
      if (modes !== null && (mode === 0 || !modes.includes(mode))) continue;
      const inMode = d.and(spoken, isMode);
      if (inMode === NONE) continue;
      for (const { stands, poses } of groups) {
        const posed = d.any(stands.map((all_) => d.all(all_.map((c) => program.holds(c)))));
        for (const isSeveral of asksAlone ? [false, true] : [null]) {
          const told =
            isSeveral === null ? posed : isSeveral ? d.and(posed, several) : d.without(posed, several);
          const states = d.and(inMode, told);
          if (states === NONE) continue;
          const output = program.outputStates(states, heeds);
          const levels = heeds.flatMap((on) => program.order.ons.get(on) ?? []).toSorted((a, b) => a - b);
          this.#count += Number(d.countOver(output, levels));
          const space = {
            diagrams: d,
            when: output,
            cells,
            weightOf: (channel: number) => weightOf(this.#drives[channel]),
          };
          this.#regions.push({ ambient, mode, poses, several: isSeveral, states, space, heeds });
        }
      }
    }
  }

  /** How parts that something asks about may stand; one group where the rule sees no light. */
  #groups(): readonly PoseGroup[] {
    const { sees, poses: named } = this.#asked;
    if (sees === 'driven') return [{ stands: [[]], poses: [[]] }];
    const groups = this.#poses.groups(named, this.#carried, this.#alike);
    if (groups !== null) return groups;
    throw new OverBudget('too many ways in which parts that functions ask about stand open');
  }

  #lotsOf(): Lot[] {
    const { lots } = this.#asked;
    if (lots === null) return [{ about: null, channels: (1n << BigInt(this.#drives.length)) - 1n }];
    const at = new Situation(this.#subject.build, stateWith({}), 0);
    const byName = new Map<string, Channels>();
    for (const [number, drive] of this.#drives.entries())
      for (const name of lots(drive, at)) byName.set(name, (byName.get(name) ?? 0n) | (1n << BigInt(number)));
    return Array.from(byName, ([name, channels]) => ({ about: name.split('@')[0] ?? name, channels }));
  }

  /** What the rule comes to, of each trouble the state nearest to rest, and the worst where that is worse. */
  result(): SearchResult {
    for (const region of this.#regions)
      this.#hunt(region, region.space.when, (about) => !this.#met.has(about));
    for (const { about } of this.#met.values())
      for (const region of this.#regions) this.#bringNearer(region, about);
    const troubles = [...this.#met.values()].flatMap((one) => this.#told(one));
    const { met, bound: least } = this.#leastMargin(null);
    // What holds has room, whatever a bound leaves open.
    const bound = troubles.length === 0 && this.#why === null ? Math.max(0, least) : least;
    const { within } = this.#subject.whole;
    const why =
      this.#why ??
      (within === null ? null : `holds up to ${within} events from rest; beyond that it is not known`);
    return {
      troubles,
      count: this.#count,
      margin: Number.isFinite(bound) ? bound : Number.isFinite(met) ? met : null,
      isBound: bound < met && Number.isFinite(bound),
      why,
    };
  }

  /** A trouble as it is told, nearest to rest, and besides where it is worst. */
  #told({ about, where }: Met): RuleTrouble[] {
    const nearest = this.#tell(about, where, 'reached');
    if (nearest === null) return [];
    const { met, at } = this.#leastMargin(about);
    const margin = nearest.trouble.margin ?? -Infinity;
    const worst = at !== null && met < margin - NO_WORSE ? this.#tell(about, at, 'worst') : null;
    return worst === null || (worst.trouble.margin ?? -Infinity) >= margin - NO_WORSE
      ? [nearest]
      : [nearest, worst];
  }

  /** Judges a state as any other: what was bounded is told only where it is so in the state itself. */
  #tell(about: string, where: RepresentativeState, which: 'reached' | 'worst'): RuleTrouble | null {
    const { build } = this.#subject;
    const { on, open, ambient } = this.#subject.stateAt(where);
    const asked = this.#poses.askedOf(open);
    const plain = stateWith({ on, open: asked, ambient });
    let told: { readonly trouble: Trouble; readonly state: State } | null = null;
    const look = (pose: Pose): void => {
      // The nearest is told as it stands, if it shows it so; the worst in the pose that is worst.
      if (told !== null && which === 'reached') return;
      const state = { ...plain, open: pose };
      for (const trouble of troublesOf(this.#judge(state)))
        if (
          trouble.about === about &&
          (told === null || (trouble.margin ?? -Infinity) < (told.trouble.margin ?? -Infinity))
        )
          told = { trouble, state };
    };
    const sees = this.#asked.sees === 'light';
    for (const pose of sees ? this.#poses.posesWith(asked, this.#asked.poses, this.#carried) : [asked])
      look(pose);
    const at = new Situation(build, plain, this.#asked.upperAboveM);
    for (const limit of this.#asked.limits(at)) {
      const found = openTogether(at, limit, { stopsOf: this.#poses.stopsOf(asked) });
      for (const pose of found.poses) look([...new Set([...asked, ...pose])]);
      for (const trouble of found.untold)
        if (trouble.about === about && told === null) told = { trouble, state: plain };
    }
    const found: { readonly trouble: Trouble; readonly state: State } | null = told;
    if (found === null) {
      this.#why = `a bound says of '${about}' what its state does not show`;
      return null;
    }
    return { asked: this.#asked, ...(found as { trouble: Trouble; state: State }), where, which };
  }

  /** Looks for states of a trouble nearer to rest than what is known, until there are none. */
  #bringNearer(region: Region, about: string): void {
    const { program, whole } = this.#subject;
    for (let known = this.#met.get(about); known !== undefined;) {
      const { length } = known.where.events;
      if (!this.#mayBe(region, about)) return;
      const states = whole.nearerThan(region.states, length);
      if (states === NONE) return;
      this.#hunt(
        { ...region, states },
        program.outputStates(states, region.heeds),
        (one) => one === about && this.#met.get(about) === known,
      );
      const now = this.#met.get(about);
      if (now === known) return;
      known = now;
    }
  }

  /** Whether a trouble can be at all in a region. */
  #mayBe(region: Region, about: string): boolean {
    const root = nodeOf(region.space, region.space.when);
    const { more, lots } = this.#asked;
    if (more === null || lots !== null) return true;
    return this.#look(region, more === 'hurts' ? root.any : root.every).troubles.some(
      (one) => one.about === about,
    );
  }

  /** Looks for troubles that are open still, each in some of the output states. */
  #hunt(region: Region, from: Diagram, isOpen: (about: string) => boolean): void {
    for (const lot of this.#lots) this.#huntIn(region, lot, from, isOpen);
  }

  #huntIn(region: Region, lot: Lot, from: Diagram, isOpen: (about: string) => boolean): void {
    const { more, lots } = this.#asked;
    const { space, mode } = region;
    const isMine = (about: string): boolean =>
      (lot.about === null || lot.about === about) && isOpen(about) && !this.#known(this.#asked, about, mode);
    const left: Node[] = [nodeOf(space, from)];
    for (let node = left.pop(); node !== undefined; node = left.pop()) {
      const isSettled = ((node.any ^ node.every) & lot.channels) === 0n;
      // An empty lot says nothing; one that may be empty is not judged by what is in all.
      if (lots !== null && (node.any & lot.channels) === 0n) continue;
      const mayBeEmpty = lots !== null && (node.every & lot.channels) === 0n;
      const isExact = node.any === node.every;
      if (!mayBeEmpty && (more !== null || isSettled)) {
        const [worst, best] = more === 'hurts' ? [node.any, node.every] : [node.every, node.any];
        const open = this.#look(region, worst).troubles.filter(({ about }) => isMine(about));
        if (open.length === 0) continue;
        const sure =
          isExact || more === null
            ? open
            : this.#look(region, best).troubles.filter(({ about }) =>
                open.some((one) => one.about === about),
              );
        for (const { about } of sure) this.#meet(region, about, node);
        if (isExact || open.every(({ about }) => !isMine(about))) continue;
      }
      if (this.#judged.size > MOST_JUDGED) {
        this.#why ??= this.#tooMany(node);
        return;
      }
      const parts = parted(
        space,
        node,
        lots === null ? 0n : lot.channels,
        more === 'helps' ? 'least' : 'most',
      );
      if (parts === null) continue;
      for (const part of parts.toReversed()) if (part.when !== NONE) left.push(part);
    }
  }

  /** Notes where a trouble is: the nearest to rest of some output states. */
  #meet({ states }: Region, about: string, { when }: Node): void {
    const { diagrams: d, program, whole } = this.#subject;
    const there = d.and(states, program.statesWhere(when));
    const known = this.#met.get(about);
    const where = this.#subject.nearest(
      known === undefined ? there : whole.nearerThan(there, known.where.events.length),
    );
    if (where !== null) this.#met.set(about, { about, where });
  }

  /**
   * The least room that is met anywhere, best first.
   * @param about - of one trouble; null for all that is judged, but for what is told of a function by itself
   * @returns besides a bound on what may be left: equal where all was looked at
   */
  #leastMargin(about: string | null): {
    readonly met: number;
    readonly bound: number;
    readonly at: RepresentativeState | null;
  } {
    const { more, lots } = this.#asked;
    if (more === null) return { met: Infinity, bound: Infinity, at: null };
    const { diagrams: d, program } = this.#subject;
    let met = Infinity;
    let best: { readonly region: Region; readonly when: Diagram } | null = null;
    const queue: { readonly region: Region; readonly node: Node; readonly bound: number }[] = [];
    const put = (region: Region, node: Node): void => {
      if (node.when === NONE) return;
      const isEmpty =
        lots !== null &&
        this.#lots.some(({ channels }) => (node.every & channels) === 0n && (node.any & channels) !== 0n);
      const judged = this.#look(region, more === 'hurts' ? node.any : node.every);
      const bound = isEmpty ? -Infinity : this.#marginOf(judged, about, region.mode, node.any !== node.every);
      if (bound >= met) return;
      if (node.any === node.every) {
        met = bound;
        best = { region, when: node.when };
        return;
      }
      const at = queue.findIndex((one) => one.bound < bound);
      queue.splice(at < 0 ? queue.length : at, 0, { region, node, bound });
    };
    const until = this.#judged.size + MOST_FOR_MARGIN;
    for (const region of this.#regions) put(region, nodeOf(region.space, region.space.when));
    for (let one = queue.pop(); one !== undefined; one = queue.pop()) {
      if (one.bound >= met) break;
      if (this.#judged.size > until) {
        queue.push(one);
        break;
      }
      const parts = parted(one.region.space, one.node, 0n, more === 'helps' ? 'least' : 'most');
      for (const part of parts ?? []) put(one.region, part);
    }
    const bound = Math.min(met, ...queue.map((one) => one.bound));
    const found: { readonly region: Region; readonly when: Diagram } | null = best;
    const at =
      found === null || about === null
        ? null
        : this.#subject.nearest(
            d.and(
              (found as { region: Region }).region.states,
              program.statesWhere((found as { when: Diagram }).when),
            ),
          );
    return { met, bound, at };
  }

  /** The least room of what was judged. @param isBound - of several states: what is known of some may not be of all */
  #marginOf({ margin, troubles }: Judged, about: string | null, mode: number, isBound: boolean): number {
    if (about !== null)
      return Math.min(...troubles.flatMap((one) => (one.about === about ? [one.margin] : [])));
    const told = troubles.filter((one) => !isBound && this.#known(this.#asked, one.about, mode));
    if (told.length === 0) return Math.min(margin ?? Infinity, ...troubles.map((one) => one.margin));
    const rest = troubles.filter((one) => !told.includes(one)).map((one) => one.margin);
    return Math.min(Infinity, ...rest);
  }

  /** What the rule says where these channels light: in all poses of a region, and with several parts open together. */
  #look(region: Region, channels: Channels): Judged {
    const poses = [...region.poses, ...this.#openTogether(region, channels)];
    const all = poses.map((pose) => this.#judgedIn(region, channels, pose));
    const margins = all.flatMap(({ margin }) => margin ?? []);
    const troubles = all.flatMap((one) => one.troubles);
    return { margin: margins.length === 0 ? null : Math.min(...margins), troubles };
  }

  #openTogether({ poses, ambient, mode, several }: Region, channels: Channels): Pose[] {
    const [open = []] = poses;
    const kept = this.#subject.memory.openTogetherOf(this.#asked.text);
    const state = this.#stateOf(ambient, several, open, channels);
    const at = new Situation(this.#subject.build, state, this.#asked.upperAboveM);
    return this.#asked.limits(at).flatMap((limit, i): Pose[] => {
      if (this.#known(this.#asked, limit.about, mode)) return [];
      const key = `${i}|${this.#poses.standsText(open)}|${this.#textOf(channels)}`;
      const known = kept.get(key);
      const found = known ?? openTogether(at, limit, { stopsOf: this.#poses.stopsOf(open) });
      if (found.untold.length > 0)
        this.#why ??= 'not all positions of parts that open together could be tried';
      else if (known === undefined) kept.set(key, found);
      return found.poses.map((more) => [...new Set([...open, ...more])]);
    });
  }

  #judgedIn({ ambient, several }: Region, channels: Channels, pose: Pose): Judged {
    const kept = this.#subject.memory.judgementsOf(this.#asked.text);
    const posed =
      this.#asked.sees === 'driven' ? '' : this.#alike === null ? poseKey(pose) : this.#alike.of(pose);
    const key = `${posed}|${ambient}|${several === null ? '' : Number(several)}|${this.#textOf(channels)}`;
    this.#judged.add(key);
    const known = kept.get(key);
    if (known !== undefined) return known;
    const all = this.#judge(this.#stateOf(ambient, several, pose, channels));
    const margins = all.flatMap(({ margin }) => margin ?? []);
    const judged: Judged = {
      margin: margins.length === 0 ? null : Math.min(...margins),
      troubles: troublesOf(all).map(({ about, margin }) => ({ about, margin: margin ?? -Infinity })),
    };
    kept.set(key, judged);
    return judged;
  }

  #judge(state: State): readonly Judgement[] {
    return this.#asked.judge(new Situation(this.#subject.build, state, this.#asked.upperAboveM));
  }

  /** A state in which just these channels light. */
  #stateOf(ambient: Ambient, several: boolean | null, open: Pose, channels: Channels): State {
    const on = this.#subject.showing.ons.slice(0, several === true ? 2 : 1);
    return stateWith({
      on,
      open,
      ambient,
      given: { key: this.#textOf(channels), drives: this.#given_(channels) },
    });
  }

  /** Channels at work in the order of the document; a channel that lights in two ways is two. */
  #given_(channels: Channels): readonly Drive[] {
    const known = this.#given.get(channels);
    if (known !== undefined) return known;
    const met = new Map<string, number>();
    const drives = numbersIn(channels).flatMap((number): Drive[] => {
      const drive = this.#drives[number];
      if (drive === undefined) return [];
      const times = met.get(drive.channelId) ?? 0;
      met.set(drive.channelId, times + 1);
      return [times === 0 ? drive : { ...drive, channelId: `${drive.channelId}~${times}` }];
    });
    this.#given.set(channels, drives);
    return drives;
  }

  /** Channels by numbers that are the same in every proof that remembers the same, as a text. */
  #textOf(channels: Channels): string {
    const known = this.#texts.get(channels);
    if (known !== undefined) return known;
    const text = numbersIn(channels)
      .map((number) => {
        const drive = this.#drives[number];
        return drive === undefined ? -1 : this.#subject.memory.numberOf(drive);
      })
      .toSorted((a, b) => a - b)
      .join();
    this.#texts.set(channels, text);
    return text;
  }

  /** Why a rule cannot be told: the functions whose combinations are too many. */
  #tooMany(node: Node): string {
    const { program, diagrams: d, functions } = this.#subject;
    const open = node.cells.reduce(
      (most, cell) => (cell.length > most.length ? cell : most),
      [] as readonly Answer[],
    );
    const levels = new Set(d.support(...open.map(({ when }) => when)));
    const ids = new Set(
      [...program.order.ons].flatMap(([on, level]) => (levels.has(level) ? [readOn(on).id] : [])),
    );
    const names = functions.flatMap(({ id, name }) => (ids.has(id) ? [name] : []));
    return `too many combinations of ${names.join(', ')}: let some of them exclude each other`;
  }
}

const troublesOf = (all: readonly Judgement[]): Trouble[] =>
  all.filter((judgement) => judgement.outcome !== 'holds');

const weightOf = (drive: Drive | undefined): number => (drive === undefined ? 0 : 1 + highestCd(drive));

/** By mode: the states whose warning has it; 0 where none lights anything. */
function modesOf({ build, diagrams: d, program, showing }: ProofSubject): ReadonlyMap<number, Diagram> {
  const lighting = checkedOns(build).filter((on) =>
    AMBIENTS.some((ambient) => showing.driven([on], ambient).length > 0),
  );
  const isLit = d.any(lighting.map((on) => program.isOn(on)));
  const modes = new Map<number, Diagram>();
  let left = isLit;
  for (const { ons, mode } of modeSteps(build)) {
    const mine = d.and(left, d.any(ons.map((on) => program.isOn(on))));
    left = d.without(left, mine);
    modes.set(mode, d.or(modes.get(mode) ?? NONE, mine));
  }
  modes.set(0, d.or(modes.get(0) ?? NONE, d.or(left, d.not(isLit))));
  return new Map([...modes].toSorted(([a], [b]) => a - b));
}

/** The states in which two functions are on or more. */
function severalOn({ diagrams: d, program, programme }: ProofSubject): Diagram {
  let [one, two] = [NONE, NONE];
  for (const rank of programme.ranked.keys()) {
    const is = program.present.isOn(rank);
    two = d.or(two, d.and(one, is));
    one = d.or(one, is);
  }
  return two;
}
