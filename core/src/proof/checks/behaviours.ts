import { onText } from '../../design/controls.ts';
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
    target === null || subject.holds(target, module) ? cases.at(i, moment) : [],
  );
}

/** Who lights what should be dark: "; White override lights it". */
function lightsIt(subject: ProofSubject, wish: BehaviourWish, moment: number): string {
  if (wish.subject.kind !== 'lamps' || wish.is !== 'dark') return '';
  const { colours } = wish.subject;
  const ons = (['day', 'night'] as const).flatMap((ambient) =>
    litAt(subject, wish, moment, ambient)
      .filter((d) => colours.length === 0 || colours.includes(d.colour))
      .map((d) => d.on),
  );
  return ons.length === 0 ? '' : `; ${onText(subject.build, [...new Set(ons)])} lights it`;
}

function outcomeOf(subject: ProofSubject, { wish, when, unless }: AskedWish): WishOutcome {
  const { moments, build } = subject;
  const speaks = moments.all.flatMap((moment, at) =>
    moment.holds[when] === true && (unless < 0 || moment.holds[unless] !== true) ? [{ moment, at }] : [],
  );
  const inBoth = ({ moment, at }: { readonly moment: Moment; readonly at: number }): boolean[] =>
    (['day', 'night'] as const).map((ambient) =>
      soIn(subject, wish, moment, litAt(subject, wish, at, ambient)),
    );
  const isSo = (one: { readonly moment: Moment; readonly at: number }): boolean => inBoth(one).every(Boolean);
  const isSoEver = (one: { readonly moment: Moment; readonly at: number }): boolean =>
    inBoth(one).some(Boolean);
  const looked = speaks.length;
  const cut = moments.whole ? {} : { outcome: 'cannot tell' as const };
  if (wish.says === 'possible') {
    const there = speaks.some(isSoEver);
    const sentence = `in none of the states that can be reached: ${wishSentence(build, wish)}.`;
    return { wish, looked, found: there ? null : { about: wish.id, sentence, ...cut } };
  }
  const broken = speaks.find((one) => (wish.says === 'whenever' ? !isSo(one) : isSoEver(one)));
  if (broken !== undefined) {
    const sentence =
      wish.says === 'whenever'
        ? `not so: ${subjectSentence(build, wish)}${lightsIt(subject, wish, broken.at)}.`
        : `it comes about: ${subjectSentence(build, wish)}.`;
    return { wish, looked, found: { about: wish.id, sentence, moment: broken.moment } };
  }
  return {
    wish,
    looked,
    found: moments.whole
      ? null
      : { about: wish.id, sentence: 'not every state could be looked at.', outcome: 'cannot tell' },
  };
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
