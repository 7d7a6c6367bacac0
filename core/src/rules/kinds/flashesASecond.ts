import type { LitChannel } from '../../coverage/ring.ts';
import { FACE_BEARINGS, sectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { highestCd } from '../../resolve/channels.ts';
import { MOST_FLASHES_A_SECOND, mostInASecond, risesOf } from '../../timing/patternFigures.ts';
import { commonCycleMs } from '../../timing/timeline.ts';
import type { RuleOf } from '../pack.ts';
import { stateOf, type KindResult, type Subject } from '../subject.ts';

/**
 * How many flashes begin in any second as seen from one direction, in the worst alignment of what drifts: too urgent
 * for a parked stage, or too many for those whom flashing can harm.
 */
export function checkFlashesASecond(subject: Subject, rule: RuleOf<'flashes-a-second'>): KindResult {
  const poses = subject.posesAmong([[]]);
  const stages = poses.length === 0 ? [] : subject.stages(rule);
  const looked = new Set(rule.faces.flatMap((face) => FACE_BEARINGS[face]));
  const faults = stages.flatMap((stage) => {
    const state = stateOf(stage, [], subject.brightest);
    const lit = subject.lit(state).filter(({ drive }) => !drive.steady && drive.spans.length > 0);
    const counted = new Map<string, number>();
    const seen = (b: number): LitChannel[] =>
      lit.filter(({ drive, share }) => highestCd(drive) * (share[b] ?? 0) > rule.aboveCd);
    const most = new Map([...looked].map((b) => [b, flashesASecond(seen(b), counted)]));
    const sectors = sectorsWhere((b) => (most.get(b) ?? 0) > rule.most);
    if (sectors.length === 0) return [];
    const worst = [...looked].reduce((a, b) => ((most.get(b) ?? 0) > (most.get(a) ?? 0) ? b : a));
    const figure = most.get(worst) ?? 0;
    const danger = rule.most <= MOST_FLASHES_A_SECOND ? ' From 3 to 30 a second can bring on seizures.' : '';
    return [
      {
        sentence: `up to ${figure} flashes begin in one second as seen from ${worst}° in ${subject.stateText(state)}; at most ${rule.most} are wanted; so from ${sectors.map(sectorText).join(', ')}.${danger}`,
        figure: { value: figure, unit: '/s' as const },
        limits: [{ value: rule.most, unit: '/s' as const, sense: 'at most' as const }],
        evidence: { state, channelIds: seen(worst).map((l) => l.drive.channelId), sectors },
      },
    ];
  });
  return { faults, statesChecked: stages.length };
}

/** Clocks that drift have their busiest seconds together some time, so those add up. */
function flashesASecond(seen: readonly LitChannel[], counted: Map<string, number>): number {
  let sum = 0;
  for (const clockId of new Set(seen.map(({ drive }) => drive.clockId))) {
    const channels = seen.filter(({ drive }) => drive.clockId === clockId);
    const key = channels.map(({ drive }) => drive.channelId).join();
    const most = counted.get(key) ?? busiestSecond(channels);
    counted.set(key, most);
    sum += most;
  }
  return sum;
}

function busiestSecond(channels: readonly LitChannel[]): number {
  const cycleMs = commonCycleMs(channels.map(({ drive }) => drive.cycleMs));
  const rises = new Set<number>();
  for (const { drive } of channels)
    for (const rise of risesOf(drive.spans, drive.cycleMs))
      for (let start = 0; start < cycleMs; start += drive.cycleMs) rises.add(start + rise);
  return mostInASecond([...rises], cycleMs);
}
