import { z } from 'zod';
import type { Placement } from '../../design/placement.ts';
import { RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf, type Drive } from '../../resolve/channels.ts';
import { defineRule } from '../define.ts';
import { fails, holds } from '../judgement.ts';
import { flashes } from '../rhythmsOf.ts';
import { about, subjectsKey } from '../subject.ts';

/**
 * Mirrored partners truly in step: both lit or both dark, on one clock, with equal cycles. Alike or alternating
 * is the designer's choice; drifting is not.
 */
export const syncPartners = defineRule({
  kind: 'sync-partners',
  title: 'Mirrored pairs synchronised',
  blank: {},
  home: 'timing',
  sees: 'driven',
  schema: z.strictObject({ kind: z.literal('sync-partners'), ...RULE_HEAD }),
  sentenceParts: () => ['Mirrored pairs are synchronised: one sync group, equal cycles'],
  asksAlone: true,
  partitions: ({ placementId }, at) => {
    const { partnerId } = at.placement(placementId) ?? { partnerId: null };
    return partnerId === null
      ? []
      : [subjectsKey([placementId, partnerId].toSorted().map((id) => about('lamp', id)))];
  },
  check: (at) => {
    const flashing = at.drives('warning').filter(flashes);
    const pairs = at.build.placements.flatMap((p): [Placement, Placement][] => {
      const partner = p.partnerId === null ? undefined : at.placement(p.partnerId);
      return partner !== undefined && p.id < partner.id ? [[p, partner]] : [];
    });
    return pairs.map(([p, partner]) => {
      const mine = flashing.filter((d) => d.placementId === p.id);
      const theirs = flashing.filter((d) => d.placementId === partner.id);
      // Where something stronger holds one of them on purpose, only what both flash is asked.
      const oneTaken = at.state.on.length > 1 && (mine.length === 0 || theirs.length === 0);
      const why = oneTaken ? null : outOfStep(mine, theirs);
      if (why === null) return holds();
      return fails({
        subjects: [about('lamp', p.id), about('lamp', partner.id)],
        sentence: `${p.label} and ${partner.label} are a mirrored pair but not synchronised: ${why}.`,
        channels: [...mine, ...theirs].map(channelOf),
      });
    });
  },
});

/** Why two sets of flashing channels are out of step; null when they are in step, or both dark. */
function outOfStep(mine: readonly Drive[], theirs: readonly Drive[]): string | null {
  if (mine.length === 0 && theirs.length === 0) return null;
  if (mine.length === 0 || theirs.length === 0) return 'one flashes and the other does not';
  const all = [...mine, ...theirs];
  if (all.some((d) => d.groupId === null)) return 'one has no sync group and is free-running';
  if (new Set(all.map((d) => d.clockId)).size > 1) return 'they are in different sync groups';
  if (cyclesOf(mine) !== cyclesOf(theirs)) return 'their patterns have different cycles';
  return null;
}

/** The cycles of some channels, each once: a lamp of two colours may have two. */
const cyclesOf = (drives: readonly Drive[]): string =>
  [...new Set(drives.map((d) => d.cycleMs))].toSorted((a, b) => a - b).join();
