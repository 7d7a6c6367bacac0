import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { common } from '../../test/reference/rules.ts';
import type { RuleData } from '../design/rulePack.ts';
import type { Field } from './piece.ts';
import { addFunction } from '../design/controlEdits.ts';
import type { Condition } from '../design/condition.ts';
import { newFunction } from '../design/functions.ts';
import { REGION } from '../design/inputs.ts';
import type { Build } from '../design/schema.ts';
import { conditionOf, RULE_KINDS, ruleSentence } from './registry.ts';

const build = demoBuild('ks-12');

test('a rule as a sentence', () => {
  const [pack] = build.rulePacks;
  const sentence = (id: string) => pack?.rules.filter((r) => r.id === id).map(ruleSentence)[0];
  expect(sentence('flash-rate')).toBe('Between 60 and 120 flashes a minute, in stage 1, 2, 3.');
  expect(sentence('white-rear')).toBe(
    'No white above 40 cd (combined) to the rear from warning lamps except steady reversing lamps, any door position, in stage 1, 2, 3.',
  );
  expect(sentence('white-rear-at-speed')).toMatch(
    /from lamps of any kind .*, in stage 1, 2, 3, when speed is fast and gear is drive\.$/,
  );
  expect(sentence('floor-rear-open')).toBe(
    'At least 15000 cd·s/min from warning lamps at every bearing to the rear by night, with everything closed, the hatch open, in stage 1, 2, 3.',
  );
  const [rate] = pack?.rules.filter((r) => r.id === 'flash-rate') ?? [];
  expect(rate && ruleSentence({ ...rate, services: ['fire', 'ems'] })).toBe(
    'Between 60 and 120 flashes a minute, in stage 1, 2, 3 (Fire, EMS).',
  );
});

