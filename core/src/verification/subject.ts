import { compileProgram, type ControlProgram, type ProgramEvent } from '../controls/program.ts';
import { applyEvent, advanceTime, initialSimulation, type Simulation } from '../controls/simulator.ts';
import { isTimed } from '../controls/program.ts';
import type { Condition } from '../design/condition.ts';
import {
  functionAt,
  onsOf,
  readOn,
  effectsOf,
  type ActiveFunction,
  type TestStep,
} from '../design/controls.ts';
import type { ControlFunction } from '../design/functions.ts';
import { partInput, SHUT } from '../design/inputs.ts';
import { isLampInput, lampStop } from '../design/lampMoves.ts';
import type { Placement } from '../design/placement.ts';
import type { Build, ModuleRef } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { Drive } from '../resolve/channels.ts';
import { showingOf, type OutputResolver, type ChannelRequest } from '../resolve/showing.ts';
import type { State } from '../state/state.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';
import { BehaviourJudge, behavioursIn, type Behaviour } from './behaviour.ts';
import { NotReplayed } from './cannotTell.ts';
import { cellsOf, type Cell, type CellAnswer } from './cells.ts';
import type { Diagram, Diagrams } from './diagrams.ts';
import { VerificationCache } from './memory.ts';
import { isResting } from './parts.ts';
import type { ReachableSet } from './reachable.ts';
import type { ReachedPrograms } from './reachedPrograms.ts';
import { replayed, type RepresentativeState } from './representative.ts';
import type { SymbolicProgram } from './symbolic.ts';

/** A share of the nodes that diagrams may have. */
const NEARLY_FULL = 0.5;

const NIGHT: Condition = { kind: 'is', input: 'ambient', values: ['night'] };

/** A module in one of the cases that differ for it: what it shows, and when. */
export interface ModuleCase extends Pick<CellAnswer, 'on' | 'when'> {
  readonly module: ModuleRef;
  readonly cell: Cell;
  readonly drives: readonly Drive[];
}

/** A build under proof: every state of its controls, and what lights in each. */
export class VerificationSubject {
  readonly build: Build;
  readonly memory: VerificationCache;
  readonly programme: ControlProgram;
  readonly reached: ReachedPrograms;
  readonly showing: OutputResolver;
  readonly judge: BehaviourJudge;
  readonly behaviours: readonly Behaviour[];
  readonly #moduleAt: ReadonlyMap<string, number>;
  #cells: readonly Cell[] | null = null;

  /** @param memory - what proofs before it left */
  constructor(build: Build, memory = new VerificationCache()) {
    this.build = build;
    this.memory = memory;
    this.programme = compileProgram(build);
    this.reached = memory.begin(build);
    this.showing = showingOf(build);
    this.#moduleAt = new Map(this.showing.modules.map((m, i) => [`${m.placementId}/${m.moduleId}`, i]));
    this.judge = new BehaviourJudge(build);
    this.behaviours = behavioursIn(build);
  }

  /** The same with diagrams made anew where they are nearly full, so that one dear question does not starve the next. */
  get renewed(): VerificationSubject {
    return this.diagrams.filled < NEARLY_FULL ? this : new VerificationSubject(this.build, this.memory);
  }

  /** All that the program can reach. */
  get whole(): ReachableSet {
    return this.reached.whole;
  }

  /** The program as sets of states. */
  get program(): SymbolicProgram {
    return this.whole.program;
  }

  get diagrams(): Diagrams {
    return this.program.diagrams;
  }

  /** All states by day (dusk among them) or at night. */
  around(ambient: Ambient): Diagram {
    const night = this.program.holds(NIGHT);
    return ambient === 'night' ? night : this.diagrams.not(night);
  }

  /** The states reached by day or at night. */
  statesIn(ambient: Ambient): Diagram {
    return this.diagrams.and(this.whole.states, this.around(ambient));
  }

