import { channelOf, type Drive } from '../../resolve/channels.ts';
import { driftOf } from '../../timing/step.ts';
import { fails, type Verdict } from '../judgement.ts';
import type { Situation } from '../situation.ts';
import { about } from '../subject.ts';

/**
 * Heads that cannot follow the clock of the group they are in, once for each lamp. Where the group must keep step that
 * is a fault, elsewhere a remark.
 *
 * @param mustKeepStep - asks the groups that must, or those that need not
 */
export const freeRunners = (at: Situation, mustKeepStep: boolean): Verdict[] => {
  const free = at.drives().filter((d) => d.freeBecause !== null && !d.steady && d.spans.length > 0);
  return [...new Set(free.map((d) => d.placementId))].flatMap((id): Verdict[] => {
    const drives = free.filter((d) => d.placementId === id);
    const group = at.build.timing.groups.find((g) => g.id === drives[0]?.groupId);
    if (group?.mustKeepStep !== mustKeepStep) return [];
    return [
      fails({
        subjects: [about('lamp', id)],
        sentence: sentence(at, id, group.name, drives),
        channels: drives.map(channelOf),
      }),
    ];
  });
};

function sentence(at: Situation, placementId: string, group: string, drives: readonly Drive[]): string {
  const lamp = at.placement(placementId);
  const why = drives[0]?.freeBecause ?? '';
  const flasher = lamp === undefined ? null : at.lookup.fixture(lamp.fixtureId).flasher;
  const drift = flasher === null ? null : driftOf(drives[0]?.cycleMs ?? 0, flasher.tolerancePercent);
  const how =
    drift === null
      ? ''
      : ` Drift: ${drift.msPerCycle.toFixed(1)} ms per cycle, all alignments within ${Math.round(drift.roundS)} s.`;
  return `${lamp?.label ?? 'deleted lamp'} is free-running in sync group ${group}: it ${why}.${how}`;
}
