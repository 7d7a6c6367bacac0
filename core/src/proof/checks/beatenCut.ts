import { onText } from '../../design/controls.ts';
import { channelOf } from '../../resolve/channels.ts';
import type { Found, ProofCheck } from '../found.ts';

/** What takes light away, and in some state does not: a stronger function that is no signal still shows it. */
export const beatenCut: ProofCheck = {
  kind: 'beaten-cut',
  severity: 'warns',
  clause: 'What takes light away takes it',
  find: (subject) => {
    const { build } = subject;
    const found = new Map<string, Found>();
    for (const { on, drives, module, moment, ambient } of subject.everyCase())
      for (const cut of on) {
        if (subject.functionOf(cut).kind !== 'cut') continue;
        const want = subject.wantOf(cut, module);
        if (want === null || want.claims.length > 0) continue;
        for (const drive of drives) {
          if (!want.takes && !want.forbids.includes(drive.colour)) continue;
          if (subject.functionOf(drive.on).kind === 'signal') continue;
          const about = `${cut}|${drive.on}`;
          const known = found.get(about);
          if (known?.moment !== undefined && subject.depthOf(known.moment) <= moment.depth) continue;
          found.set(about, {
            about,
            sentence: `${onText(build, [cut])} is on, and ${onText(build, [drive.on])}, which is stronger, still shows ${drive.colour} that it takes away.`,
            moment,
            ambient,
            channels: [channelOf(drive)],
          });
        }
      }
    return [...found.values()];
  },
};
