import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Build } from '../design/schema.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { finding } from '../../test/reference/finding.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { beforeRetrofit } from '../arrange/beforeRetrofit.ts';
import { causesOf, causesOfWork, countBySeverity, alsoAffectedText } from './causes.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import { about, findingId, type Subject } from './subject.ts';
import { stateWith } from '../state/state.ts';
import { figureText, findingsTable, findingsText } from './findingsTable.ts';

const ks12 = demoBuild('ks-12');
const { findings } = checkBuild(ks12);

describe('one cause is one', () => {
  const of = (...subjects: Subject[]): Finding => finding({ subjects });
  const face = (id: string): Subject => about('face', id);
  const keys = (...list: Finding[]): number => causesOf(emptyBuild(), list).length;

  test('a pack that forbids blue says it once, to whatever faces and in whatever stages', () => {
    const build: Build = {
      ...ks12,
      rulePacks: [
        packOf({
          kind: 'colour',
          ...common,
          stages: [1, 2, 3],
          verdict: 'never',
          colours: ['blue'],
          faces: ['front', 'right', 'rear', 'left'],
          light: 'any',
          aboveCd: 10,
        }),
      ],
    };
    const blue = checkBuild(build).findings.filter((f) => f.packId === 'test');
    expect(blue.length).toBeGreaterThan(3);
    const [cause, ...more] = causesOf(build, blue);
    expect(more).toEqual([]);
    // The most blue is told for all, the others in order.
    expect(cause?.first.sentence).toMatch(
      /^Blue to the front: 7,260 cd combined at 3° \(limit 10 cd\), from 7 lamps\. Not permitted: blue\./,
    );
    expect(cause?.findings).toEqual([cause?.first, ...blue.filter((f) => f !== cause?.first)]);
    expect(cause === undefined ? '' : alsoAffectedText(build, cause)).toMatch(
      new RegExp(`^also in Stage \\d.*; ${blue.length} findings$`),
    );
  });

  test('the same to both sides, by two packs, of a lamp and its mirror image', () => {
    expect(keys(of(face('left')), of(face('right')))).toBe(1);
    const [pair] = ks12.placements.filter((p) => p.partnerId !== null);
    const [a, b] = [pair?.id ?? '', pair?.partnerId ?? ''];
    expect(causesOf(ks12, [of(about('lamp', a)), of(about('lamp', b))])).toHaveLength(1);
  });

  test('another face, kind, colour or certainty is another', () => {
    expect(keys(of(face('rear')), of(face('front')))).toBe(2);
    expect(keys(finding({}), finding({ kind: 'dark-gap' }))).toBe(2);
    expect(keys(finding({}), finding({ outcome: 'cannot tell' }))).toBe(2);
    expect(keys(of(face('rear'), about('colour', 'blue')), of(face('rear'), about('colour', 'red')))).toBe(2);
  });

  test('several faults of one check are as many causes, whatever their ids', () => {
    const id = fc.oneof(
      fc.string({ minLength: 1, maxLength: 6 }),
      fc.constantFrom('a|b', 'a', 'b', 'a/b', 'a+b', 'a%7Cb', 'positions', 'rear', 'left'),
    );
    const kind = fc.constantFrom('lamp' as const, 'control' as const, 'function' as const, 'topic' as const);
    const subjects = fc.uniqueArray(fc.array(fc.record({ kind, id }), { minLength: 1, maxLength: 3 }), {
      selector: (list) => JSON.stringify([...new Set(list.map((one) => JSON.stringify(one)))].toSorted()),
    });
    fc.assert(
      fc.property(subjects, (lists) => {
        const all = lists.map((list) => of(...list));
        expect(causesOf(emptyBuild(), all)).toHaveLength(lists.length);
        const keys = lists.map((list) => list.map((one) => one.id).join('\n'));
        const ids = lists.map((list) => findingId({ packId: 'p', ruleId: 'r' }, 'always', list));
        expect(new Set(ids).size).toBe(new Set(keys).size);
      }),
    );
  });

  test('two switches with a like fault are two causes, and so are two signals that are masked', () => {
    const positions = (control: string) => of(about('control', control), about('topic', 'positions'));
    expect(keys(positions('rotary-1'), positions('rotary-2'))).toBe(2);
    const masked = (signal: string) =>
      of(about('function', signal), about('lamp', 'tail'), about('function', 'stage-2'));
    expect(keys(masked('brake'), masked('turn'))).toBe(2);
  });

  test('of the gravest the one that breaks its limit by most is told for all', () => {
    const by = (value: number, sense: 'at most' | 'at least', limit: number, more: Partial<Finding> = {}) =>
      finding({ figure: { value, unit: 'cd' }, limits: [{ value: limit, unit: 'cd', sense }], ...more });
    const firstOf = (...all: Finding[]): number | undefined => causesOf(ks12, all)[0]?.first.figure?.value;
    expect(firstOf(by(90, 'at least', 100), by(40, 'at least', 100), by(60, 'at least', 100))).toBe(40);
    expect(firstOf(by(110, 'at most', 100), by(70, 'at most', 20), by(130, 'at most', 100))).toBe(70);
    expect(firstOf(by(2, 'at most', 0), by(5, 'at most', 0))).toBe(5);
    expect(firstOf(by(-1, 'at least', 0), by(-3, 'at least', 0))).toBe(-3);
    expect(firstOf(by(90, 'at least', 100), by(40, 'at least', 100, { severity: 'notes' }))).toBe(90);
    expect(firstOf(by(80, 'at least', 100), by(80, 'at least', 100, { id: 'other|rule|a||day|rear' }))).toBe(
      80,
    );
    const on = (...ids: string[]): Partial<Finding> => ({
      evidence: { state: stateWith({ on: ids }), channels: [], sectors: [], steps: [] },
    });
    const inStage = by(90, 'at least', 100, on('stage-1'));
    expect(firstOf(inStage, by(40, 'at least', 100, on('stage-2', 'alley-left')))).toBe(90);
    expect(firstOf(inStage, by(40, 'at least', 100, on('stage-2')))).toBe(40);
    // As bad as each other: the first; what cannot be measured comes after what can.
    const words = finding({ figure: null, limits: [], id: 'pack|rule|stage-2||day|rear' });
    expect(causesOf(ks12, [words, by(90, 'at least', 100)])[0]?.first.figure?.value).toBe(90);
    expect(causesOf(ks12, [words, { ...words, id: 'q|rule|stage-2||day|rear' }])[0]?.first).toBe(words);
  });

  test('no finding is lost, none told twice, the gravest for each', () => {
    const causes = causesOf(ks12, findings);
    expect(causes.flatMap((c) => c.findings).toSorted(byId)).toEqual(findings.toSorted(byId));
    expect(causes.length).toBeLessThan(findings.length);
    const counted = countBySeverity(causes);
    expect(Object.values(counted).reduce((a, b) => a + b)).toBe(causes.length);
  });
});

