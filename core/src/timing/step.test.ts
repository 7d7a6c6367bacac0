import { expect, test } from 'vitest';
import { ANY_CLOCK, driftOf, freeRunReason, voltageMismatch, type Clock } from './step.ts';

const pulse: Clock = { lines: ['pulse wire'], volts: 12 };
const flasher = (line: Clock['lines'][number] | null) => ({ flasher: { line, tolerancePercent: 1 } });

test('what has no flasher of its own, or is reached by its line, keeps step', () => {
  expect(freeRunReason({ flasher: null }, { ...pulse, lines: [] })).toBeNull();
  expect(freeRunReason(flasher('pulse wire'), pulse)).toBeNull();
  for (const line of ANY_CLOCK.lines) expect(freeRunReason(flasher(line), ANY_CLOCK)).toBeNull();
});

test('what is not reached says why', () => {
  expect(freeRunReason(flasher(null), ANY_CLOCK)).toBe('has its own flasher without a sync line');
  expect(freeRunReason(flasher('pulse wire'), { ...pulse, lines: [] })).toBe(
    "synchronises by a pulse wire, which the group's clock does not have",
  );
});

test('the voltage that a fixture is fed must be one it is made for', () => {
  expect(voltageMismatch({ volts: [12, 24] }, { ...pulse, volts: 24 })).toBeNull();
  expect(voltageMismatch({ volts: [12] }, { ...pulse, volts: 24 })).toBe('made for 12 V, but fed 24 V');
  expect(voltageMismatch({ volts: [12, 24] }, pulse)).toBeNull();
});

test('800 ms at 1 %: 8 ms a cycle, round in 80 s', () => {
  expect(driftOf(800, 1)).toEqual({ msPerCycle: 8, roundS: 80 });
  expect(driftOf(1000, 2)).toEqual({ msPerCycle: 20, roundS: 50 });
});
