import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { defineRule } from '../define.ts';
import { colours, coloursField, faces, facesField, Lamps, lampsField } from '../fields.ts';
import { figure, oneOf } from '../piece.ts';

/** What lamps of some colours to some sides must, must never or can do, over every state that the controls can reach. */
export const behaviourRule = defineRule({
  kind: 'behaviour',
  title: 'Control behaviour',
  blank: { says: 'whenever', colours: ['amber'], faces: ['rear'], is: 'lit', moduleCount: 1 },
  home: 'controls',
  sees: 'programme',
  asksWhen: true,
  schema: z.strictObject({
    kind: z.literal('behaviour'),
    ...RULE_HEAD,
    says: z.enum(['whenever', 'never', 'possible'], { error: 'must be whenever, never or possible' }),
    colours,
    /** Modules that light any of these with everything shut. */
    faces,
    is: z.enum(['lit', 'flashing', 'steady', 'dark'], { error: 'must be lit, flashing, steady or dark' }),
    /** So many modules at least, where they are not to be dark. */
    moduleCount: z.int().min(1).max(400),
    lamps: Lamps.default('warning'),
  }),
  sentenceParts: (rule) => [
    oneOf('says', rule.says, 'Whenever, never or possible', [
      { value: 'whenever', text: 'Always' },
      { value: 'never', text: 'Never' },
      { value: 'possible', text: 'In some state' },
    ]),
    ...(rule.is === 'dark'
      ? [' all']
      : [
          ' at least ',
          figure('moduleCount', rule.moduleCount, 'Modules', { min: 1, max: 400, whole: true }),
        ]),
    rule.is !== 'dark' && rule.moduleCount === 1 ? ' module of ' : ' modules of ',
    lampsField(rule.lamps),
    ' that show ',
    coloursField(rule.colours),
    ' to the ',
    facesField(rule.faces),
    rule.is !== 'dark' && rule.moduleCount === 1 ? ' is ' : ' are ',
    oneOf('is', rule.is, 'Required state', [
      { value: 'lit', text: 'lit' },
      { value: 'flashing', text: 'flashing' },
      { value: 'steady', text: 'steady' },
      { value: 'dark', text: 'dark' },
    ]),
  ],
});
