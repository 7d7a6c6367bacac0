import type { Build } from '../design/schema.ts';
import { activeFunctionNames } from '../design/controls.ts';
import { drivenIn } from '../state/driven.ts';
import { onsKey, stateKey, type State } from '../state/state.ts';
import { SEVERITIES, type Severity } from '../words/severity.ts';
import type { Finding } from './finding.ts';
import { findingId } from './subject.ts';

/** Who asked for light where there is none. */
interface Asker {
  readonly packId: string;
  readonly ruleId: string;
  readonly severity: Severity;
}

/** Stages in which nothing at all lights: what all rules miss there is said in one sentence, with the next step. */
export class DarkStages {
  readonly #build: Build;
  readonly #askers = new Map<string, Asker>();
  readonly #states = new Map<string, State>();

  constructor(build: Build) {
    this.#build = build;
  }

  /** Whether nothing is driven; where a scene light burns a rule may fail by too much light, which must be told. */
  isDark(state: State): boolean {
    return drivenIn(this.#build, state).length === 0;
  }

  /** A rule or wish fails in a dark state. */
  add(asker: Asker, state: State): void {
    this.#askers.set(`${asker.packId}|${asker.ruleId}`, asker);
    const key = onsKey(state.on);
    if (!this.#states.has(key)) this.#states.set(key, state);
  }

  /** One finding for them all; none when no rule misses anything. */
  get findings(): Finding[] {
    const [first] = this.#states.values();
    if (first === undefined) return [];
    const asked = new Set([...this.#askers.values()].map(({ severity }) => severity));
    const stages = [...this.#states.values()].map(({ on }) => activeFunctionNames(this.#build, on));
    const rules = this.#askers.size === 1 ? 'one rule requires' : `${this.#askers.size} rules require`;
    const empty = this.#build.placements.length === 0;
    const next = empty
      ? 'Place a lamp on the drawing, then assign patterns under Timing'
      : 'Assign a pattern to a sync group under Timing';
    return [
      {
        outcome: 'fails',
        id: findingId({ packId: 'timing', ruleId: 'nothing-lights' }, stateKey(first), []),
        subjects: [],
        packId: 'timing',
        packName: 'Timing',
        ruleId: 'nothing-lights',
        kind: 'nothing-lights',
        home: empty ? 'layout' : 'timing',
        severity: SEVERITIES.find((s) => asked.has(s)) ?? 'notes',
        clause: 'Every stage with rules has a lit lamp',
        sentence: `No lamp is lit in ${stages.join(', ')}, where ${rules} light. ${next}.`,
        figure: null,
        limits: [],
        evidence: { state: first, channels: [], sectors: [], steps: [] },
      },
    ];
  }
}
