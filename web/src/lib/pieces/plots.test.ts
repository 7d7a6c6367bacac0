import { lightSeen, piecesBetween } from '@flarik/core/coverage/seen';
import { darkIn } from '@flarik/core/timing/signal';
import { describe, expect, test } from 'vitest';
import { piecesPath } from './plots';
import { thresholdIn } from '@flarik/core/rules/threshold';
import { demoBuild } from '@flarik/core/test/reference/demo';

const car = demoBuild('ks-13');

describe('what is drawn below the score', () => {
  test('pieces follow each other over the stretch, and the dark ones are those below the threshold', () => {
    const { whole } = lightSeen(
      car,
      { on: ['stage-2'], open: [], ambient: 'day' },
      { bearingDeg: 20, elevationDeg: 0 },
    );
    const pieces = piecesBetween(whole, 130, 1930);
    expect(pieces[0]?.fromMs).toBe(130);
    expect(pieces.at(-1)?.toMs).toBe(1930);
    for (const [i, p] of pieces.entries()) if (i > 0) expect(p.fromMs).toBe(pieces[i - 1]?.toMs);
    const threshold = thresholdIn(car, ['stage-2']);
    const dark = darkIn(pieces, threshold).reduce((sum, gap) => sum + gap.ms, 0);
    const counted = pieces.filter((p) => p.start < threshold).reduce((sum, p) => sum + p.toMs - p.fromMs, 0);
    expect(dark).toBeCloseTo(counted, 9);
  });

  test('an outline goes along the pieces, and down to nothing when it is filled', () => {
    const pieces = [
      { fromMs: 0, toMs: 10, start: 1, end: 1 },
      { fromMs: 10, toMs: 20, start: 3, end: 2 },
    ];
    const same = (v: number): number => v;
    expect(piecesPath(pieces, same, same, false)).toBe('M0.0 1.0L10.0 1.0L10.0 3.0L20.0 2.0');
    expect(piecesPath(pieces, same, same, true)).toBe(
      'M0.0 0.0L0.0 1.0L10.0 1.0L10.0 3.0L20.0 2.0L20.0 0.0Z',
    );
    expect(piecesPath([], same, same, true)).toBe('');
  });
});
