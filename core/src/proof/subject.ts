import type { ProgrammeEvent } from '../controls/programme.ts';
import { programmeOf } from '../controls/programme.ts';
import { FACE_BEARINGS } from '../coverage/sectors.ts';
import { happens, passed, started, type Running } from '../controls/simulator.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { functionAt, onsOf, readOn, shownBy, type On, type TrialStep } from '../design/controls.ts';
import { targetKey, type ControlFunction, type Target } from '../design/functions.ts';
import { conditionsOf, partInput, SHUT } from '../design/inputs.ts';
import { isLampInput, lampStop } from '../design/lampMoves.ts';
import type { Placement } from '../design/placement.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import { showingOf, type Showing, type Want } from '../resolve/showing.ts';
import { BehaviourWish } from '../rules/brief/wishes/behaviour.ts';
import { BRIEF_PACK } from '../rules/check.ts';
import { behaviourRule } from '../rules/kinds/behaviour.ts';
import { conditionOf, rulesHere } from '../rules/registry.ts';
import { LEVEL_DEG, Situation } from '../rules/situation.ts';
import { stateWith, type State } from '../state/state.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import type { Face } from '../words/face.ts';
import { Machine } from './machine.ts';
import { ModuleCases, type ModuleCase } from './modules.ts';
import { Space } from './space.ts';
import {
  isQuiet,
  momentsOf,
  onNames,
  registersAt,
  valuesAt,
  wayTo,
  type Moment,
  type Moments,
} from './moments.ts';
import { reach, type Reach } from './reach.ts';

/** What a wish or a rule of a pack says that lamps, functions or outputs must, must never or can do. */
export interface Behaviour extends Pick<BehaviourWish, 'says' | 'subject' | 'is' | 'atLeast' | 'unless'> {
  readonly packId: string;
  readonly id: string;
  /** What must be so for it to speak; null where it always does. */
  readonly when: Condition | null;
  /** Lamps made to warn alone count. */
  readonly warningOnly: boolean;
}

/** A behaviour that is asked, and where its conditions stand among all that is asked; -1 where it has none. */
interface AskedBehaviour {
  readonly behaviour: Behaviour;
  readonly when: number;
  readonly unless: number;
}

/** What the wishes of the brief, and rules of packs that hold here, say of behaviour. */
const behavioursIn = (build: Build): Behaviour[] => [
  ...build.brief.constraints.flatMap((data): Behaviour[] =>
    data.kind === 'behaviour'
      ? [{ ...BehaviourWish.parse(data), packId: BRIEF_PACK, warningOnly: false }]
      : [],
  ),
  ...rulesHere(build).flatMap(({ pack, rule: data }): Behaviour[] => {
    const rule = behaviourRule.of(data);
    if (rule === null) return [];
    const { id, says, is, moduleCount: atLeast, colours, faces } = rule;
    const head = { packId: pack.id, id, says, is, atLeast, unless: null };
    const when = conditionOf(build, pack, data);
    return [
      {
        ...head,
        when,
        subject: { kind: 'lamps', target: null, colours, faces },
        warningOnly: rule.lamps === 'warning',
      },
    ];
  }),
];

const NIGHT: Condition = { kind: 'is', input: 'ambient', values: ['night'] };
const IGNITION_OFF: Condition = { kind: 'is', input: 'ignition', values: ['off'] };

/** A build under proof: every state of its controls, and what lights in each. */
export class ProofSubject {
  readonly build: Build;
  readonly reach: Reach;
  readonly moments: Moments;
  readonly showing: Showing;
  readonly behaviours: readonly AskedBehaviour[];
  /** Of moments in which the same is on, by day or at night where that is asked, the nearest. */
  readonly pictures: readonly Moment[];
  /** By moment: its place among the pictures. */
  readonly #pictureAt: Int32Array;
  readonly #asksAmbient: boolean;
  readonly #cases = new Map<Ambient, ModuleCases>();
  readonly #spaces = new Map<string, Space | null>();
  readonly #moduleAt: ReadonlyMap<string, number>;
  readonly #shares = new Map<string, number>();
  readonly #members = new Map<string, ReadonlySet<string>>();

