import { describe, expect, test } from 'vitest';
import { InputError } from '../words/errors.ts';
import { demoPack } from '../../test/reference/demo.ts';
import { readRulePack } from './document.ts';
import {
  blankPack,
  differences,
  movedRule,
  ownCopy,
  withHead,
  withNewRule,
  withRuleField,
  withRules,
} from './packEdits.ts';
import { pieceText, type Field } from './piece.ts';
import { kindOf, RULE_KINDS, ruleSentence } from './registry.ts';

const blank = blankPack('mine', 'Mine');

describe.each(RULE_KINDS.map(({ kind }) => kind))('a new rule: %s', (kind) => {
  const pack = withNewRule(blank, kind);
  const [rule] = pack.rules;

  test('can be read, and says what it says', () => {
    expect(readRulePack(JSON.parse(JSON.stringify(pack)))).toEqual(pack);
    expect(rule === undefined ? '' : ruleSentence(rule)).toMatch(/^[A-Z].*\.$/);
  });

  test('every field in its sentence is a field of the rule, and each answer it offers is taken and read there', () => {
    if (rule === undefined) throw new Error('no rule');
    for (const piece of kindOf(rule).sentenceParts(rule)) {
      if (typeof piece === 'string') continue;
      const answers = answersOf(piece);
      for (const answer of answers) {
        // Between two figures the least may not exceed the most.
        if (piece.field === 'minPerMinute' && answer === 1e9) continue;
        if (piece.field === 'maxPerMinute' && answer === 0.01) continue;
        if (piece.field === 'leastM' && kind === 'height' && answer === 8) continue;
        if (piece.field === 'mostM' && answer === 0) continue;
        const changed = withRuleField(pack, rule.id, piece.field, answer).rules[0] ?? rule;
        const there = kindOf(changed)
          .sentenceParts(changed)
          .find((p) => typeof p !== 'string' && p.field === piece.field);
        const read =
          there === undefined || typeof there === 'string'
            ? null
            : there.type === 'choices' || there.type === 'texts'
              ? there.values
              : there.value;
        expect(read).toEqual(answer);
        expect(there === undefined ? 'undefined' : pieceText(there)).not.toMatch(/undefined/);
      }
    }
  });
});

/** The ends of what a field takes, or everything. */
function answersOf(field: Field): readonly unknown[] {
  switch (field.type) {
    case 'number':
      return [field.min, field.max];
    case 'choice':
      return field.options.map(({ value }) => value);
    case 'choices':
      return [
        ...field.options.map(({ value }) => [value]),
        field.options.slice(0, 16).map(({ value }) => value),
      ];
    case 'texts':
      return [['One'], ['One', 'Another']];
  }
}

test('a value that the kind refuses is refused by its place, and nothing is changed', () => {
  const pack = withNewRule(blank, 'flash-rate');
  expect(() => withRuleField(pack, 'flash-rate-1', 'minPerMinute', 500)).toThrow(
    new InputError('flash-rate-1', 'minPerMinute must not exceed maxPerMinute'),
  );
  expect(() => withRuleField(pack, 'flash-rate-1', 'clause', '')).toThrow('must not be empty');
});

test('rules of a kind are told apart, and move among the others', () => {
  const two = withNewRule(withNewRule(blank, 'pulses'), 'pulses');
  expect(two.rules.map(({ id }) => id)).toEqual(['pulses-1', 'pulses-2']);
  const gap = withRules(
    two,
    two.rules.filter(({ id }) => id === 'pulses-2'),
  );
  expect(withNewRule(gap, 'pulses').rules.map(({ id }) => id)).toEqual(['pulses-2', 'pulses-1']);
  expect(movedRule(two, 'pulses-2', -1).rules.map(({ id }) => id)).toEqual(['pulses-2', 'pulses-1']);
  expect(movedRule(two, 'pulses-2', 1)).toBe(two);
});

describe('who checked a pack', () => {
  const checked = { ...demoPack(), checkedBy: 'The registrar', checkedOn: '2026-05-04' };

  test('is forgotten when its rules, source, edition or height change, or it is copied', () => {
    const [first] = checked.rules;
    for (const changed of [
      withRuleField(checked, first?.id ?? '', 'severity', 'notes'),
      withNewRule(checked, 'pulses'),
      withHead(checked, { edition: 'Another' }),
      withHead(checked, { source: 'Another' }),
      withHead(checked, { upperAboveM: 2 }),
      ownCopy(checked, 'copy'),
    ])
      expect([changed.checkedBy, changed.checkedOn]).toEqual(['', '']);
  });

  test('stays when it is only named, noted or placed elsewhere', () => {
    expect(withHead(checked, { name: 'New name', notes: 'n', jurisdictions: ['Here'] }).checkedBy).toBe(
      'The registrar',
    );
  });

  test('a copy is one’s own, and never an example', () => {
    expect(ownCopy(checked, 'copy')).toMatchObject({ id: 'copy', status: 'own', rules: checked.rules });
  });

  test('a date that is none is refused', () => {
    expect(() => withHead(checked, { checkedOn: '4 May' })).toThrow('checkedOn');
  });
});

test('editions are told apart rule by rule: new, gone, changed in words, in gravity or in clause', () => {
  const old = withNewRule(withNewRule(withNewRule(blank, 'pulses'), 'dark-gap'), 'side-dark');
  const now = withNewRule(
    withRuleField(
      withRules(
        old,
        old.rules.filter(({ id }) => id !== 'dark-gap-1'),
      ),
      'pulses-1',
      'most',
      2,
    ),
    'peak-current',
  );
  expect(differences(old, now)).toEqual([
    {
      ruleId: 'pulses-1',
      before: 'At most 4 pulses in one flash, in stage 1, 2, 3. (Clause to be filled in, warns)',
      after: 'At most 2 pulses in one flash, in stage 1, 2, 3. (Clause to be filled in, warns)',
    },
    {
      ruleId: 'dark-gap-1',
      before:
        'Never below 100 cd from warning lamps for longer than 500 ms to the rear, everything closed, in stage 1, 2, 3. (Clause to be filled in, warns)',
      after: null,
    },
    {
      ruleId: 'peak-current-1',
      before: null,
      after: 'At most 60 A at the peak, in stage 1, 2, 3. (Clause to be filled in, warns)',
    },
  ]);
  expect(differences(old, withRuleField(old, 'pulses-1', 'severity', 'blocks'))).toHaveLength(1);
  expect(differences(old, old)).toEqual([]);
});

test('a rule about the lamps as they stand takes no condition; a file that gives it one is refused with its place', () => {
  const pack = withNewRule(blank, 'height');
  const [rule] = pack.rules;
  const asked = { ...pack, rules: [{ ...rule, when: { kind: 'is', input: 'gear', values: ['drive'] } }] };
  expect(() => readRulePack(asked)).toThrow(
    /rules\[0\]\.when: a rule of kind 'height' applies in every state and takes no condition/,
  );
});

test('a condition that lies too deep is refused with its place', () => {
  const [rule] = withNewRule(blank, 'pulses').rules;
  const deep = Array.from({ length: 8 }).reduce<unknown>((of) => ({ kind: 'not', of }), {
    kind: 'is',
    input: 'gear',
    values: ['drive'],
  });
  expect(() => readRulePack({ ...blank, rules: [{ ...rule, when: deep }] })).toThrow(
    /rules\[0\]\.when: must be nested at most 6 deep/,
  );
});