/** A kind, where it is put right and what it depends on, what one more channel does to it; its sentence with its fields. */
const KINDS: readonly (readonly [kind: string, is: string, says: string])[] = [
  [
    'colour',
    'Colours to a side, layout, light, one more hurts',
    '[Only these or none of these] [Colours] [Steady or flashing] above [Counts above, cd] cd [Combined or single lamp] to the [Sides] from [Lamps that count], any door position',
  ],
  [
    'flash-rate',
    'Flash rate, timing, driven, one more hurts',
    'Between [Fewest flashes a minute] and [Most flashes a minute] flashes a minute',
  ],
  [
    'power-floor',
    'Least optical power, visibility, light, one more helps',
    'At least [Least optical power, cd·s/min] cd·s/min from [Upper or lower][Lamps that count] at every bearing to the [Sides][By day or night], with [Door positions]',
  ],
  [
    'dark-gap',
    'Longest darkness, timing, light, one more helps',
    'Never below [Dark below, cd] cd from [Lamps that count] for longer than [Longest darkness, ms] ms to the [Sides], everything closed',
  ],
  [
    'white-rear',
    'White to the rear, layout, light, one more hurts',
    'No white above [Counts above, cd] cd [Combined or single lamp] to the rear from [Lamps that count] except steady reversing lamps, any door position',
  ],
  [
    'sync-partners',
    'Mirrored pairs synchronised, timing, driven',
    'Mirrored pairs are synchronised: one sync group, equal cycles',
  ],
  [
    'pulses',
    'Pulses in a flash, timing, driven, one more hurts',
    'At most [Most pulses] pulses in one flash',
  ],
  [
    'side-dark',
    'A side dark together, timing, driven, one more helps',
    'The lamps of one side are never dark together for longer than [Longest darkness, ms] ms',
  ],
  [
    'flashes-a-second',
    'Flashes in any second, timing, light, one more hurts',
    'At most [Most flashes in a second] flashes in any second to the [Sides], from [Lamps that count], modules above [Counts above, cd] cd, everything closed',
  ],
  [
    'power-ceiling',
    'Most optical power, visibility, light, one more hurts',
    'At most [Most optical power, cd·s/min] cd·s/min from [Lamps that count] at any bearing to the [Sides][By day or night], everything closed',
  ],
  [
    'rhythms',
    'Rhythms at once, timing, light, one more hurts',
    'At most [Most rhythms] different rhythms seen from one direction, from [Lamps that count], modules above [Counts above, cd] cd, everything closed',
  ],
  ['peak-current', 'Peak current, timing, driven, one more hurts', 'At most [Most current, A] A at the peak'],
  [
    'count',
    'Number of lamps, layout, light, one more helps',
    '[At least or at most] [Number of lamps] [Upper or lower][Lamps that count] show [Colours] above [Counts above, cd] cd to the [Sides], each, everything closed',
  ],
  [
    'height',
    'Height of lamps, layout, document',
    'Warning lamps that can show [Colours] to the [Sides] have their optical centre between [Lowest centre, m] and [Highest centre, m] m above ground, everything closed',
  ],
  [
    'marking',
    'Approvals of lamps, layout, document',
    'Every warning lamp is approved as [Accepted approvals, separated by semicolons]',
  ],
  [
    'permitted-patterns',
    'Patterns allowed, timing, driven, one more hurts',
    'Warning lamps flash no other patterns than [Patterns allowed]',
  ],
  [
    'signal-untouched',
    'Maker’s lamps left alone, layout, document',
    'No change to factory lamps or their wiring for [Factory lamps]',
  ],
  [
    'spacing-to-signal',
    'Distance from factory lamps, layout, document',
    'Lenses of warning lamps are at least [Least distance, m] m from factory lamps for [Factory lamps]',
  ],
  [
    'steady-required',
    'Steady light, timing, light, one more helps',
    'Steady [Colour] light of at least [Least intensity, cd] cd combined from [Lamps that count] to the [Side], within [To either side of straight ahead, degrees]° of straight ahead, everything closed',
  ],
  [
    'symmetry',
    'Left and right alike, layout, document',
    'Each lamp off the centre line has a counterpart, within [May be off by, m] m, in matching colours',
  ],
  [
    'transmission',
    'Light lost in glass and covers, layout, document',
    'Glass, cover and lens pass at least [Least that passes, %] % of the light of each warning lamp along its aim, everything closed',
  ],
  [
    'behaviour',
    'Control behaviour, controls, programme',
    '[Whenever, never or possible] at least [Modules] module of [Lamps that count] that show [Colours] to the [Sides] is [Required state]',
  ],
  [
    'few-actions',
    'Actions to each function, controls, programme',
    'Stage 3 takes at most [Actions to stage 3] and everything else at most [Actions to everything else] actions of an operator, from all warning off with the ignition on',
  ],
  [
    'all-off',
    'Switching all warning off, controls, programme',
    'From every state an operator can switch all warning off, the key left on, in at most [Actions to all warning off] actions',
  ],
  [
    'standing-draw',
    'Draw at an open door, controls, programme',
    'What an open door or hatch switches on draws at most [Highest draw, W] W with the engine stopped, where no timer ends it',
  ],
  [
    'light-at-doors',
    'Light at open doors, controls, programme',
    'Warning light toward a side with an open door or hatch rises automatically to at most [Most growth, times] times what it was',
  ],
  [
    'stays-lit',
    'Sides that an open door darkens, layout, light, one more helps',
    'No open door or hatch leaves a side without warning light above [Light counts above, cd] cd that has it with everything closed',
  ],
  [
    'seen-in-time',
    'Sight distance, visibility, light, one more helps',
    'A driver at [Speed, km/h] km/h from [Bearing, degrees clockwise from straight ahead]°, eye at [Height of the eye, m] m, gradient [Gradient, %, uphill positive] %, in [Weather] [Light around], detects [Part detected] at [Multiple of the detection threshold] times the threshold, with [Observer], at least [Margin, s] s before braking is required',
  ],
  [
    'work-light',
    'Work area illuminance, visibility, document',
    'With all work lights on, the ground at the [Ground], 3 m wide, has an average of at least [Mean, lx] lx and a minimum of [Least, lx] lx, everything closed',
  ],
  [
    'glare',
    'Glare to traffic, visibility, light, one more hurts',
    'Threshold increment for the [Driver] is at most [Threshold increment, %] % [Light around] at 10 to 200 m, peak',
  ],
  [
    'veil',
    'Fog backscatter, visibility, light, one more hurts',
    'In fog with a visibility of [Meteorological optical range, m] m, [Light around], backscatter to the driver is at most [Share of fog luminance, %] % of fog luminance',
  ],
  [
    'eye',
    'Light in the eyes of the crew, visibility, light, one more hurts',
    'At most [Light at the eye, lx] lx at the eye of the [Viewpoint][By day or night], peak',
  ],
  [
    'unnoticed',
    'Unnoticed with light inside, visibility, document',
    'At night, with all interior lights on and everything closed, from a height of [Height of the eye, m] m the detection distance of interior light is at most [Farthest, m] m',
  ],
];

test('every kind of rule, word for word', () =>
  expect(
    RULE_KINDS.map((kind) => {
      const rule = kind.begin(common);
      const more = kind.monotonicity(rule);
      return [
        kind.kind,
        `${kind.title}, ${kind.home}, ${kind.sees}${more === null ? '' : `, one more ${more}`}`,
        kind
          .sentenceParts(rule)
          .map((piece) => (typeof piece === 'string' ? piece : `[${piece.label}]`))
          .join(''),
      ];
    }),
  ).toEqual(KINDS));

