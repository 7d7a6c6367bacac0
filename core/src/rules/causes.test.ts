import { describe, expect, test } from 'vitest';
import type { Build } from '../design/schema.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { asBefore } from '../arrange/asBefore.ts';
import { accept, standingOf, withdraw } from './acceptances.ts';
import { causesOf, causesOfWork, countBySeverity, reachText } from './causes.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import { figureText, findingsTable, findingsText } from './findingsTable.ts';

const ks12 = demoBuild('ks-12');
const { findings } = checkBuild(ks12);

const finding = (patch: Partial<Finding>): Finding => ({
  outcome: 'fails',
  id: 'pack|rule|stage-1||day|rear',
  packId: 'pack',
  packName: 'Pack',
  ruleId: 'rule',
  kind: 'power-floor',
  home: 'visibility',
  severity: 'warns',
  clause: '1',
  sentence: 'Too little.',
  figure: { value: 90, unit: 'cd' },
  limits: [{ value: 100, unit: 'cd', sense: 'at least' }],
  evidence: { state: null, channels: [], sectors: [], steps: [] },
  ...patch,
});

describe('one cause is one', () => {
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
    expect(cause?.findings).toEqual(blue);
    expect(cause === undefined ? '' : reachText(build, cause)).toMatch(
      new RegExp(`^also in Stage \\d.*; ${blue.length} findings$`),
    );
  });

  test('the same to both sides, by two packs, of a lamp and its mirror image', () => {
    expect(keys(finding({ id: 'p|r|s||day|left' }), finding({ id: 'q|x|s||day|right' }))).toBe(1);
    const [pair] = ks12.placements.filter((p) => p.partnerId !== null);
    const [a, b] = [pair?.id ?? '', pair?.partnerId ?? ''];
    const of = (id: string): Finding => finding({ kind: 'reach', id: `layout|reach|always|${id}` });
    expect(causesOf(ks12, [of(a), of(b)])).toHaveLength(1);
  });

  test('another face, kind, colour or certainty is another', () => {
    expect(keys(finding({ id: 'p|r|s||day|rear' }), finding({ id: 'p|r|s||day|front' }))).toBe(2);
    expect(keys(finding({}), finding({ kind: 'dark-gap' }))).toBe(2);
    expect(keys(finding({}), finding({ outcome: 'cannot tell' }))).toBe(2);
    expect(keys(finding({ id: 'p|r|s||day|rear/blue' }), finding({ id: 'p|r|s||day|rear/red' }))).toBe(2);
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

describe('accepted', () => {
  const word = { reason: 'Hatch is shut on the road', by: 'R. Example', on: '2026-11-27' };
  const one = finding({});
  const build = accept(emptyBuild(), [one], word);
  const isOpen = (now: Finding): boolean => standingOf(build, [now]).open.length === 1;

  test('it stands, with who and why, and is taken back', () => {
    const { open, accepted } = standingOf(build, [one]);
    expect(open).toEqual([]);
    expect(accepted[0]?.acceptance).toMatchObject(word);
    expect(standingOf(withdraw(build, [one.id]), [one]).open).toEqual([one]);
  });

  test('as long as it gets no worse', () => {
    expect(isOpen(finding({ figure: { value: 89, unit: 'cd' } }))).toBe(true);
    expect(isOpen(finding({ figure: { value: 90.05, unit: 'cd' } }))).toBe(false);
    expect(isOpen(finding({ figure: { value: 99, unit: 'cd' } }))).toBe(false);
    const most = finding({ limits: [{ value: 80, unit: 'cd', sense: 'at most' }] });
    const with2 = accept(emptyBuild(), [most], word);
    const above = (value: number) =>
      standingOf(with2, [{ ...most, figure: { value, unit: 'cd' } }]).open.length;
    expect([above(85), above(90), above(91)]).toEqual([0, 0, 1]);
  });

  test('as long as no more is asked, and it is said of the same', () => {
    expect(isOpen(finding({ limits: [{ value: 110, unit: 'cd', sense: 'at least' }] }))).toBe(true);
    expect(isOpen(finding({ id: 'pack|rule|stage-2||day|rear' }))).toBe(true);
    const words = finding({ figure: null, limits: [] });
    const said = accept(emptyBuild(), [words], word);
    expect(standingOf(said, [words]).open).toEqual([]);
    const other = { ...words, sentence: 'Something else.' };
    expect(standingOf(said, [other]).open).toEqual([other]);
    expect(standingOf(said, [other]).outgrown.get(words.id)?.by).toBe('R. Example');
  });

  test('what is no longer found is told as gone', () => {
    expect(standingOf(build, []).gone.map(({ id }) => id)).toEqual([one.id]);
  });

  test('accepted again, the later word counts', () => {
    const again = accept(build, [one], { ...word, by: 'Somebody else' });
    expect(again.accepted.map(({ by }) => by)).toEqual(['Somebody else']);
  });

  test('without a reason, a name or a date it is not taken', () => {
    for (const patch of [{ reason: '' }, { by: '' }, { on: 'today' }])
      expect(() => accept(emptyBuild(), [one], { ...word, ...patch })).toThrow();
  });

  test('findings of KS-12 that are accepted stay accepted after an edit elsewhere', () => {
    const all = accept(ks12, findings, word);
    const edited = { ...all, notes: 'Another note' };
    expect(standingOf(edited, checkBuild(edited).findings).open).toEqual([]);
  });
});

describe('findings as a table and as text', () => {
  test('a row each, with figure, limit and state', () => {
    const [head, ...rows] = findingsTable(ks12, findings);
    expect(head).toHaveLength(9);
    expect(rows).toHaveLength(findings.length);
    expect(rows.find((row) => row[2]?.startsWith('White shows'))?.slice(3, 6)).toEqual([
      'Stage 3 · everything shut · day',
      '17820 cd',
      'at most 40 cd',
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
    expect(lines[0]).toMatch(/^blocks: Flashing blue shows to the rear/);
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
    const { gone, stay, come } = causesOfWork(of(asBefore(medic)), of(medic));
    const sentences = (list: readonly { readonly first: Finding }[]): string[] =>
      list.map((cause) => cause.first.sentence);
    expect(sentences(gone)).toContainEqual(expect.stringMatching(/^Box rear, top carries no lamp/));
    expect(sentences(come)).toContainEqual(expect.stringMatching(/^"Mirror L"/));
    expect(gone.length + stay.length).toBe(of(asBefore(medic)).length);
    expect(come.length + stay.length).toBe(of(medic).length);
  });
});
