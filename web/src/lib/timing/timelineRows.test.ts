import { setCue } from '@flarik/core/design/controlEdits';
import { describe, expect, test } from 'vitest';
import { groupTarget, lightCue, sameTarget } from '@flarik/core/design/functions';
import { timelineOf, type TimelineRow } from './timelineRows';
import { demoBuild } from '@flarik/core/test/reference/demo';

const isGroup = (row: TimelineRow, groupId: string): boolean =>
  sameTarget(row.place.target, groupTarget(groupId));

describe('the score', () => {
  test('draws each group’s phases over the stretch asked for', () => {
    const rows = timelineOf(demoBuild('ks-12'), 'stage-1', 'day', { fromMs: 0, toMs: 1600 });
    const rear = rows.find((r) => isGroup(r, 'rear'));
    expect(rear?.lines.map((l) => l.name)).toEqual(['Phase A', 'Phase B']);
    expect(rear?.lines[1]?.bars.map((b) => [b.fromMs, b.toMs])).toEqual([
      [400, 620],
      [1200, 1420],
    ]);
  });
  test('each cue has the channels of its own colour slots, and of no other', () => {
    const build = demoBuild('ks-13');
    const front = groupTarget('front');
    const both = ([1, 2] as const).reduce(
      (b, slot) => setCue(b, 'stage-3', front, slot, lightCue(front, slot, 'double')),
      build,
    );
    const rows = timelineOf(both, 'stage-3', 'day', { fromMs: 0, toMs: 800 }).filter((r) =>
      isGroup(r, 'front'),
    );
    expect(rows.map((r) => r.name)).toEqual(['Front and sides, colour 1', 'Front and sides, colour 2']);
    for (const [i, row] of rows.entries())
      for (const { channelId } of row.lines.flatMap((l) => l.channels))
        expect(channelId.endsWith(`/${i + 1}`)).toBe(true);
  });
  test('bars that reach over the ends of the stretch are whole; those outside are left out', () => {
    const rows = timelineOf(demoBuild('ks-12'), 'stage-1', 'day', { fromMs: 500, toMs: 900 });
    const rear = rows.find((r) => isGroup(r, 'rear'));
    expect(rear?.lines.map((l) => l.bars.map((b) => [b.fromMs, b.toMs]))).toEqual([
      [[800, 1020]],
      [[400, 620]],
    ]);
  });
});
