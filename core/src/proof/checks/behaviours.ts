import { leavesOf } from '../../design/condition.ts';
import { onText } from '../../design/controls.ts';
import { inputsOf } from '../../design/inputs.ts';
import type { Build } from '../../design/schema.ts';
import type { Drive } from '../../resolve/channels.ts';
import { subjectSentence } from '../../rules/brief/wishes/behaviour.ts';
import { bookOf } from '../../timing/book.ts';
import type { Ambient } from '../../words/ambient.ts';
import type { Moment } from '../momentTable.ts';
import type { Behaviour } from '../behaviour.ts';
import type { ProofSubject } from '../subject.ts';
import type { Found } from '../found.ts';

/** What is said of behaviour, and what it comes to over every state. */
export interface BehaviourOutcome {
  readonly behaviour: Behaviour;
  /** Null when it holds. */
  readonly found: Found | null;
  /** States in which it had something to say, as far as they differ. */
  readonly looked: number;
}

export const behavioursOf = (subject: ProofSubject): BehaviourOutcome[] =>
  subject.behaviours.map((asked) => outcomeOf(subject, asked));

/** Module by module what lights at a moment, of what a behaviour speaks of. */
function litAt(subject: ProofSubject, behaviour: Behaviour, moment: number, ambient: Ambient): Drive[] {
  if (behaviour.subject.kind !== 'lamps') return [];
  const cases = subject.cases(ambient);
  return subject.showing.modules.flatMap((module, i) =>
    subject.judge.concerns(behaviour, module)
      ? cases.at(i, moment).filter((drive) => subject.judge.counts(behaviour, drive))
      : [],
  );
}

/** Who lights what should be dark: "; White override lights it". */
function lightsIt(subject: ProofSubject, behaviour: Behaviour, at: number, ambient: Ambient): string {
  if (behaviour.is !== 'dark') return '';
  const ons = litAt(subject, behaviour, at, ambient).map((d) => d.on);
  return ons.length === 0 ? '' : `; ${onText(subject.build, [...new Set(ons)])} lights it`;
}

/** A moment of which a behaviour speaks, and its place among all. */
interface Spoken {
  readonly moment: Moment;
  readonly at: number;
}

function outcomeOf(
  subject: ProofSubject,
  { behaviour, when, unless, late }: ProofSubject['behaviours'][number],
): BehaviourOutcome {
  const { moments, build } = subject;
  const speaks = Array.from(
    moments.where((holds) => (when < 0 || holds[when] === true) && (unless < 0 || holds[unless] !== true)),
    (at): Spoken => ({ moment: moments.at(at), at }),
  );
  const known = new Map<string, boolean>();
  const so = ({ moment, at }: Spoken, ambient: Ambient): boolean => {
    // What lights, and what is on, is the same in all moments of a picture.
    const key = `${moment.picture} ${ambient}`;
    const is =
      known.get(key) ?? subject.judge.isSo(behaviour, moment.on, litAt(subject, behaviour, at, ambient));
    known.set(key, is);
    return is;
  };
  const looked = speaks.length;
  const wanted = subjectSentence(build, behaviour);
  const gone = missingIn(build, behaviour);
  if (gone !== null)
    return {
      behaviour,
      looked,
      found: {
        about: behaviour.id,
        sentence: `it names ${gone}, which is not there any more.`,
        outcome: 'cannot tell',
      },
    };
  const cut = moments.whole ? {} : { outcome: 'cannot tell' as const };
  if (behaviour.says === 'possible') {
    const there = speaks.some((one) => subject.ambientsOf(one.moment).some((ambient) => so(one, ambient)));
    const sentence = `in none of the states that can be reached: ${wanted}.`;
    return { behaviour, looked, found: there ? null : { about: behaviour.id, sentence, ...cut } };
  }
  const wrong = behaviour.says === 'never';
  for (const one of speaks)
    for (const ambient of subject.ambientsOf(one.moment)) {
      if (so(one, ambient) !== wrong || (late >= 0 && one.moment.holds[late] === false)) continue;
      const sentence = wrong
        ? `it comes about: ${wanted}.`
        : `not so: ${wanted}${lightsIt(subject, behaviour, one.at, ambient)}.`;
      return { behaviour, looked, found: { about: behaviour.id, sentence, moment: one.moment, ambient } };
    }
  return {
    behaviour,
    looked,
    found: openQuestion(subject, behaviour),
  };
}

/** What keeps a behaviour that was nowhere found wanting from holding; null when nothing does. */
function openQuestion(subject: ProofSubject, behaviour: Behaviour): Found | null {
  const sentence = !subject.moments.whole
    ? 'not every state could be looked at.'
    : subject.isUnfollowed(behaviour)
      ? 'so many timers can run at once that not every order of their ends could be followed.'
      : null;
  return sentence === null ? null : { about: behaviour.id, sentence, outcome: 'cannot tell' };
}

/** What a behaviour names that the build does not have; null when all is there. */
function missingIn(build: Build, { subject, when, unless, patternId }: Behaviour): string | null {
  const { functions, loads, sets } = build.controls;
  const isFunction = (id: string): boolean => functions.some((fn) => fn.id === id);
  for (const condition of [when, unless])
    for (const leaf of condition === null ? [] : leavesOf(condition))
      if (leaf.kind === 'on' && !isFunction(leaf.functionId)) return `a function '${leaf.functionId}'`;
      else if (leaf.kind === 'is' && !inputsOf(build).some(({ id }) => id === leaf.input))
        return `an input '${leaf.input}'`;
  if (patternId !== null && bookOf(build).find(patternId) === undefined) return `a pattern '${patternId}'`;
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
