import type { Verdict, Issue } from '../rules/judgement.ts';
import { severalPartsOpen } from '../rules/severalPartsOpen.ts';
import { Situation } from '../rules/situation.ts';
import { poseKey, stateWith, type State } from '../state/state.ts';
import type { Asked } from './asked.ts';
import type { StateIssues } from './memory.ts';
import type { Pose, Poses } from './poses.ts';
import type { RegardedChannels } from './regarded.ts';
import type { Region, Sight } from './regions.ts';
import type { Light } from './search.ts';
import type { VerificationSubject } from './subject.ts';

/** So many judgements are made before whoever waits is heard: one takes 1 to 60 ms. */
const JUDGED_AT_ONCE = 64;

/** What a rule says where some channels light, whatever is on: bounds on many states, or just what one shows. */
export class Bounds {
  /** Not all positions of parts that open together could be tried. */
  isCut = false;
  readonly #subject: VerificationSubject;
  readonly #asked: Asked;
  readonly #regarded: RegardedChannels;
  readonly #poses: Poses;
  readonly #sight: Sight;
  /** What was judged, remembered or not: so that an answer does not depend on what was asked before. */
  readonly #judged = new Set<string>();
  #pause = JUDGED_AT_ONCE;

  constructor(
    subject: VerificationSubject,
    asked: Asked,
    regarded: RegardedChannels,
    { poses, sight }: { readonly poses: Poses; readonly sight: Sight },
  ) {
    this.#subject = subject;
    this.#asked = asked;
    this.#regarded = regarded;
    this.#poses = poses;
    this.#sight = sight;
  }

  /** How many judgements were asked for. */
  get count(): number {
    return this.#judged.size;
  }

  /** Whether so much was judged since it was last asked that whoever waits may be heard. */
  isPauseDue(): boolean {
    if (this.#judged.size < this.#pause) return false;
    this.#pause = this.#judged.size + JUDGED_AT_ONCE;
    return true;
  }

  /** What the rule says in all poses of a region, and with several parts open together. */
  look(region: Region, light: Light): StateIssues {
    const all = [...region.poses, ...this.#openTogether(region, light)].map((pose) =>
      this.#judgedIn(region, light, pose),
    );
    return { margin: leastOf(all.map(({ margin }) => margin)), troubles: all.flatMap((one) => one.troubles) };
  }

  /** What the rule says of a state. */
  judge(state: State): readonly Verdict[] {
    return this.#asked.judge(new Situation(this.#subject.build, state, this.#asked.upperAboveM));
  }

  /** Poses in which what is kept to whatever stands open is not. */
  #openTogether({ poses: [open = []], ...region }: Region, light: Light): Pose[] {
    const kept = this.#subject.memory.openTogetherOf(this.#asked.text);
    const state = this.#stateOf(region, open, light);
    const at = new Situation(this.#subject.build, state, this.#asked.upperAboveM);
    return this.#asked.limits(at).flatMap((limit, i): Pose[] => {
      const key = `${i}|${this.#poses.standsText(open)}|${state.given?.key ?? ''}`;
      const known = kept.get(key);
      const found = known ?? severalPartsOpen(at, limit, { stopsOf: this.#poses.stopsOf(open) });
      if (found.inconclusive.length > 0) this.isCut = true;
      else if (known === undefined) kept.set(key, found);
      return found.poses.map((more) => [...new Set([...open, ...more])]);
    });
  }

  #judgedIn(region: Region, light: Light, pose: Pose): StateIssues {
    const { ambient, several } = region;
    const kept = this.#subject.memory.judgementsOf(this.#asked.text);
    const state = this.#stateOf(region, pose, light);
    const key = `${this.#poseText(pose)}|${ambient}|${several === null ? '' : Number(several)}|${state.given?.key ?? ''}`;
    this.#judged.add(key);
    const known = kept.get(key);
    if (known !== undefined) return known;
    const all = this.judge(state);
    const troubles = troublesOf(all).map(({ about, margin }) => ({ about, margin: margin ?? -Infinity }));
    const judged: StateIssues = { margin: leastOf(all.map(({ margin }) => margin)), troubles };
    kept.set(key, judged);
    return judged;
  }

  /** Equal for poses in which the rule sees the same. */
  #poseText(pose: Pose): string {
    if (this.#asked.sees === 'driven') return '';
    return this.#sight.alike === null ? poseKey(pose) : this.#sight.alike.of(pose);
  }

  /** A state in which just these channels light. */
  #stateOf(
    { ambient, several }: Pick<Region, 'ambient' | 'several'>,
    open: Pose,
    { channels, isBound }: Light,
  ): State {
    // Whether several functions are on is all that a rule asks about what is on, besides what lights.
    const on = this.#subject.showing.ons.slice(0, several === true ? 2 : 1);
    return stateWith({ on, open, ambient, given: this.#regarded.given(channels, isBound) });
  }
}

export const troublesOf = (all: readonly Verdict[]): Issue[] =>
  all.filter((judgement) => judgement.outcome !== 'holds');

/** The least room of some; null where none was measured. */
function leastOf(rooms: readonly (number | null)[]): number | null {
  const measured = rooms.filter((room) => room !== null);
  return measured.length === 0 ? null : Math.min(...measured);
}
