import type { ProgrammeEvent } from '../controls/programme.ts';
import { onsIn } from '../controls/programme.ts';
import { atRest, step } from '../controls/step.ts';
import { happens, passed, started, type Running } from '../controls/simulator.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { functionAt, onsOf, readOn, shownBy, type On, type TrialStep } from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { conditionsOf, partInput, SHUT } from '../design/inputs.ts';
import { isLampInput, lampStop } from '../design/lampMoves.ts';
import type { Placement } from '../design/placement.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { Drive } from '../resolve/channels.ts';
import { showingOf, type Showing, type Want } from '../resolve/showing.ts';
import type { State } from '../state/state.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { BehaviourJudge, behavioursIn, type Behaviour } from './behaviour.ts';
import { comesWithin } from './inTime.ts';
import type { Registers } from './machine.ts';
import { ProofMemory } from './memory.ts';
import { ModuleCases, type ModuleCase } from './modules.ts';
import type { About, Place } from './about.ts';
import { OnTable } from './onTable.ts';
import { onNames, valuesAt, wayTo } from './atMoment.ts';
import type { Moments } from './moments.ts';
import type { Moment } from './momentTable.ts';
import { NEVER, NIGHT, type Question } from './questions.ts';
import type { Reach } from './reach.ts';
import type { Walked } from './walked.ts';

/** A behaviour that is asked, and where its questions stand among all that is asked; -1 where it has none. */
interface AskedBehaviour {
  readonly behaviour: Behaviour;
  readonly when: number;
  readonly unless: number;
  /** That it does not come about in the time it is given. */
  readonly late: number;
}

const IGNITION_OFF: Condition = { kind: 'is', input: 'ignition', values: ['off'] };

/** A build under proof: every state of its controls, and what lights in each. */
export class ProofSubject {
  readonly build: Build;
  readonly memory: ProofMemory;
  readonly walked: Walked;
  readonly reach: Reach;
  readonly moments: Moments;
  readonly showing: Showing;
  readonly judge: BehaviourJudge;
  readonly behaviours: readonly AskedBehaviour[];
  readonly #on: OnTable;
  readonly #asksAmbient: boolean;
  readonly #cases = new Map<Ambient, ModuleCases>();
  readonly #unfollowed = new Set<Behaviour>();
  readonly #moduleAt: ReadonlyMap<string, number>;

  /** @param memory - what proofs before it left */
  constructor(build: Build, memory = new ProofMemory()) {
    this.build = build;
    this.memory = memory;
    this.walked = memory.begin(build);
    this.reach = this.walked.reach;
    this.showing = showingOf(build);
    this.#moduleAt = new Map(this.showing.modules.map((m, i) => [`${m.placementId}/${m.moduleId}`, i]));
    this.judge = new BehaviourJudge(build);
    const behaviours = behavioursIn(build);
    this.#asksAmbient = [
      ...conditionsOf(build.controls),
      ...behaviours.flatMap(({ when, unless }) => [when, unless].filter((c) => c !== null)),
    ].some((c) => [...leavesOf(c)].some((leaf) => leaf.kind === 'is' && leaf.input === 'ambient'));
    const questions: Question[] = [];
    const placeOf = (question: Question | null): number =>
      question === null ? -1 : questions.push(question) - 1 + FIRST_ASKED;
    this.behaviours = behaviours.map((behaviour) => ({
      behaviour,
      when: placeOf(behaviour.when),
      unless: placeOf(behaviour.unless),
      late: placeOf(behaviour.withinS === null ? null : this.#isLate(behaviour, behaviour.withinS)),
    }));
    // Day and night are two states where something asks about them; elsewhere every state is both.
    const night = this.#asksAmbient ? NIGHT : NEVER;
    this.moments = this.walked.moments([IGNITION_OFF, this.walked.isQuiet, night, ...questions]);
    this.#on = OnTable.of(this.showing, this.moments, this.#asksAmbient ? [IS_NIGHT] : []);
  }

