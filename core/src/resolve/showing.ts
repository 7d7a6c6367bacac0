import { functionAt, onsOf, readOn, effectsOf, type ActiveFunction } from '../design/controls.ts';
import type { ControlFunction, Cue, Dim, LightCue, Target } from '../design/functions.ts';
import type { ModuleSetup, Placement } from '../design/placement.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import type { Slot } from '../timing/span.ts';
import { slotsOf } from '../timing/pattern.ts';
import type { Ambient } from '../words/ambient.ts';
import type { Colour } from '../words/colour.ts';
import { cycleFor, driveOf, requestedSlot, type Drive } from './channels.ts';
import { lookupOf } from './lookup.ts';
import { membersOfSet } from './setMembers.ts';
import { alternates } from './turns.ts';

/** A module of a lamp that may light. */
interface Head {
  readonly placement: Placement;
  readonly setup: ModuleSetup;
  readonly coloursAtOnce: number;
  readonly sharedPower: boolean;
  /** A lamp of the maker's own: signals for which its flasher does not stop lose against it. */
  readonly factory: boolean;
}

/** A colour that a function claims on a head. */
export interface Claim {
  readonly cue: LightCue;
  readonly slot: Slot;
  readonly colour: Colour;
  readonly drive: Drive;
  /** Equal for claims that light alike. */
  readonly key: string;
}

/** What a function wants of a head, whatever else is on. */
export interface ChannelRequest {
  readonly on: ActiveFunction;
  /** Strongest first, one for a colour slot. */
  readonly claims: readonly Claim[];
  /** Colours that weaker functions may not show there. */
  readonly forbids: readonly Colour[];
  /** Weaker functions show nothing there. */
  readonly takes: boolean;
}

/** What a function that is on wants of every head. */
interface Wanting {
  readonly on: ActiveFunction;
  readonly of: readonly (ChannelRequest | null)[];
}

/** Why a claim of a function that is on does not light. */
export type OverriddenRequest =
  | { readonly because: 'taken'; readonly by: ActiveFunction }
  | { readonly because: 'forbidden'; readonly by: ActiveFunction };

/** What becomes of a claim: it lights, or why not. */
export interface ResolvedChannel {
  readonly on: ActiveFunction;
  readonly claim: Claim;
  readonly lost: OverriddenRequest | null;
}

/** What a head shows; equal shows are one object. */
interface HeadOutput {
  readonly number: number;
  readonly drives: readonly Drive[];
}

/** A head's answers in one light, by which of the functions that matter to it are on. */
interface Answers {
  /** Places in the ranking of those that want it or dim it, the strongest first. */
  readonly heeds: readonly number[];
  readonly byHeeded: Map<string, HeadOutput>;
}

/** As many pictures of a build, and answers of its heads, are kept; the oldest pictures go first, answers all at once. */
const MOST_KEPT = 2000;
const MOST_ANSWERS = 100_000;

/** What the functions of a build show, one against the other. */
export class OutputResolver {
  readonly #build: Build;
  readonly #heads: readonly Head[];
  readonly #inSet: ReadonlyMap<string, ReadonlySet<string>>;
  /** Every way in which a function can be on, strongest first. */
  readonly #ranked: readonly ActiveFunction[];
  readonly #rankOf: ReadonlyMap<ActiveFunction, number>;
  readonly #wants = new Map<string, readonly (ChannelRequest | null)[]>();
  readonly #answers = new Map<Ambient, readonly Answers[]>();
  /** By what claims light, each as far as it is dimmed. */
  readonly #lit = new Map<string, HeadOutput>();
  #answered = 0;
  #kept = 0;
  readonly #pictures = new Map<string, readonly Drive[]>();
  /** By what was asked for, as it was asked. */
  readonly #states = new Map<string, readonly Drive[]>();

