import { z } from 'zod';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, type Drive } from '../../resolve/channels.ts';
import { placeModules } from '../../resolve/place.ts';
import { clockSignal, timelinesOf } from '../../timing/timeline.ts';
import { worstDarkMs, type OverAlignments } from '../../timing/worst.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule } from '../define.ts';
import { atMost } from '../finding.ts';
import { fails, holds, roomBelow } from '../judgement.ts';
import { figure } from '../piece.ts';
import type { Situation } from '../situation.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** Nearer to the centre plane than this a lamp belongs to both sides, m. */
const MIDDLE_M = 0.05;
/** Any light at all, as a share of a lamp's own. */
const A_LITTLE = 1e-6;

/** How long all warning lamps of one side are dark together, in the worst alignment of what drifts. */
export const sideDark = defineRule({
  kind: 'side-dark',
  title: 'A side dark together',
  blank: { maxMs: 500 },
  home: 'timing',
  sees: 'driven',
  schema: z.strictObject({ kind: z.literal('side-dark'), ...RULE_HEAD, maxMs: positive }),
  sentenceParts: (rule) => [
    'The lamps of one side are never dark together for longer than ',
    figure('maxMs', rule.maxMs, 'Longest darkness, ms'),
    ' ms',
  ],
  monotonicity: () => 'helps',
  partitions: (drive, at) => SIDES.filter((side) => onSide(at, drive, side)),
  check: (at, rule) => {
    const drives = at.drives('warning');
    return SIDES.map((side) => {
      const mine = drives.filter((d) => onSide(at, d, side));
      if (mine.length === 0) return holds();
      const { value: dark, exact } = darkTogetherMs(mine);
      const never = !Number.isFinite(dark);
      const margin = never ? null : roomBelow(dark, rule.maxMs);
      if (dark <= rule.maxMs) return holds(margin);
      const how = never
        ? 'never lit'
        : `dark together for ${exact ? '' : 'up to '}${formatQuantity(dark, 'ms', 'up')}`;
      return fails({
        outcome: exact ? 'fails' : 'cannot tell',
        subjects: [about('face', side)],
        margin,
        sentence: `${side} side lamps: ${how} (limit ${formatQuantity(rule.maxMs, 'ms')}).`,
        figure: never ? null : { value: dark, unit: 'ms' },
        limits: [atMost(rule.maxMs, 'ms')],
        channels: mine.map(channelOf),
      });
    });
  },
});

/** The longest time in which none of these channels gives light. */
export function darkTogetherMs(drives: readonly Drive[]): OverAlignments {
  const one = new Map(drives.map((d) => [d.channelId, 1]));
  const timelines = timelinesOf(drives);
  return worstDarkMs(
    {
      background: drives.some((d) => d.steady) ? 1 : 0,
      clocks: timelines.flatMap((t) => clockSignal(t, one) ?? []),
      linked: timelines.some((t) => t.linked),
    },
    A_LITTLE,
  );
}

const SIDES = ['left', 'right'] as const;

function onSide(at: Situation, drive: Drive, side: 'left' | 'right'): boolean {
  const p = at.placement(drive.placementId);
  if (p === undefined) return false;
  const placed = placeModules(at.lookup, p, new Set()).find(({ module }) => module.id === drive.moduleId);
  const y = placed?.centre[1] ?? 0;
  return side === 'left' ? y > -MIDDLE_M : y < MIDDLE_M;
}