const byId = (a: Finding, b: Finding): number => a.id.localeCompare(b.id);

describe('findings as a table and as text', () => {
  test('a row each, with figure, limit and state', () => {
    const [head, ...rows] = findingsTable(ks12, findings);
    expect(head).toHaveLength(9);
    expect(rows).toHaveLength(findings.length);
    expect(rows.find((row) => row[2]?.startsWith('White to the rear'))?.slice(3, 6)).toEqual([
      'Stage 3 · everything closed · day',
      '17,900 cd',
      'limit 40 cd',
    ]);
  });

  test('the figure beside a sentence is the figure in it, whichever way it breaks its limit', () => {
    const light = findings.filter(
      ({ figure }) => figure !== null && figure.unit.startsWith('cd') && figure.value >= 100,
    );
    expect(new Set(light.flatMap(({ limits }) => limits.map(({ sense }) => sense)))).toEqual(
      new Set(['at most', 'at least']),
    );
    for (const finding of light)
      expect(finding.sentence).toContain(figureText(ks12, finding).split(' ')[0] ?? 'a figure');
  });

  test('a line for each cause', () => {
    const lines = findingsText(ks12, causesOf(ks12, findings)).split('\n');
    expect(lines).toHaveLength(causesOf(ks12, findings).length);
    expect(lines[0]).toMatch(
      /^Blocking: Flashing blue to the rear: 6,640 cd combined at 177° \(limit 40 cd\), from 3 lamps\. Permitted: red, amber\. \[Stage 1 · everything closed · day\]/,
    );
  });
});

describe('before and after work', () => {
  const causes = causesOf(ks12, findings);
  const [first, second, ...others] = causes;

  test('what is in both stays, the others are gone or new', () => {
    if (first === undefined || second === undefined) throw new Error('KS-12 has findings');
    const { gone, stay, come } = causesOfWork([first, ...others], [second, ...others]);
    expect([gone, stay, come]).toEqual([[first], others, [second]]);
  });
  test('a lamp that was taken off took its finding with it', () => {
    const medic = demoBuild('shore-medic-7');
    const of = (build: Build) => causesOf(build, checkBuild(build).findings);
    const { gone, stay, come } = causesOfWork(of(beforeRetrofit(medic)), of(medic));
    const sentences = (list: readonly { readonly first: Finding }[]): string[] =>
      list.map((cause) => cause.first.sentence);
    expect(sentences(gone)).toContainEqual(expect.stringMatching(/^Box rear, top: no lamp stays visible/));
    expect(sentences(come)).toContainEqual(expect.stringMatching(/^Mirror L/));
    expect(gone.length + stay.length).toBe(of(beforeRetrofit(medic)).length);
    expect(come.length + stay.length).toBe(of(medic).length);
  });
});
