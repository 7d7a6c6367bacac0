import { z } from 'zod';
import { REQUIREMENT_HEAD } from '../../../design/brief.ts';
import { Condition } from '../../../design/condition.ts';
import { Target } from '../../../design/functions.ts';
import { Wording } from '../../../controls/sentence.ts';
import type { Build } from '../../../design/schema.ts';
import { Colour } from '../../../words/colour.ts';
import { Face } from '../../../words/face.ts';
import { Id } from '../../../words/names.ts';
import { numberBetween } from '../../../words/numbers.ts';
import { bookOf } from '../../../timing/book.ts';
import { textOf } from '../../fields.ts';
import { defineRequirement } from '../define.ts';

/** What a wish about behaviour speaks of: a function, an output that is no lamp, or lamps. */
const Subject = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('function'), functionId: Id }),
    z.strictObject({ kind: z.literal('load'), loadId: Id }),
    z.strictObject({
      kind: z.literal('lamps'),
      /** Null speaks of all lamps. */
      target: Target.nullable(),
      /** In these colours; none names any. */
      colours: z.array(Colour).max(8),
      /** Modules that light any of these sides with everything shut; none names any. */
      faces: z.array(Face).max(4).default([]),
    }),
  ],
  { error: "must be of kind 'function', 'load' or 'lamps'" },
);

/**
 * What it is to be: functions and outputs are on or off; lamps lit, dark, flashing or steady, in one pattern, at no more
 * than a level, or showing two of the colours from one head.
 */
export const BEHAVIOURS = [
  'on',
  'off',
  'lit',
  'dark',
  'flashing',
  'steady',
  'in pattern',
  'at most',
  'in two colours',
] as const;

/** No wish gives more time, s. */
export const MOST_WITHIN_S = 3600;

export const BehaviourRequirement = z
  .strictObject({
    kind: z.literal('behaviour'),
    ...REQUIREMENT_HEAD,
    says: z.enum(['whenever', 'never', 'possible'], { error: 'must be whenever, never or possible' }),
    when: Condition,
    /** It does not speak where this holds; null makes no exception. */
    unless: Condition.nullable(),
    subject: Subject,
    is: z.enum(BEHAVIOURS, { error: `must be one of ${BEHAVIOURS.join(', ')}` }),
    /** So many modules at least, for lamps that are to be lit, flashing or steady. */
    atLeast: z.int().min(1).max(400),
    /** The pattern they are to be in; null where that is not asked. */
    patternId: Id.nullable().default(null),
    /** The share of their full light that they are to keep to; null where that is not asked. */
    mostLevel: numberBetween(0.01, 1).nullable().default(null),
    /** It may come about so late, with no other event than timers that end, s; null wants it at once. */
    withinS: z.number().positive().max(MOST_WITHIN_S).nullable().default(null),
  })
  .refine((w) => (w.subject.kind === 'lamps') === (w.is !== 'on' && w.is !== 'off'), {
    path: ['is'],
    error: 'functions and outputs can only be on or off; lamps take the other states',
  })
  .refine((w) => (w.patternId !== null) === (w.is === 'in pattern'), {
    path: ['patternId'],
    error: 'must be the pattern that lamps are to be in, and null where they are not to be in one',
  })
  .refine((w) => (w.mostLevel !== null) === (w.is === 'at most'), {
    path: ['mostLevel'],
    error: 'must be the level that lamps are to keep to, and null where they are not to keep to one',
  })
  .refine((w) => w.says === 'whenever' || w.withinS === null, {
    path: ['withinS'],
    error: 'must be null for requirements of kind never or possible',
  });
export type BehaviourRequirement = z.infer<typeof BehaviourRequirement>;

/** "White of All ahead is dark", "Siren is off", "at least 2 modules of amber of all lamps to the rear are flashing", "Siren is off within 5 s". */
export function subjectSentence(
  build: Build,
  { withinS, ...said }: IssueDraft & Pick<BehaviourRequirement, 'withinS'>,
): string {
  return `${bareSentence(build, said)}${withinS === null ? '' : ` within ${withinS} s`}`;
}

/** What something is to be. */
export type IssueDraft = Pick<BehaviourRequirement, 'subject' | 'is' | 'atLeast' | 'patternId' | 'mostLevel'>;

function bareSentence(build: Build, { subject, is, atLeast, patternId, mostLevel }: IssueDraft): string {
  switch (subject.kind) {
    case 'function':
      return `${new Wording(build).functionName(subject.functionId)} is ${is}`;
    case 'load':
      return `${build.controls.loads.find((l) => l.id === subject.loadId)?.name ?? 'deleted output'} is ${is}`;
    case 'lamps': {
      const { target, colours } = subject;
      const toward = subject.faces.length === 0 ? '' : ` to the ${textOf(subject.faces)}`;
      const of = (all: string): string => {
        const who = target === null ? all : new Wording(build).target(target);
        return `${colours.length === 0 ? who : `${textOf(colours)} of ${who}`}${toward}`;
      };
      const what = of('all lamps');
      const plural = target === null && colours.length === 0;
      const are = plural ? 'are' : 'is';
      switch (is) {
        case 'at most':
          return `${what} ${are} at most at ${Math.round(100 * (mostLevel ?? 1))} % of ${plural ? 'their' : 'its'} light`;
        case 'in two colours':
          return `${atLeast === 1 ? 'a head shows' : `at least ${atLeast} heads show`} two colours of ${what}`;
        case 'in pattern': {
          const name = bookOf(build).find(patternId ?? '')?.name ?? 'deleted pattern';
          const many = atLeast === 1 ? '' : `, at least ${atLeast} modules`;
          return `${what}: all lit lamps use pattern “${name}”${many}`;
        }
        case 'dark':
          return `${what} ${are} dark`;
        default:
          return atLeast === 1
            ? `${of('at least one lamp')} is ${is}`
            : `at least ${atLeast} modules of ${what} are ${is}`;
      }
    }
  }
}

const SAYS = { whenever: 'Whenever', never: 'Never, when', possible: 'Possible: when' } as const;

/** What must, must never or can be so while something holds: proved over every state that the controls can reach. */
export const behaviour = defineRequirement({
  kind: 'behaviour',
  name: 'Control behaviour',
  schema: BehaviourRequirement,
  first: (build, id): BehaviourRequirement | null => {
    const [fn] = build.controls.functions;
    return fn === undefined
      ? null
      : {
          kind: 'behaviour',
          id,
          severity: 'warns',
          says: 'never',
          when: { kind: 'is', input: 'ignition', values: ['off'] },
          unless: null,
          subject: { kind: 'lamps', target: null, colours: [], faces: [] },
          is: 'lit',
          atLeast: 1,
          patternId: null,
          mostLevel: null,
          withinS: null,
        };
  },
  sentence: (build, wish) => {
    const wording = new Wording(build);
    const except = wish.unless === null ? '' : `, unless ${wording.condition(wish.unless)}`;
    return `${SAYS[wish.says]} ${wording.condition(wish.when)}: ${subjectSentence(build, wish)}${except}`;
  },
  check: { proved: true },
});
