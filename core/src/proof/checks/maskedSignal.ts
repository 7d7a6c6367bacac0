import { onText } from '../../design/controls.ts';
import { channelOf } from '../../resolve/channels.ts';
import type { Found, ProofCheck } from '../found.ts';

/** Lamps that show something else while a signal that they belong to is on. */
export const maskedSignal: ProofCheck = {
  kind: 'masked-signal',
  severity: 'blocks',
  clause: 'Signals are never masked',
  find: (subject) => {
    const { build } = subject;
    const found = new Map<string, Found>();
    for (const { on, drives, module, moment, ambient } of subject.everyCase()) {
      const other = drives.find((d) => subject.functionOf(d.on).kind !== 'signal');
      if (other === undefined) continue;
      for (const signal of on) {
        if (subject.functionOf(signal).kind !== 'signal' || !subject.wants(signal, module)) continue;
        const about = `${signal}|${module.placementId}|${other.on}`;
        if (found.has(about)) continue;
        found.set(about, {
          about,
          sentence: `while ${onText(build, [signal])} is on, "${subject.labelOf(module)}" shows ${onText(build, [other.on])} instead of the signal.`,
          moment,
          ambient,
          channels: [channelOf(other)],
        });
      }
    }
    return [...found.values()];
  },
};
