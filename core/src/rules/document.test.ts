import { describe, expect, test } from 'vitest';
import { SCHEMA_VERSION } from '../design/schema.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { packOf, common } from '../../test/reference/rules.ts';
import { readBuild, readRulePack } from './document.ts';
import { MOST_CONDITION_PARTS, MOST_OBJECTS } from './documentSize.ts';

describe('what is no build is told by what is wrong with it', () => {
  const FORMAT = "format: this is not a Flarik build: 'format' must be 'flarik-build'";
  test.each([
    ['nothing', null, FORMAT],
    ['another format', { format: 'else', schemaVersion: 1 }, FORMAT],
    ['no format', { schemaVersion: 1 }, FORMAT],
    ['no version', { format: 'flarik-build' }, 'schemaVersion: must be a whole number from 1'],
    [
      'version 0',
      { format: 'flarik-build', schemaVersion: 0 },
      'schemaVersion: must be a whole number from 1',
    ],
    [
      'half a version',
      { format: 'flarik-build', schemaVersion: 1.5 },
      'schemaVersion: must be a whole number from 1',
    ],
    [
      'a version to come',
      { format: 'flarik-build', schemaVersion: SCHEMA_VERSION + 1 },
      `schemaVersion: the build was written by a newer Flarik (schema ${SCHEMA_VERSION + 1}); this one reads up to ${SCHEMA_VERSION}`,
    ],
  ])('%s', (_, data, why) =>
    expect(() => readBuild(data)).toThrow(new RegExp(`^${why.replace(/[()]/g, '\\$&')}$`)),
  );

  test('a build of this version reads back equal', () => {
    const build = demoBuild('ferry-slip');
    expect(readBuild(JSON.parse(JSON.stringify(build)))).toEqual(build);
  });

  test('a rule or a wish of no known kind is named with its place', () => {
    const build = demoBuild('ferry-slip');
    const [pack] = build.rulePacks;
    const [rule] = pack?.rules ?? [];
    expect(() =>
      readBuild({ ...build, rulePacks: [{ ...pack, rules: [rule, { ...rule, kind: 'luck' }] }] }),
    ).toThrow(/^rulePacks\[0\]\.rules\[1\]\.kind: unknown kind of rule 'luck'/);
    const constraints = [{ kind: 'luck', id: 'w', severity: 'warns' }];
    expect(() => readBuild({ ...build, brief: { ...build.brief, constraints } })).toThrow(
      /brief\.constraints\[0\]\.kind: unknown kind of requirement 'luck'; known are lowest-lamp, no-holes, only-colours, never-colours, unseen-when-off, spend-at-most, keep-head, leave-factory-lamp, spare-outputs, stay-visible, behaviour/,
    );
    const packs = [
      { ...pack, id: 'other', rules: [] },
      { ...pack, rules: [{ ...rule, kind: 'luck' }] },
    ];
    expect(() => readBuild({ ...build, rulePacks: packs })).toThrow(/^rulePacks\[1\]\.rules\[0\]\.kind: /);
  });

  test('an unknown kind is named before what else is wrong, a kind that is no word with the rest', () => {
    const build = demoBuild('ferry-slip');
    const luck = { rules: [{ kind: 'luck' }] };
    expect(() => readBuild({ ...build, id: 7, rulePacks: [luck] })).toThrow(
      /^rulePacks\[0\]\.rules\[0\]\.kind: unknown kind of rule 'luck'/,
    );
    expect(() => readBuild({ ...build, rulePacks: [{ rules: [{ kind: 7 }] }] })).toThrow(/^rulePacks\[0\]\./);
    expect(() => readBuild({ ...build, rulePacks: [{ rules: [7] }] })).toThrow(/^rulePacks\[0\]\./);
    expect(() => readBuild({ ...build, rulePacks: 7 })).toThrow(/^rulePacks: /);
    expect(() => readBuild({ ...build, brief: { ...build.brief, constraints: 7 } })).toThrow(
      /^brief\.constraints: /,
    );
  });

  test('what a kind asks is read with its place, in a build and in a pack', () => {
    const build = demoBuild('ferry-slip');
    const pack = packOf({ ...common, kind: 'side-dark', maxMs: -1 });
    expect(() => readBuild({ ...build, rulePacks: [pack] })).toThrow(/^rulePacks\[0\]\.rules\[0\]\.maxMs: /);
    expect(() => readRulePack(pack)).toThrow(/^rules\[0\]\.maxMs: /);
    const constraints = [{ kind: 'lowest-lamp', id: 'w', severity: 'warns', heightM: 'high' }];
    expect(() => readBuild({ ...build, brief: { ...build.brief, constraints } })).toThrow(
      /^brief\.constraints\[0\]\.heightM: /,
    );
  });

  test('a pack reads back equal; what is none is told', () => {
    const pack = packOf({ ...common, kind: 'side-dark', maxMs: 500 });
    expect(readRulePack(JSON.parse(JSON.stringify(pack)))).toEqual(pack);
    const none = /^format: this is not a Flarik rule pack: 'format' must be 'flarik-rule-pack'$/;
    for (const data of [null, {}, { ...pack, format: 'else' }])
      expect(() => readRulePack(data)).toThrow(none);
    expect(() => readRulePack({ ...pack, rules: [{ ...pack.rules[0], kind: 'luck' }] })).toThrow(
      /^rules\[0\]\.kind: unknown kind of rule 'luck'/,
    );
  });
});

describe('all of a build together is bounded, before its schema is tried', () => {
  const leaf = { kind: 'on', functionId: 'fA' };
  const many = (count: number): unknown[] => Array.from({ length: count }, () => leaf);
  const withParts = (parts: number): unknown => ({
    ...demoBuild('ferry-slip'),
    controls: { triggers: many(parts) },
  });
  const refusal = (data: unknown): string => {
    try {
      readBuild(data);
      return '';
    } catch (error) {
      return error instanceof Error ? error.message : String(error);
    }
  };

  test('parts of conditions', () => {
    expect(refusal(withParts(MOST_CONDITION_PARTS + 1))).toBe(
      'controls: all conditions together must contain at most 4,000 parts',
    );
    // Fewer are refused for what they are, not for how many.
    expect(refusal(withParts(MOST_CONDITION_PARTS - 100))).not.toContain('at most 4,000');
  });

  test('objects and lists, however deep', () => {
    let deep: unknown = {};
    for (let i = 0; i < MOST_OBJECTS; i++) deep = [deep];
    expect(refusal({ format: 'flarik-build', schemaVersion: SCHEMA_VERSION, deep })).toBe(
      'the build must contain at most 24,000 objects and lists',
    );
  });
});