  constructor(build: Build) {
    this.build = build;
    this.reach = reach(new Machine(programmeOf(build)));
    this.showing = showingOf(build);
    this.#moduleAt = new Map(this.showing.modules.map((m, i) => [`${m.placementId}/${m.moduleId}`, i]));
    const conditions: Condition[] = [];
    const placeOf = (condition: Condition | null): number =>
      condition === null ? -1 : conditions.push(condition) - 1 + FIRST_ASKED;
    this.behaviours = behavioursIn(build).map((behaviour) => ({
      behaviour,
      when: placeOf(behaviour.when),
      unless: placeOf(behaviour.unless),
    }));
    this.#asksAmbient = [...conditionsOf(build.controls), ...conditions].some((c) =>
      [...leavesOf(c)].some((leaf) => leaf.kind === 'is' && leaf.input === 'ambient'),
    );
    // Day and night are two states where something asks about them; elsewhere every state is both.
    const night = this.#asksAmbient ? NIGHT : () => false;
    this.moments = momentsOf(this.reach, [IGNITION_OFF, isQuiet(this.reach.machine), night, ...conditions]);
    const places = new Map<string, number>();
    const pictures: Moment[] = [];
    this.#pictureAt = Int32Array.from(this.moments.all, (moment) => {
      const key = `${moment.picture} ${String(moment.holds[2])}`;
      const place = places.get(key) ?? pictures.push(moment) - 1;
      places.set(key, place);
      return place;
    });
    this.pictures = pictures;
  }

  get functions(): readonly ControlFunction[] {
    return this.build.controls.functions;
  }

  /** Whether the ignition is off and no timer runs. */
  atEnd = ({ holds }: Moment): boolean => holds[0] === true && holds[1] === true;

  functionOf(on: On): ControlFunction {
    return functionAt(this.build, readOn(on).id);
  }

  /** Every function that is on where the parts stand so. */
  onsAt(places: readonly number[]): On[] {
    return onNames(this.reach.machine.programme.ranked)(registersAt(this.reach, places));
  }

  /** The place among the pictures of a moment, by its own place. */
  pictureAt(moment: number): number {
    return this.#pictureAt[moment] ?? 0;
  }

  /** The light around at a moment: one of the two where the controls ask for it, else either. */
  ambientsOf({ holds }: Moment): readonly Ambient[] {
    if (!this.#asksAmbient) return AMBIENTS;
    return holds[2] === true ? ['night'] : ['day'];
  }

  /** Every case of every module, by day and by night. */
  *everyCase(): Generator<ModuleCase> {
    for (const ambient of AMBIENTS) yield* this.cases(ambient).all();
  }

  /** Module by module what lights over all pictures. */
  cases(ambient: Ambient): ModuleCases {
    const known =
      this.#cases.get(ambient) ??
      new ModuleCases(this.showing, this.pictures, ambient, (moment) =>
        this.ambientsOf(moment).includes(ambient),
      );
    this.#cases.set(ambient, known);
    return known;
  }

  /** All that a function wants of modules, whatever its number, by day and at night. */
  wantsOf(fn: ControlFunction): (Want | null)[] {
    return onsOf(fn).flatMap((on) => AMBIENTS.flatMap((ambient) => this.showing.wants(on, ambient)));
  }

  /** What a function wants of a module by day; null where it wants nothing. */
  wantOf(on: On, { placementId, moduleId }: ModuleRef): Want | null {
    const index = this.#moduleAt.get(`${placementId}/${moduleId}`) ?? -1;
    return this.showing.wants(on, 'day')[index] ?? null;
  }

  /** Whether a function lights a module, if nothing stronger does. */
  wants(on: On, module: ModuleRef): boolean {
    return (this.wantOf(on, module)?.claims.length ?? 0) > 0;
  }

  labelOf({ placementId }: ModuleRef): string {
    return this.build.placements.find((p) => p.id === placementId)?.label ?? placementId;
  }

  depthOf({ places }: Pick<Moment, 'places'>): number {
    return places.reduce((sum, place, at) => sum + (this.reach.parts[at]?.depths[place] ?? 0), 0);
  }

  /** States of some parts together, walked once for all who ask; null when there are too many. */
  space(parts: readonly number[]): Space | null {
    const key = parts.join();
    const known = this.#spaces.get(key);
    if (known !== undefined) return known;
    const made = Space.of(this.reach, parts);
    this.#spaces.set(key, made);
    return made;
  }

  isFactory = ({ fixtureId }: Placement): boolean =>
    lookupOf(this.build).fixture(fixtureId).kind === 'factory';

  /** Whether a target takes in the module of a channel. */
  holds(target: Target, { placementId, moduleId }: ModuleRef): boolean {
    const key = targetKey(target);
    const known = this.#members.get(key) ?? membersOf(this.build, target);
    this.#members.set(key, known);
    return known.has(`${placementId}/${moduleId}`);
  }

  /** Whether a channel at work sends more than so much to a side at some bearing, level, with everything shut. */
  lights(drive: Drive, face: Face, aboveCd: number): boolean {
    const key = `${drive.placementId}/${drive.moduleId} ${face}`;
    const most = this.#shares.get(key) ?? shareToward(this.build, drive, face);
    this.#shares.set(key, most);
    return highestCd(drive) * most > aboveCd;
  }

  /** Whether a function sets some load to more than off. */
  isLoading(on: On): boolean {
    const { loads } = this.build.controls;
    return shownBy(this.build, on).loads.some(
      ({ loadId, value }) => loads.find(({ id }) => id === loadId)?.values[0] !== value,
    );
  }

  /** Whether a load stands at more than off: the strongest function that speaks of it wins. */
  loadRuns({ on }: Moment, loadId: string): boolean {
    const off = this.build.controls.loads.find(({ id }) => id === loadId)?.values[0];
    for (const one of on) {
      const set = shownBy(this.build, one).loads.find((l) => l.loadId === loadId);
      if (set !== undefined) return set.value !== off;
    }
    return false;
  }

  driven(moment: Moment, ambient: Ambient): readonly Drive[] {
    return this.showing.driven(moment.on, ambient);
  }

  /** The state of a moment: what is on, and what stands open on the shortest way there. */
  stateAt(moment: Pick<Moment, 'on' | 'places'>): State {
    const open = [...valuesAt(this.reach, moment)].flatMap(([id, value]) => {
      if (isLampInput(id)) return lampStop(id, value) ?? [];
      return id.startsWith(partInput('')) && value !== SHUT ? [value] : [];
    });
    const ambient = valuesAt(this.reach, moment).get('ambient') === 'night' ? 'night' : 'day';
    return { on: moment.on, open, ambient };
  }

  /**
   * The shortest way to a moment as steps that can be played: the end of a timer is the time it takes.
   * @returns whether the way leads there with the times that are set, too
   */
  stepsTo(moment: Pick<Moment, 'on' | 'places'>): { readonly steps: TrialStep[]; readonly inTime: boolean } {
    const { programme } = this.reach.machine;
    let running: Running = started(programme);
    const steps: TrialStep[] = [];
    for (const event of wayTo(this.reach, moment)) {
      const ms = event.kind === 'ends' ? waitFor(running, event) : 0;
      if (event.kind !== 'ends') {
        steps.push({ kind: 'event', event });
        running = happens(programme, running, event) ?? running;
      } else if (ms > 0) {
        steps.push({ kind: 'wait', ms });
        running = passed(programme, running, ms);
      }
    }
    const ids = new Set(moment.on.map((on) => readOn(on).id));
    const inTime = running.state.on.size === ids.size && [...running.state.on].every((id) => ids.has(id));
    return { steps, inTime };
  }
}

/** Where the conditions of behaviours begin among what is asked. */
const FIRST_ASKED = 3;

const waitFor = ({ dueMs, nowMs }: Running, event: Extract<ProgrammeEvent, { kind: 'ends' }>): number =>
  Math.max(0, (dueMs.get(event.functionId) ?? nowMs) - nowMs);

/** The largest share of a module's peak that arrives at some bearing of a side, level, with everything shut. */
function shareToward(build: Build, module: ModuleRef, face: Face): number {
  const share = new Situation(build, stateWith({}), 0).shareOf(module, LEVEL_DEG);
  return Math.max(...FACE_BEARINGS[face].map((bearing) => share[bearing] ?? 0));
}

/** The modules of a target, as keys. */
function membersOf({ placements, controls }: Build, target: Target): ReadonlySet<string> {
  if (target.kind === 'set') {
    const set = controls.sets.find(({ id }) => id === target.setId);
    return new Set(set?.modules.map((m) => `${m.placementId}/${m.moduleId}`));
  }
  const groupId = target.kind === 'group' ? target.groupId : null;
  return new Set(
    placements.flatMap((p) => p.modules.filter((m) => m.groupId === groupId).map((m) => `${p.id}/${m.id}`)),
  );
}
