import type { Placement } from '../../design/schema.ts';
import { drivesOf, type Drive } from '../../resolve/channels.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/**
 * Mirrored partners truly in step: both lit or both dark, on one clock, with equal cycles. Alike or alternating
 * is the designer's choice; drifting is not.
 */
export function checkSyncPartners(subject: Subject, rule: RuleOf<'sync-partners'>): KindResult {
  const pairs = subject.build.placements.flatMap((p): [Placement, Placement][] => {
    const partner = p.partnerId === null ? undefined : subject.placement(p.partnerId);
    return partner !== undefined && p.id < partner.id ? [[p, partner]] : [];
  });
  const faults = subject.stages(rule).flatMap((stage) => {
    const flashing = drivesOf(subject.build, stage, 'day').filter((d) => !d.steady && d.spans.length > 0);
    return pairs.flatMap(([p, partner]) => {
      const mine = flashing.filter((d) => d.placementId === p.id);
      const theirs = flashing.filter((d) => d.placementId === partner.id);
      const why = outOfStep(mine, theirs);
      if (why === null) return [];
      return [
        {
          sentence: `"${p.label}" and "${partner.label}" are not in step in ${subject.stageName(stage)}: ${why}.`,
          figure: null,
          limits: [],
          evidence: {
            state: stateOf(stage),
            channelIds: [...mine, ...theirs].map((d) => d.channelId),
            sectors: [],
          },
        },
      ];
    });
  });
  return { faults, statesChecked: subject.stages(rule).length };
}

/** Why two sets of flashing channels are out of step; null when they are in step, or both dark. */
function outOfStep(mine: readonly Drive[], theirs: readonly Drive[]): string | null {
  if (mine.length === 0 && theirs.length === 0) return null;
  if (mine.length === 0 || theirs.length === 0) return 'one flashes and the other does not';
  const all = [...mine, ...theirs];
  if (all.some((d) => d.groupId === null)) return 'a head in no sync group runs on its own clock and drifts';
  if (new Set(all.map((d) => d.clockId)).size > 1) return 'they are in different sync groups and drift';
  if (new Set(all.map((d) => d.cycleMs)).size > 1) return 'their patterns have different cycles';
  return null;
}
