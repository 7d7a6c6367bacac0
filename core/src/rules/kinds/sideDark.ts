import { lookupOf } from '../../resolve/lookup.ts';
import { placeModules } from '../../resolve/place.ts';
import { drivesOf, type Drive } from '../../resolve/channels.ts';
import { clockLight, timelinesOf } from '../../timing/timeline.ts';
import { worstDarkMs } from '../../timing/worst.ts';
import type { RuleOf } from '../pack.ts';
import { roundUp, stateOf, type KindResult, type Subject } from '../subject.ts';

/** Nearer to the centre plane than this a lamp belongs to both sides, m. */
const MIDDLE_M = 0.05;
/** Any light at all, as a share of a lamp's own. */
const A_LITTLE = 1e-6;

/** How long all lamps of one side are dark together, in the worst alignment of what drifts. */
export function checkSideDark(subject: Subject, rule: RuleOf<'side-dark'>): KindResult {
  const faults = subject.stages(rule).flatMap((stage) => {
    const drives = drivesOf(subject.build, stage, 'day');
    return (['left', 'right'] as const).flatMap((side) => {
      const mine = drives.filter((d) => onSide(subject, d, side));
      const dark = mine.length === 0 ? 0 : darkTogetherMs(mine);
      if (dark <= rule.maxMs) return [];
      const never = !Number.isFinite(dark);
      const how = never ? 'never lit' : `dark together for up to ${roundUp(dark)} ms`;
      return [
        {
          sentence: `the lamps of the ${side} side are ${how} in ${subject.stageName(stage)}; at most ${rule.maxMs} ms are allowed.`,
          figure: never ? null : { value: dark, unit: 'ms' as const },
          limits: [{ value: rule.maxMs, unit: 'ms' as const, sense: 'at most' as const }],
          evidence: { state: stateOf(stage), channelIds: mine.map((d) => d.channelId), sectors: [] },
        },
      ];
    });
  });
  return { faults, statesChecked: subject.stages(rule).length };
}

/** The longest time in which none of these channels gives light. */
export function darkTogetherMs(drives: readonly Drive[]): number {
  const cdOf = new Map(drives.map((d) => [d.channelId, 1]));
  const clocks = timelinesOf(drives).flatMap((t) => clockLight(t, cdOf) ?? []);
  return worstDarkMs({ backgroundCd: drives.some((d) => d.steady) ? 1 : 0, clocks }, A_LITTLE).value;
}

function onSide(subject: Subject, drive: Drive, side: 'left' | 'right'): boolean {
  const p = subject.placement(drive.placementId);
  if (p === undefined) return false;
  const placed = placeModules(lookupOf(subject.build), p, new Set()).find(
    ({ module }) => module.id === drive.moduleId,
  );
  const y = placed?.centre[1] ?? 0;
  return side === 'left' ? y > -MIDDLE_M : y < MIDDLE_M;
}