  /**
   * What all modules can show, by day and at night.
   * @throws {OverBudget} that is too much
   */
  get cells(): readonly Cell[] {
    this.#cells ??= cellsOf(this.build, this.showing, this.program, {
      day: this.statesIn('day'),
      night: this.statesIn('night'),
    });
    return this.#cells;
  }

  /** Every case of every module, by day and by night. */
  *everyCase(): Generator<ModuleCase> {
    for (const cell of this.cells)
      for (const { on, when, drives } of cell.answers)
        for (const [i, index] of cell.modules.entries()) {
          const module = this.showing.modules[index];
          if (module !== undefined) yield { module, cell, on, when, drives: drives[i] ?? [] };
        }
  }

  /** The states reached in a light in which functions are on as some cell was told. */
  statesWhere(ons: Diagram, ambient: Ambient): Diagram {
    return this.diagrams.and(this.statesIn(ambient), this.program.statesWhere(ons));
  }

  /**
   * The nearest to rest of some states, played from rest.
   * @param of - what these are states of; the whole program when not said
   */
  nearest(states: Diagram, of: ReachableSet = this.whole): RepresentativeState | null {
    const nearest = of.nearest(states);
    return nearest === null ? null : this.played(nearest.events, states, of);
  }

  /**
   * Plays from rest what a search found to lead to one of some states.
   * @param of - what these are states of
   * @throws {NotReplayed} it leads elsewhere: the search is wrong
   */
  played(events: readonly ProgramEvent[], states: Diagram, of: ReachableSet): RepresentativeState {
    const where = replayed(this.programme, events);
    if (!of.program.contains(states, where.state)) throw new NotReplayed(events);
    return where;
  }

  /** The states of a program in which no timer runs. */
  quiet({ program }: ReachableSet): Diagram {
    const { diagrams: d, present } = program;
    return d.all(
      program.programme.ranked.map((fn, rank) => {
        const { when } = fn;
        if (isTimed(when)) return program.isInPhase(rank, present.phase(rank), isResting);
        const ends = (when.way === 'latched' || when.way === 'cycle') && when.timeoutMs > 0;
        return ends ? (present.memory(rank)[0] ?? 0) : 1;
      }),
    );
  }

  get functions(): readonly ControlFunction[] {
    return this.build.controls.functions;
  }

  functionOf(on: ActiveFunction): ControlFunction {
    return functionAt(this.build, readOn(on).id);
  }

  /** All that a function wants of modules, whatever its number, by day and at night. */
  wantsOf(fn: ControlFunction): (ChannelRequest | null)[] {
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
  wantOf(on: ActiveFunction, { placementId, moduleId }: ModuleRef): ChannelRequest | null {
    const index = this.#moduleAt.get(`${placementId}/${moduleId}`) ?? -1;
    return this.showing.wants(on, 'day')[index] ?? null;
  }

  /** Whether a function lights a module, if nothing stronger does. */
  wants(on: ActiveFunction, module: ModuleRef): boolean {
    return (this.wantOf(on, module)?.claims.length ?? 0) > 0;
  }

  labelOf({ placementId }: ModuleRef): string {
    return this.build.placements.find((p) => p.id === placementId)?.label ?? 'deleted lamp';
  }

  isFactory = ({ fixtureId }: Placement): boolean =>
    lookupOf(this.build).fixture(fixtureId).kind === 'factory';

  /** Whether a function sets some load to more than off. */
  isLoading(on: ActiveFunction): boolean {
    const { loads } = this.build.controls;
    return effectsOf(this.build, on).loads.some(
      ({ loadId, value }) => loads.find(({ id }) => id === loadId)?.values[0] !== value,
    );
  }

  /** What is on, what stands open and the light around, in a state that was reached. */
  stateAt({ on, state: { values } }: RepresentativeState): State {
    const open = [...values].flatMap(([id, value]) => {
      if (isLampInput(id)) return lampStop(id, value) ?? [];
      return id.startsWith(partInput('')) && value !== SHUT ? [value] : [];
    });
    return { on, open, ambient: values.get('ambient') === 'night' ? 'night' : 'day' };
  }

  /**
   * The events to a state as steps that can be played: the end of a timer is the time it takes.
   * @returns whether they lead there with the times that are set, too
   */
  stepsTo({ on, events }: RepresentativeState): { readonly steps: TestStep[]; readonly inTime: boolean } {
    const { programme } = this;
    let running: Simulation = initialSimulation(programme);
    const steps: TestStep[] = [];
    for (const event of events) {
      const ms = event.kind === 'ends' ? waitFor(running, event) : 0;
      if (event.kind !== 'ends') {
        steps.push({ kind: 'event', event });
        running = applyEvent(programme, running, event) ?? running;
      } else if (ms > 0) {
        steps.push({ kind: 'wait', ms });
        running = advanceTime(programme, running, ms);
      }
    }
    const ids = new Set(on.map((one) => readOn(one).id));
    const inTime = running.state.on.size === ids.size && [...running.state.on].every((id) => ids.has(id));
    return { steps, inTime };
  }
}

const waitFor = ({ dueMs, nowMs }: Simulation, event: Extract<ProgramEvent, { kind: 'ends' }>): number =>
  Math.max(0, (dueMs.get(event.functionId) ?? nowMs) - nowMs);