test('of several modules, and of all of them, a rule about the controls is in good words', () => {
  const says = (more: object): string[] =>
    RULE_KINDS.filter(({ kind }) => kind === 'behaviour').map((kind) =>
      ruleSentence({ ...kind.begin(common), ...more }),
    );
  expect([{}, { moduleCount: 2 }, { moduleCount: 1, is: 'dark' }].flatMap(says)).toEqual([
    'Always at least 1 module of warning lamps that show amber to the rear is lit.',
    'Always at least 2 modules of warning lamps that show amber to the rear are lit.',
    'Always all modules of warning lamps that show amber to the rear are dark.',
  ]);
});

describe('what a field lets one put in is what a file may hold', () => {
  const cases = RULE_KINDS.flatMap((kind) => {
    const rule = kind.begin(common);
    return kind
      .sentenceParts(rule)
      .flatMap((field) => (typeof field === 'string' ? [] : [{ kind, rule, field }]));
  });
  /** A pair is between its bounds only together with its partner: both are put in. */
  const PAIRS: Readonly<Record<string, readonly string[]>> = {
    'flash-rate': ['minPerMinute', 'maxPerMinute'],
    height: ['leastM', 'mostM'],
  };
  test.each(cases.map((one) => [`${one.kind.kind}: ${one.field.field}`, one] as const))(
    '%s',
    (_, { kind, rule, field }) => {
      const together = PAIRS[kind.kind]?.includes(field.field) === true ? PAIRS[kind.kind] : [field.field];
      const withValue = (value: unknown): RuleData => ({
        ...rule,
        ...Object.fromEntries((together ?? []).map((name) => [name, value])),
      });
      const reads = (value: unknown): boolean => kind.schema.safeParse(withValue(value)).success;
      expect(allowed(field).filter((value) => !reads(value))).toEqual([]);
      expect(refused(field).filter(reads)).toEqual([]);
      const said = (value: unknown): unknown => {
        const piece = kind
          .sentenceParts(withValue(value))
          .find((one) => typeof one !== 'string' && one.field === field.field);
        return piece === undefined || typeof piece === 'string' ? null : valueOf(piece);
      };
      expect(allowed(field).map(said)).toEqual(allowed(field));
    },
  );

  const valueOf = (field: Field): unknown =>
    field.type === 'choices' || field.type === 'texts' ? field.values : field.value;

  function allowed(field: Field): unknown[] {
    switch (field.type) {
      case 'number':
        return [field.min, field.max, ...(field.whole ? [] : [(field.min + field.max) / 2])];
      case 'choice':
        return field.options.map(({ value }) => value);
      case 'choices': {
        const all = field.options.map(({ value }) => value);
        return [all, ...all.map((value) => [value])];
      }
      case 'texts':
        return [['one'], ['one', 'another']];
    }
  }

  function refused(field: Field): unknown[] {
    switch (field.type) {
      case 'number':
        // Where nothing narrower is said a figure is any above 0; a sentence starts at a hundredth.
        return [
          ...(field.min === 0.01 ? [0, -1] : [field.min - 1e-6]),
          field.max + Math.abs(field.max) * 1e-6,
          ...(field.whole ? [field.min + 0.5] : []),
          'one',
        ];
      case 'choice':
        return ['luck', '', []];
      case 'choices':
        return [
          ['luck'],
          [field.options[0]?.value, field.options[0]?.value],
          ...(field.atLeast > 0 ? [[]] : []),
        ];
      case 'texts':
        return [[], [''], 'one'];
    }
  }
});

describe('where the controls ask for the region', () => {
  const inRegion = (values: string[]): Condition => ({ kind: 'is', input: REGION, values });
  const away: Build = {
    ...addFunction(
      build,
      newFunction(
        'there',
        'There',
        'light',
        { way: 'while', condition: inRegion(['Away']), afterMs: 0, staysMs: 0 },
        [],
      ),
    ),
    brief: { ...build.brief, jurisdictions: ['Here', 'Away'] },
  };
  const [pack] = build.rulePacks;
  const [rule] = pack?.rules ?? [];
  if (pack === undefined || rule === undefined) throw new Error('the car has no rule');
  const here = { ...pack, jurisdictions: ['Here'] };
  const asked: Condition = { kind: 'is', input: 'brake', values: ['down'] };

  test('a pack of one place speaks there alone, besides what its rule asks', () => {
    expect(conditionOf(away, here, { ...rule, when: null })).toEqual(inRegion(['Here']));
    expect(conditionOf(away, here, { ...rule, when: asked })).toEqual({
      kind: 'all',
      of: [inRegion(['Here']), asked],
    });
  });
  test('one that holds everywhere asks nothing more, nor does any where nobody asks for the region', () => {
    expect(conditionOf(away, { ...pack, jurisdictions: [] }, { ...rule, when: asked })).toEqual(asked);
    expect(conditionOf({ ...build, brief: away.brief }, here, { ...rule, when: null })).toBeNull();
  });
});