  constructor(build: Build) {
    const lookup = lookupOf(build);
    this.#build = build;
    this.#heads = build.placements
      .filter((p) => p.status !== 'removed' && p.status !== 'planned')
      .flatMap((placement) => {
        const { coloursAtOnce, sharedPower, kind } = lookup.fixture(placement.fixtureId);
        return placement.modules.map((setup) => ({
          placement,
          setup,
          coloursAtOnce,
          sharedPower,
          factory: kind === 'factory',
        }));
      });
    this.#inSet = new Map(
      build.controls.sets.map((set) => [
        set.id,
        new Set(membersOfSet(build, set).map((m) => `${m.placementId}/${m.moduleId}`)),
      ]),
    );
    const { functions } = build.controls;
    this.#ranked = [...functions.filter(isSignal), ...functions.filter((fn) => !isSignal(fn))].flatMap(onsOf);
    this.#rankOf = new Map(this.#ranked.map((on, rank) => [on, rank]));
  }

  /**
   * Every channel that is driven while some functions are on, in document order. Equal pictures are the same list.
   *
   * @param ons - in any order
   * @throws {RangeError} the build has no such function
   */
  driven(ons: readonly ActiveFunction[], ambient: Ambient): readonly Drive[] {
    const asked = `${ambient} ${ons.join()}`;
    const before = this.#states.get(asked);
    if (before !== undefined) return before;
    const isOn = new Uint8Array(this.#ranked.length);
    for (const on of ons) isOn[this.#rank(on)] = 1;
    const numbers: number[] = [];
    const lists: (readonly Drive[])[] = [];
    for (const [i, { heeds, byHeeded }] of this.#answersIn(ambient).entries()) {
      let key = '';
      for (const rank of heeds) if (isOn[rank] === 1) key += `${rank},`;
      if (key === '') continue;
      const { number, drives } = byHeeded.get(key) ?? this.#answer(i, byHeeded, key, ambient);
      if (drives.length === 0) continue;
      numbers.push(number);
      lists.push(drives);
    }
    const picture = numbers.join();
    const known = this.#pictures.get(picture) ?? lists.flat();
    keep(this.#pictures, picture, known);
    keep(this.#states, asked, known);
    return known;
  }

  /** The functions that matter to each head in one light: those that want something of it, or dim it. */
  #answersIn(ambient: Ambient): readonly Answers[] {
    const known = this.#answers.get(ambient);
    if (known !== undefined) return known;
    const wants = this.#ranked.map((on) => this.wants(on, ambient));
    const dims = this.#ranked.map((on) => effectsOf(this.#build, on).dims);
    const made = this.#heads.map((head, i): Answers => {
      const heeds = this.#ranked.flatMap((_, rank) => {
        const dimmed = dims[rank]?.some((dim) => dim.targets.some((target) => this.#holds(target, head)));
        return (wants[rank]?.[i] ?? null) !== null || dimmed === true ? [rank] : [];
      });
      return { heeds, byHeeded: new Map() };
    });
    this.#answers.set(ambient, made);
    return made;
  }

  /** Works out what a head shows while these of the functions that matter to it are on, and keeps it. */
  #answer(index: number, byHeeded: Map<string, HeadOutput>, heeded: string, ambient: Ambient): HeadOutput {
    const head = this.#heads[index];
    if (head === undefined) throw new RangeError(`no head ${index}`);
    const ranked = heeded
      .split(',')
      .flatMap((rank) => (rank === '' ? [] : (this.#ranked[Number(rank)] ?? [])));
    const dims = ranked.flatMap((on) => effectsOf(this.#build, on).dims);
    const lit = this.#settle(head, index, this.#wanting(ranked, ambient), 'lit')
      .filter(({ lost }) => lost === null)
      .map(({ on, claim }) => ({
        claim,
        factor: dims.length === 0 ? 1 : this.#factor(head, on, claim.cue, dims),
      }));
    const key = lit.reduce((text, { claim, factor }) => `${text};${claim.key} ${factor}`, String(index));
    const answer = this.#lit.get(key) ?? {
      number: this.#answered,
      drives: lit.length === 0 ? [] : together(head, lit),
    };
    if (++this.#kept > MOST_ANSWERS) {
      this.#lit.clear();
      this.#answers.clear();
      this.#kept = 0;
    }
    this.#lit.set(key, answer);
    this.#answered++;
    byHeeded.set(heeded, answer);
    return answer;
  }

  #rank(on: ActiveFunction): number {
    const rank = this.#rankOf.get(on);
    if (rank !== undefined) return rank;
    effectsOf(this.#build, on);
    throw new RangeError(`no function '${on}'`);
  }

  /** What becomes of every claim on a module by the functions that are on, the strongest first. */
  onModule(
    placementId: string,
    moduleId: string,
    ons: readonly ActiveFunction[],
    ambient: Ambient,
  ): ResolvedChannel[] {
    const i = this.#heads.findIndex((h) => h.placement.id === placementId && h.setup.id === moduleId);
    const head = this.#heads[i];
    return head === undefined ? [] : this.#settle(head, i, this.#wanting(this.ranked(ons), ambient), 'all');
  }

  /** Every way in which a function can be on, strongest first. */
  get ons(): readonly ActiveFunction[] {
    return this.#ranked;
  }

  /** By module, as `modules` lists them: the places among `ons` of the functions that matter to it. */
  heeds(ambient: Ambient): readonly (readonly number[])[] {
    return this.#answersIn(ambient).map(({ heeds }) => heeds);
  }

  /** What one module shows while some of the functions that matter to it are on, by their places among `ons`. */
  ofModule(index: number, heeded: readonly number[], ambient: Ambient): readonly Drive[] {
    const byHeeded = this.#answersIn(ambient)[index]?.byHeeded;
    if (byHeeded === undefined || heeded.length === 0) return [];
    const key = heeded.map((rank) => `${rank},`).join('');
    return (byHeeded.get(key) ?? this.#answer(index, byHeeded, key, ambient)).drives;
  }

  /** The modules that may light, as `wants` lists them. */
  get modules(): readonly ModuleRef[] {
    return this.#heads.map(({ placement, setup }) => ({ placementId: placement.id, moduleId: setup.id }));
  }

  /** Functions that are on, strongest first: signals above all, then as they stand in the list. */
  ranked(ons: readonly ActiveFunction[]): ActiveFunction[] {
    const ranks = new Set(ons.map((on) => this.#rank(on)));
    return this.#ranked.filter((_, rank) => ranks.has(rank));
  }

  /** What a function wants of each head; null where it wants nothing. */
  wants(on: ActiveFunction, ambient: Ambient): readonly (ChannelRequest | null)[] {
    const key = `${on}|${ambient}`;
    const known =
      this.#wants.get(key) ??
      this.#heads.map((head) => {
        const cues = effectsOf(this.#build, on).cues.filter((cue) => this.#holds(cue.target, head));
        return cues.length === 0 ? null : this.#wanted(head, on, cues, ambient);
      });
    this.#wants.set(key, known);
    return known;
  }

  /** @param which - all claims, or only those up to the function that takes the head: what is weaker lights nothing */
  #settle(head: Head, index: number, wanting: readonly Wanting[], which: 'all' | 'lit'): ResolvedChannel[] {
    const out: ResolvedChannel[] = [];
    let forbidden: { readonly colour: Colour; readonly by: ActiveFunction }[] = [];
    let taker: ActiveFunction | null = null;
    for (const { on, of } of head.factory ? this.#asFlashed(head, wanting) : wanting) {
      const want = of[index] ?? null;
      if (want === null) continue;
      const before = out.length;
      for (const claim of want.claims) {
        const holder = out.findIndex((s, i) => i < before && s.claim.slot === claim.slot);
        const by = taker ?? out[holder]?.on;
        const forbids = forbidden.find(({ colour }) => colour === claim.colour);
        const lost: OverriddenRequest | null =
          by !== undefined
            ? { because: 'taken', by }
            : forbids === undefined
              ? null
              : { because: 'forbidden', by: forbids.by };
        out.push({ on, claim, lost });
      }
      if (want.forbids.length > 0)
        forbidden = [...forbidden, ...want.forbids.map((colour) => ({ colour, by: on }))];
      if (want.takes) taker ??= on;
      if (taker !== null && which === 'lit') break;
    }
    return out;
  }

  /** On a tied-in lamp of the maker's, a signal for which its flasher does not stop is the weakest of all. */
  #asFlashed({ placement }: Head, wanting: readonly Wanting[]): Wanting[] {
    const loses = ({ on }: Wanting) => {
      const fn = functionAt(this.#build, readOn(on).id);
      return isSignal(fn) && !placement.stopsFor.includes(fn.id);
    };
    return [...wanting.filter((one) => !loses(one)), ...wanting.filter(loses)];
  }

  #wanting(ranked: readonly ActiveFunction[], ambient: Ambient): Wanting[] {
    return ranked.map((on) => ({ on, of: this.wants(on, ambient) }));
  }

  #wanted(head: Head, on: ActiveFunction, cues: readonly Cue[], ambient: Ambient): ChannelRequest | null {
    let claims: Claim[] = [];
    const forbids = new Set<Colour>();
    let [there, onlyForbids, adds] = [false, true, true];
    for (const cue of cues) {
      if (cue.show === 'dark') {
        there = true;
        if (cue.colours.length === 0) {
          claims = [];
          onlyForbids = false;
          adds = false;
        } else {
          claims = claims.filter(({ colour }) => !cue.colours.includes(colour));
          for (const colour of cue.colours) forbids.add(colour);
          adds &&= cue.adds;
        }
        continue;
      }
      const mine = this.#claimed(head, on, cue, ambient);
      if (mine.length === 0) continue;
      there = true;
      onlyForbids = false;
      adds &&= cue.adds;
      claims = [...mine, ...claims.filter(({ slot }) => !mine.some((c) => c.slot === slot))];
    }
    return there ? { on, claims, forbids: [...forbids], takes: !onlyForbids && !adds } : null;
  }

  /** The colours of one cue, the later ones in its pattern stronger. */
  #claimed({ placement, setup }: Head, on: ActiveFunction, cue: LightCue, ambient: Ambient): Claim[] {
    const base = requestedSlot(cue, setup);
    if (base === undefined) return [];
    const { kind } = functionAt(this.#build, readOn(on).id);
    const atNight = ambient === 'night' && kind !== 'signal';
    const level = cue.level * (atNight ? cue.nightLevel : 1);
    const patternId = ambient === 'night' ? (cue.nightPatternId ?? cue.patternId) : cue.patternId;
    return slotsOf(cycleFor(this.#build, patternId, setup.groupId), base)
      .flatMap((slot): Claim[] => {
        const drive = driveOf(this.#build, placement, setup, { on, cue, ambient, level }, slot);
        return drive === null ? [] : [{ cue, slot, colour: drive.colour, drive, key: keyOf(drive) }];
      })
      .toReversed();
  }

  #factor(head: Head, on: ActiveFunction, cue: LightCue, dims: readonly Dim[]): number {
    const { kind } = functionAt(this.#build, readOn(on).id);
    return dims
      .filter(
        (dim) =>
          (cue.dimmed ?? dim.kinds.includes(kind)) && dim.targets.some((target) => this.#holds(target, head)),
      )
      .reduce((factor, dim) => factor * dim.factor, 1);
  }

  #holds(target: Target, { placement, setup }: Head): boolean {
    switch (target.kind) {
      case 'group':
        return setup.groupId === target.groupId;
      case 'ungrouped':
        return setup.groupId === null;
      case 'set':
        return this.#inSet.get(target.setId)?.has(`${placement.id}/${setup.id}`) === true;
    }
  }
}

const isSignal = ({ kind }: ControlFunction): boolean => kind === 'signal';

const keyOf = (drive: Drive): string =>
  `${drive.on} ${drive.slot} ${drive.patternId} ${drive.line} ${drive.peakCd} ${drive.currentA} ${drive.text}`;

/** Keeps a picture; beyond what is kept the oldest goes. */
function keep<V>(kept: Map<string, V>, key: string, value: V): void {
  kept.delete(key);
  kept.set(key, value);
  const oldest = kept.keys().next();
  if (kept.size > MOST_KEPT && oldest.done !== true) kept.delete(oldest.value);
}

/** What claims on one head come to, each dimmed and in its turn. */
function together(head: Head, lit: readonly { readonly claim: Claim; readonly factor: number }[]): Drive[] {
  const weakestFirst = lit
    .map(({ claim: { drive }, factor }) =>
      factor === 1 ? drive : { ...drive, peakCd: drive.peakCd * factor, currentA: drive.currentA * factor },
    )
    .toReversed();
  return alternates(weakestFirst, head.coloursAtOnce, head.sharedPower);
}

/** A build never changes, so what its functions show is worked out once. */
const known = new WeakMap<Build, OutputResolver>();

export function showingOf(build: Build): OutputResolver {
  const showing = known.get(build) ?? new OutputResolver(build);
  known.set(build, showing);
  return showing;
}
