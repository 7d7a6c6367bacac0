import { leavesOf } from '../../design/condition.ts';
import { onText } from '../../design/controls.ts';
import { inputsOf } from '../../design/inputs.ts';
import type { Build } from '../../design/schema.ts';
import type { Drive } from '../../resolve/channels.ts';
import { subjectSentence, type BehaviourWish } from '../../rules/brief/wishes/behaviour.ts';
import { wishSentence } from '../../rules/brief/wishes.ts';
import type { Ambient } from '../../words/ambient.ts';
import type { Moment } from '../moments.ts';
import type { AskedWish, ProofSubject } from '../subject.ts';
import type { Found } from '../found.ts';

/** What a wish about behaviour comes to, over every state. */
export interface WishOutcome {
  readonly wish: BehaviourWish;
  /** Null when it holds. */
  readonly found: Found | null;
  /** States in which it had something to say, as far as they differ. */
  readonly looked: number;
}

export const behavioursOf = (subject: ProofSubject): WishOutcome[] =>
  subject.wishes.map((asked) => outcomeOf(subject, asked));

/** Module by module what lights at a moment, of those that a wish speaks of. */
function litAt(subject: ProofSubject, wish: BehaviourWish, moment: number, ambient: Ambient): Drive[] {
  if (wish.subject.kind !== 'lamps') return [];
  const { target } = wish.subject;
  const cases = subject.cases(ambient);
  return subject.showing.modules.flatMap((module, i) =>
    target === null || subject.holds(target, module) ? cases.at(i, subject.pictureAt(moment)) : [],
  );
}

/** Who lights what should be dark: "; White override lights it". */
function lightsIt(subject: ProofSubject, wish: BehaviourWish, at: number, ambient: Ambient): string {
  if (wish.subject.kind !== 'lamps' || wish.is !== 'dark') return '';
  const { colours } = wish.subject;
  const ons = litAt(subject, wish, at, ambient)
    .filter((d) => colours.length === 0 || colours.includes(d.colour))
    .map((d) => d.on);
  return ons.length === 0 ? '' : `; ${onText(subject.build, [...new Set(ons)])} lights it`;
}

/** A moment of which a wish speaks, and its place among all. */
interface Spoken {
  readonly moment: Moment;
  readonly at: number;
}

function outcomeOf(subject: ProofSubject, { wish, when, unless }: AskedWish): WishOutcome {
  const { moments, build } = subject;
  const speaks = moments.all.flatMap((moment, at) =>
    moment.holds[when] === true && (unless < 0 || moment.holds[unless] !== true) ? [{ moment, at }] : [],
  );
  const known = new Map<string, boolean>();
  const so = ({ moment, at }: Spoken, ambient: Ambient): boolean => {
    // What lights, and what is on, is the same in all moments of a picture.
    const key = `${subject.pictureAt(at)} ${ambient}`;
    const is = known.get(key) ?? soIn(subject, wish, moment, litAt(subject, wish, at, ambient));
    known.set(key, is);
    return is;
  };
  const looked = speaks.length;
  const gone = missingIn(build, wish);
  if (gone !== null)
    return {
      wish,
      looked,
      found: {
        about: wish.id,
        sentence: `it names ${gone}, which is not there any more.`,
        outcome: 'cannot tell',
      },
    };
  const cut = moments.whole ? {} : { outcome: 'cannot tell' as const };
  if (wish.says === 'possible') {
    const there = speaks.some((one) => subject.ambientsOf(one.moment).some((ambient) => so(one, ambient)));
    const sentence = `in none of the states that can be reached: ${wishSentence(build, wish)}.`;
    return { wish, looked, found: there ? null : { about: wish.id, sentence, ...cut } };
  }
  const wrong = wish.says === 'never';
  for (const one of speaks)
    for (const ambient of subject.ambientsOf(one.moment)) {
      if (so(one, ambient) !== wrong) continue;
      const sentence = wrong
        ? `it comes about: ${subjectSentence(build, wish)}.`
        : `not so: ${subjectSentence(build, wish)}${lightsIt(subject, wish, one.at, ambient)}.`;
      return { wish, looked, found: { about: wish.id, sentence, moment: one.moment, ambient } };
    }
  return {
    wish,
    looked,
    found: moments.whole
      ? null
      : { about: wish.id, sentence: 'not every state could be looked at.', outcome: 'cannot tell' },
  };
}

/** What a wish names that the build does not have; null when all is there. */
function missingIn(build: Build, { subject, when, unless }: BehaviourWish): string | null {
  const { functions, loads, sets } = build.controls;
  const isFunction = (id: string): boolean => functions.some((fn) => fn.id === id);
  for (const condition of unless === null ? [when] : [when, unless])
    for (const leaf of leavesOf(condition))
      if (leaf.kind === 'on' && !isFunction(leaf.functionId)) return `a function '${leaf.functionId}'`;
      else if (leaf.kind === 'is' && !inputsOf(build).some(({ id }) => id === leaf.input))
        return `an input '${leaf.input}'`;
  switch (subject.kind) {
    case 'function':
      return isFunction(subject.functionId) ? null : `a function '${subject.functionId}'`;
    case 'load':
      return loads.some(({ id }) => id === subject.loadId) ? null : `an output '${subject.loadId}'`;
    case 'lamps': {
      const { target } = subject;
      if (target?.kind === 'set' && !sets.some(({ id }) => id === target.setId))
        return `a set '${target.setId}'`;
      if (target?.kind === 'group' && !build.timing.groups.some(({ id }) => id === target.groupId))
        return `a sync group '${target.groupId}'`;
      return null;
    }
  }
}

/** Whether what the wish speaks of is as it says. */
function soIn(subject: ProofSubject, wish: BehaviourWish, moment: Moment, drives: readonly Drive[]): boolean {
  switch (wish.subject.kind) {
    case 'function': {
      const { functionId } = wish.subject;
      const isOn = moment.on.some((on) => subject.functionOf(on).id === functionId);
      return isOn === (wish.is === 'on');
    }
    case 'load': {
      const { loadId } = wish.subject;
      return subject.loadRuns(moment, loadId) === (wish.is === 'on');
    }
    case 'lamps': {
      const { colours } = wish.subject;
      const mine = drives.filter(
        (d) => d.spans.length > 0 && (colours.length === 0 || colours.includes(d.colour)),
      );
      const modules = (list: readonly Drive[]): number =>
        new Set(list.map((d) => `${d.placementId}/${d.moduleId}`)).size;
      switch (wish.is) {
        case 'dark':
          return mine.length === 0;
        case 'flashing':
          return modules(mine.filter((d) => !d.steady)) >= wish.atLeast;
        case 'steady':
          return modules(mine.filter((d) => d.steady)) >= wish.atLeast;
        case 'lit':
        case 'on':
        case 'off':
          return modules(mine) >= wish.atLeast;
      }
    }
  }
}
