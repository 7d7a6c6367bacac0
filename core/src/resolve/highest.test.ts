import { expect, test } from 'vitest';
import { demoBuild, DEMO_BUILDS } from '../../test/reference/demo.ts';
import { levelAt } from '../timing/timeline.ts';
import { highestCd, type Drive } from './channels.ts';
import { HighestTogether } from './highest.ts';
import { showingOf } from './showing.ts';

/** The same millisecond by millisecond, of channels that keep step. */
function plainly(drives: readonly Drive[]): number {
  const cycleMs = drives.map((d) => d.cycleMs).reduce((all, one) => lcm(all, one), 1);
  let highest = 0;
  for (let ms = 0; ms < cycleMs; ms++)
    highest = Math.max(
      highest,
      drives.reduce((sum, d) => sum + d.peakCd * levelAt(d, ms % d.cycleMs), 0),
    );
  return highest;
}
const lcm = (a: number, b: number): number => (a * b) / gcd(a, b);
const gcd = (a: number, b: number): number => (b === 0 ? a : gcd(b, a % b));

const togetherOf = (drives: readonly Drive[]): number =>
  new HighestTogether(drives).of((at) => drives[at]?.peakCd ?? 0);

test('channels of one clock: the highest sum of any millisecond', () => {
  let below = 0;
  for (const name of DEMO_BUILDS) {
    const showing = showingOf(demoBuild(name));
    for (const on of showing.ons) {
      const byClock = new Map<string, Drive[]>();
      for (const drive of showing.driven([on], 'day'))
        if (!drive.steady && drive.spans.every(({ endLevel }) => endLevel === undefined))
          byClock.set(drive.clockId, [...(byClock.get(drive.clockId) ?? []), drive]);
      for (const drives of byClock.values()) {
        if (drives.map((d) => d.cycleMs).reduce((all, one) => lcm(all, one), 1) > 20_000) continue;
        const mine = togetherOf(drives);
        expect(mine, `${name} ${on}`).toBeCloseTo(plainly(drives), 6);
        if (mine < drives.reduce((sum, d) => sum + highestCd(d), 0) - 1) below++;
      }
    }
  }
  // Halves that alternate never burn together.
  expect(below).toBeGreaterThan(10);
});

test('clocks that drift are each at their highest, and steady light burns all the while', () => {
  const all = showingOf(demoBuild('ks-12')).driven(['stage-3'], 'day');
  const [first] = all.filter(({ steady }) => !steady);
  if (first === undefined) throw new Error('stage 3 flashes');
  const apart = [first, { ...first, channelId: 'other', clockId: 'other' }];
  expect(togetherOf(apart)).toBeCloseTo(2 * highestCd(first), 9);
  const steady = all.filter((drive) => drive.steady);
  expect(togetherOf(steady)).toBeCloseTo(
    steady.reduce((sum, d) => sum + highestCd(d), 0),
    9,
  );
  expect(togetherOf([])).toBe(0);
});
