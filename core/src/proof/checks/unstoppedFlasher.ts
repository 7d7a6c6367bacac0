import { onText, readOn } from '../../design/controls.ts';
import type { Found, ProofCheck } from '../found.ts';

/** Tied-in lamps of the maker whose flasher does not stop for a signal of theirs that can be on with it. */
export const unstoppedFlasher: ProofCheck = {
  kind: 'unstopped-flasher',
  severity: 'blocks',
  clause: 'Flashers of signal lamps stop for their signal',
  find: (subject) => {
    const { build } = subject;
    const tied = new Map(build.placements.filter(subject.isFactory).map((p) => [p.id, p] as const));
    const found = new Map<string, Found>();
    for (const { on, module, moment, ambient } of subject.everyCase()) {
      const lamp = tied.get(module.placementId);
      if (lamp === undefined) continue;
      const wanting = on.filter((one) => subject.wants(one, module));
      const flasher = wanting.find((one) => subject.functionOf(one).kind !== 'signal');
      if (flasher === undefined) continue;
      for (const signal of wanting) {
        const { id, kind } = subject.functionOf(signal);
        const about = `${lamp.id}|${signal}`;
        if (kind !== 'signal' || lamp.stopsFor.includes(readOn(id).id) || found.has(about)) continue;
        found.set(about, {
          about,
          sentence: `the flasher of "${lamp.label}" does not stop for ${onText(build, [signal])}: ${onText(build, [flasher])} flashes over it.`,
          moment,
          ambient,
          channels: [{ ...module, slot: 1 }],
        });
      }
    }
    return [...found.values()];
  },
};
