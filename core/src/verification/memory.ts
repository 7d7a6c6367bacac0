import { compileProgram, type ControlProgram } from '../controls/program.ts';
import { PoseClasses } from '../coverage/poseClasses.ts';
import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import type { OpenTogether } from '../rules/severalPartsOpen.ts';
import type { Face } from '../words/face.ts';
import { DriveNumbers } from './driveNumbers.ts';
import { ReachedPrograms } from './reachedPrograms.ts';

/** So many outcomes, and channels, are kept; beyond it all is forgotten. */
const MOST_JUDGEMENTS = 300_000;
const MOST_CHANNELS = 5000;
/** The sets of so many programs are kept: what is undone, and what is done again, need not be reached anew. */
const MOST_PROGRAMS = 3;
/** A program whose diagrams have grown beyond this is reached anew. */
const MOST_KEPT_NODES = 1_000_000;

/** A trouble without its words, which name what is on and stands open: what is so wherever the same lights. */
export interface IssueKey {
  readonly about: string;
  /** Below any that is measured, where nothing is. */
  readonly margin: number;
}

/** What a rule says of a state. */
export interface StateIssues {
  /** The least room; null where nothing is measured. */
  readonly margin: number | null;
  readonly troubles: readonly IssueKey[];
}

/** Toward each side the most light at some bearing, cd. */
export type TowardSides = ReadonlyMap<Face, number>;

/** What was found, by all that it depends on. */
export interface Cache<T> {
  readonly get: (key: string) => T | undefined;
  readonly set: (key: string, found: T) => void;
}

/**
 * What one proof leaves to the next: each outcome by what it depends on, so that after an edit only that is looked at anew
 * which the edit can have changed.
 */
export class VerificationCache {
  #build: Build | null = null;
  /** By the logic of their functions; the last asked for last. */
  readonly #reached = new Map<string, ReachedPrograms>();
  #channels = new DriveNumbers();
  #judged = new Map<string, Map<string, StateIssues>>();
  #together = new Map<string, Map<string, OpenTogether>>();
  #towards = new Map<string, TowardSides>();
  #poses = new Map<string, PoseClasses>();
  #judgedInAll = 0;

  /** Begins with a build: what was told of others and is not so of it is forgotten. */
  begin(build: Build): ReachedPrograms {
    if (!sameButControls(this.#build, build) || this.#judgedInAll > MOST_JUDGEMENTS) this.#forget();
    if (this.#channels.drives.length > MOST_CHANNELS) this.#forget();
    this.#build = build;
    const programme = compileProgram(build);
    const logic = logicOf(programme);
    const known = this.#reached.get(logic);
    const reached =
      known === undefined || known.whole.program.diagrams.size > MOST_KEPT_NODES
        ? new ReachedPrograms(programme)
        : known;
    this.#reached.delete(logic);
    this.#reached.set(logic, reached);
    for (const other of [...this.#reached.keys()].slice(0, -MOST_PROGRAMS)) this.#reached.delete(other);
    return reached;
  }

  /** How many states were judged since it forgot. */
  get judged(): number {
    return this.#judgedInAll;
  }

  /** What a rule was found to say. */
  judgementsOf = (rule: string): Cache<StateIssues> => this.#keptIn(this.#judged, rule);

  /** In which poses a rule was found to be broken with several parts open together. */
  openTogetherOf = (rule: string): Cache<OpenTogether> => this.#keptIn(this.#together, rule);

  #keptIn<T>(all: Map<string, Map<string, T>>, rule: string): Cache<T> {
    const ofRule = all.get(rule) ?? new Map<string, T>();
    all.set(rule, ofRule);
    return {
      get: (key) => ofRule.get(key),
      set: (key, found) => {
        ofRule.set(key, found);
        this.#judgedInAll++;
      },
    };
  }

  /** What some warning lamps send to each side. */
  readonly towards: Cache<TowardSides> = {
    get: (key) => this.#towards.get(key),
    set: (key, found) => {
      this.#towards.set(key, found);
      this.#judgedInAll++;
    },
  };

  /** A number for each channel at work: equal for those that light alike, in whichever build. */
  numberOf = (drive: Drive): number => this.#channels.of(drive);

  /** Poses told apart by the light of some lamps, seen from some elevations. */
  poses(build: Build, lamps: ReadonlySet<string>, elevationsDeg: readonly number[]): PoseClasses {
    const key = [...lamps, ...elevationsDeg].join();
    const known = this.#poses.get(key) ?? new PoseClasses(build, lamps, elevationsDeg);
    this.#poses.set(key, known);
    return known;
  }

  #forget(): void {
    this.#channels = new DriveNumbers();
    this.#judged = new Map();
    this.#together = new Map();
    this.#towards = new Map();
    this.#poses = new Map();
    this.#judgedInAll = 0;
  }
}

/** Whether two builds hold the same of everything but their controls: the same objects, as an edit leaves them. */
function sameButControls(a: Build | null, b: Build): boolean {
  if (a === null) return false;
  const of = (build: Build): Map<string, unknown> => new Map(Object.entries({ ...build, controls: null }));
  const [before, now] = [of(a), of(b)];
  return before.size === now.size && [...now].every(([key, value]) => Object.is(before.get(key), value));
}

/** All by which the functions of a program come on, as a text: not what they are called, nor what they show. */
const logicOf = ({ ranked, inputs, controls, deliberate }: ControlProgram): string =>
  JSON.stringify([
    ranked.map(({ id, kind, when, shows, enabledBy, forgets, choiceId, withoutMaster }) => [
      id,
      kind,
      when,
      shows.length,
      enabledBy,
      forgets,
      choiceId,
      withoutMaster,
    ]),
    inputs.map(({ id, values, source, byHand }) => [id, values, source, byHand]),
    controls.panels,
    controls.enabledBy,
    controls.never,
    controls.follows,
    [...deliberate],
  ]);
