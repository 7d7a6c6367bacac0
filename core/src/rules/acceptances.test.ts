import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { finding } from '../../test/reference/finding.ts';
import { emptyBuild } from '../../test/reference/places.ts';
import { MOST_ACCEPTED } from '../design/acceptance.ts';
import { accept, acceptanceStatusOf, withdraw } from './acceptances.ts';
import { checkBuild } from './check.ts';
import type { Finding } from './finding.ts';
import { about } from './subject.ts';

describe('accepted', () => {
  const word = { reason: 'Hatch is shut on the road', by: 'R. Example', on: '2026-11-27' };
  const one = finding({});
  const build = accept(emptyBuild(), [one], word);
  const isOpen = (now: Finding): boolean => acceptanceStatusOf(build, [now]).open.length === 1;

  test('it stands, with who and why, and is taken back', () => {
    const { open, accepted } = acceptanceStatusOf(build, [one]);
    expect(open).toEqual([]);
    expect(accepted[0]?.acceptance).toMatchObject(word);
    expect(acceptanceStatusOf(withdraw(build, [one.id]), [one]).open).toEqual([one]);
  });

  test('as long as it gets no worse', () => {
    expect(isOpen(finding({ figure: { value: 89, unit: 'cd' } }))).toBe(true);
    expect(isOpen(finding({ figure: { value: 90.05, unit: 'cd' } }))).toBe(false);
    expect(isOpen(finding({ figure: { value: 99, unit: 'cd' } }))).toBe(false);
    const most = finding({ limits: [{ value: 80, unit: 'cd', sense: 'at most' }] });
    const with2 = accept(emptyBuild(), [most], word);
    const above = (value: number) =>
      acceptanceStatusOf(with2, [{ ...most, figure: { value, unit: 'cd' } }]).open.length;
    expect([above(85), above(90), above(91)]).toEqual([0, 0, 1]);
  });

  test('as long as no more is asked, and it is said of the same', () => {
    expect(isOpen(finding({ limits: [{ value: 110, unit: 'cd', sense: 'at least' }] }))).toBe(true);
    expect(isOpen(finding({ id: 'pack|rule|stage-2||day|rear' }))).toBe(true);
    const words = finding({ figure: null, limits: [] });
    const said = accept(emptyBuild(), [words], word);
    expect(acceptanceStatusOf(said, [words]).open).toEqual([]);
    const other = { ...words, sentence: 'Something else.' };
    expect(acceptanceStatusOf(said, [other]).open).toEqual([other]);
    expect(acceptanceStatusOf(said, [other]).outgrown.get(words.id)?.by).toBe('R. Example');
  });

  test('what is no longer found is told as gone', () => {
    expect(acceptanceStatusOf(build, []).gone.map(({ id }) => id)).toEqual([one.id]);
  });

  test('of several that shared an id the one with its figure stays, the others are open again', () => {
    const room = (topic: string, value: number): Finding =>
      finding({
        packId: 'layout',
        ruleId: 'room',
        id: `layout|room|always|lamp-1|${topic}`,
        subjects: [about('lamp', 'lamp-1'), about('topic', topic)],
        figure: { value, unit: 'mm' },
      });
    const old = {
      ...emptyBuild(),
      accepted: accept(emptyBuild(), [{ ...room('', 40), id: 'layout|room|always|lamp-1' }], word).accepted,
    };
    const [behind, before] = [room('behind', 40), room('in front', 55)];
    const { open, accepted, gone } = acceptanceStatusOf(old, [behind, before]);
    expect(open).toEqual([before]);
    expect(accepted.map((one) => one.finding)).toEqual([behind]);
    expect(gone).toEqual([]);
  });

  test('accepted again, the later word counts', () => {
    const again = accept(build, [one], { ...word, by: 'Somebody else' });
    expect(again.accepted.map(({ by }) => by)).toEqual(['Somebody else']);
  });

  test('without a reason, a name or a date it is not taken', () => {
    for (const patch of [{ reason: '' }, { by: '' }, { on: 'today' }])
      expect(() => accept(emptyBuild(), [one], { ...word, ...patch })).toThrow();
  });

  test('no more than a build holds, which is said', () => {
    const many = Array.from({ length: MOST_ACCEPTED }, (_, i) => finding({ id: `pack|rule|always|${i}` }));
    const full = accept(emptyBuild(), many, word);
    expect(full.accepted).toHaveLength(MOST_ACCEPTED);
    expect(accept(full, many.slice(0, 5), word).accepted).toHaveLength(MOST_ACCEPTED);
    expect(() => accept(full, [one], word)).toThrow(
      /^accepted: no more than 400 findings can be accepted in a build$/,
    );
  });

  test('findings of KS-12 that are accepted stay accepted after an edit elsewhere', () => {
    const ks12 = demoBuild('ks-12');
    const all = accept(ks12, checkBuild(ks12).findings, word);
    const edited = { ...all, notes: 'Another note' };
    expect(acceptanceStatusOf(edited, checkBuild(edited).findings).open).toEqual([]);
  });
});