  /** Whether a behaviour is due and does not come about in time; what could not be followed to its end is noted. */
  #isLate(behaviour: Behaviour, withinS: number): Question {
    const { wired, programme } = this.reach.machine;
    const onsOf = onNames(programme.ranked);
    const around = programme.inputs.findIndex(({ id }) => id === 'ambient');
    const night = programme.inputs[around]?.values.indexOf('night') ?? -1;
    const isSo = (r: Registers): boolean => {
      const on = onsOf(r);
      const ambients = !this.#asksAmbient ? AMBIENTS : r.values[around] === night ? NIGHT_ALONE : DAY_ALONE;
      return ambients.every((ambient) => {
        const counted = this.showing.driven(on, ambient).filter((d) => this.judge.counts(behaviour, d));
        return this.judge.isSo(behaviour, on, counted);
      });
    };
    const when = behaviour.when === null ? null : wired.asked(behaviour.when);
    const unless = behaviour.unless === null ? null : wired.asked(behaviour.unless);
    const comes = comesWithin(this.reach, withinS * 1000, isSo);
    return (r) => {
      if (when?.(r.values, r.on) === false || unless?.(r.values, r.on) === true) return false;
      const how = comes(r);
      if (how === 'unknown') this.#unfollowed.add(behaviour);
      return how === 'late';
    };
  }

  /** Whether in some state too many timers run to say if a behaviour comes about in time. */
  isUnfollowed = (behaviour: Behaviour): boolean => this.#unfollowed.has(behaviour);

  get functions(): readonly ControlFunction[] {
    return this.build.controls.functions;
  }

  /** Whether the ignition is off and no timer runs. */
  atEnd = (holds: readonly boolean[]): boolean => holds[0] === true && holds[1] === true;

  functionOf(on: On): ControlFunction {
    return functionAt(this.build, readOn(on).id);
  }

  /** The light around at a moment: one of the two where the controls ask for it, else either. */
  ambientsOf({ holds }: Moment): readonly Ambient[] {
    if (!this.#asksAmbient) return AMBIENTS;
    return holds[IS_NIGHT] === true ? NIGHT_ALONE : DAY_ALONE;
  }

  /** Every case of every module, by day and by night. */
  *everyCase(): Generator<ModuleCase> {
    for (const ambient of AMBIENTS) yield* this.cases(ambient).all();
  }

  /** Module by module what lights over all pictures. */
  cases(ambient: Ambient): ModuleCases {
    const known =
      this.#cases.get(ambient) ??
      new ModuleCases(this.showing, this.moments, {
        on: this.#on,
        ambient,
        counts: (moment) => this.ambientsOf(moment).includes(ambient),
      });
    this.#cases.set(ambient, known);
    return known;
  }

  /** All that a function wants of modules, whatever its number, by day and at night. */
  wantsOf(fn: ControlFunction): (Want | null)[] {
    return onsOf(fn).flatMap((on) => AMBIENTS.flatMap((ambient) => this.showing.wants(on, ambient)));
  }

  /** The modules that a function lights where nothing stronger does, whatever its number, by day or at night. */
  litBy(fn: ControlFunction): ModuleRef[] {
    const { modules } = this.showing;
    const lit = new Set(
      this.wantsOf(fn).flatMap((want, i) => ((want?.claims.length ?? 0) > 0 ? [i % modules.length] : [])),
    );
    return modules.filter((_, i) => lit.has(i));
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

  /** The states of what some functions depend on, walked once for all who ask; null when there are too many. */
  about(ids: readonly string[], inputs: readonly number[] = []): About | null {
    return this.walked.about(ids, inputs);
  }

  /** A state of what some functions depend on, and what is on there when nothing else was done. */
  placeIn({ reach: walked, space }: About, state: number): Place {
    const { programme } = this.reach.machine;
    const places = space.placesOf(state);
    const there = wayTo(walked, { places }).reduce(
      (now, event) => step(programme, now, event)?.state ?? now,
      atRest(programme),
    );
    return { on: onsIn(programme, there), places, reach: walked };
  }

  isFactory = ({ fixtureId }: Placement): boolean =>
    lookupOf(this.build).fixture(fixtureId).kind === 'factory';

  /** Whether a function sets some load to more than off. */
  isLoading(on: On): boolean {
    const { loads } = this.build.controls;
    return shownBy(this.build, on).loads.some(
      ({ loadId, value }) => loads.find(({ id }) => id === loadId)?.values[0] !== value,
    );
  }

  driven(moment: Moment, ambient: Ambient): readonly Drive[] {
    return this.showing.driven(moment.on, ambient);
  }

  /** The state of a moment: what is on, and what stands open on the shortest way there. */
  stateAt(moment: Place): State {
    const values = valuesAt(moment.reach ?? this.reach, moment);
    const open = [...values].flatMap(([id, value]) => {
      if (isLampInput(id)) return lampStop(id, value) ?? [];
      return id.startsWith(partInput('')) && value !== SHUT ? [value] : [];
    });
    const ambient = values.get('ambient') === 'night' ? 'night' : 'day';
    return { on: moment.on, open, ambient };
  }

  /**
   * The shortest way to a moment as steps that can be played: the end of a timer is the time it takes.
   * @returns whether the way leads there with the times that are set, too
   */
  stepsTo(moment: Place): { readonly steps: TrialStep[]; readonly inTime: boolean } {
    const { programme } = this.reach.machine;
    let running: Running = started(programme);
    const steps: TrialStep[] = [];
    for (const event of wayTo(moment.reach ?? this.reach, moment)) {
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

const NIGHT_ALONE: readonly Ambient[] = ['night'];
const DAY_ALONE: readonly Ambient[] = ['day'];

/** Where it is asked whether it is night, and where the questions of behaviours begin, among what is asked. */
const IS_NIGHT = 2;
const FIRST_ASKED = 3;

const waitFor = ({ dueMs, nowMs }: Running, event: Extract<ProgrammeEvent, { kind: 'ends' }>): number =>
  Math.max(0, (dueMs.get(event.functionId) ?? nowMs) - nowMs);
