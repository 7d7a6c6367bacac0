import type { LitChannel } from '../../coverage/ring.ts';
import { highestCd } from '../../resolve/channels.ts';
import type { Sector } from '../../coverage/sectors.ts';
import type { Fault } from '../finding.ts';
import type { RuleFace } from '../pack.ts';
import { brightestToward, faceSectorsWhere, type Subject } from '../subject.ts';
import type { State } from '../../state/state.ts';

/** Channels that show more than they may toward a face. */
export interface Shown {
  readonly channels: readonly LitChannel[];
  readonly peakCd: number;
  readonly bearing: number;
  readonly sectors: readonly Sector[];
}

/** The channels among `lit` whose light toward a face goes above a limit; null when none does. */
export function shownToward(lit: readonly LitChannel[], face: RuleFace, aboveCd: number): Shown | null {
  const seen = lit
    .map((channel) => ({ channel, ...brightestToward(channel, face) }))
    .filter(({ cd }) => cd > aboveCd);
  const [first, ...rest] = seen;
  if (first === undefined) return null;
  const best = rest.reduce((a, b) => (b.cd > a.cd ? b : a), first);
  const above = (b: number) =>
    seen.some(({ channel }) => highestCd(channel.drive) * (channel.share[b] ?? 0) > aboveCd);
  return {
    channels: seen.map(({ channel }) => channel),
    peakCd: best.cd,
    bearing: best.bearing,
    sectors: faceSectorsWhere(face, above),
  };
}

/** The evidence of light shown where it may not be. */
export const shownEvidence = (shown: Shown, state: State): Fault['evidence'] => ({
  state,
  channelIds: shown.channels.map((c) => c.drive.channelId),
  sectors: shown.sectors,
});

/**
 * Goes through the poses, everything shut first, and keeps the faults of a pose only when they involve a channel
 * that was not at fault in an earlier one: an open door is named when it is what turns a lamp the wrong way.
 * To be called for one stage and one face at a time.
 */
export function newFaultsByPose(
  subject: Subject,
  faultsIn: (open: readonly string[]) => readonly Fault[],
): Fault[] {
  const known = new Set<string>();
  return subject.poses.flatMap((open) =>
    faultsIn(open).filter(({ evidence }) => {
      const fresh = evidence.channelIds.filter((id) => !known.has(id));
      for (const id of fresh) known.add(id);
      return fresh.length > 0;
    }),
  );
}
