import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { drivenIn } from '../state/driven.ts';
import { flashes, rhythmsOf } from './rhythmsOf.ts';
import { subjectsKey } from './subject.ts';

const drives = drivenIn(demoBuild('ks-12'), { on: ['stage-3'], ambient: 'day' });

test('what flashes is in one rhythm by its pattern and its speed, each once, named by who shows it first', () => {
  const rhythms = rhythmsOf(drives);
  expect(rhythms.length).toBeGreaterThan(1);
  expect(rhythms.flatMap((r) => r.drives).toSorted((a, b) => drives.indexOf(a) - drives.indexOf(b))).toEqual(
    drives.filter(flashes),
  );
  for (const { first, drives: mine, subjects } of rhythms) {
    expect(mine[0]).toBe(first);
    expect(new Set(mine.map((d) => `${d.patternId} at ${d.cycleMs}`)).size).toBe(1);
    expect(subjectsKey(subjects)).toBe(`${first.patternId}|${first.groupId ?? 'free'}`);
  }
  const named = rhythms.map(({ first }) => `${first.patternId} at ${first.cycleMs}`);
  expect(new Set(named).size).toBe(named.length);
});

test('steady and dark channels have none', () => {
  const [one] = drives.filter(flashes);
  if (one === undefined) throw new Error('nothing flashes');
  expect([one, { ...one, steady: true }, { ...one, spans: [] }].map(flashes)).toEqual([true, false, false]);
  expect(
    rhythmsOf([
      { ...one, steady: true },
      { ...one, spans: [] },
    ]),
  ).toEqual([]);
  expect(rhythmsOf([one, { ...one, groupId: null }]).map(({ subjects }) => subjectsKey(subjects))).toEqual([
    `${one.patternId}|${one.groupId ?? 'free'}`,
  ]);
  expect(subjectsKey(rhythmsOf([{ ...one, groupId: null }])[0]?.subjects ?? [])).toBe(
    `${one.patternId}|free`,
  );
});
