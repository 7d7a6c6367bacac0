import { activeFunctionNames, type ActiveFunction } from '../../design/controls.ts';
import type { ChannelRef } from '../../design/schema.ts';
import { channelOf } from '../../resolve/channels.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { burnTogether, alternates } from '../../resolve/turns.ts';
import { textOf } from '../../rules/fields.ts';
import type { Colour } from '../../words/colour.ts';
import type { VerificationFinding, VerificationCheck } from '../found.ts';
import type { ModuleCase } from '../subject.ts';
import { about, subjectsKey, type Subject } from '../../rules/subject.ts';

/** Functions that ask lamps for the same colours at once: the nearest case of it, and what they ask of each lamp. */
interface ColourConflict {
  readonly subjects: readonly Subject[];
  readonly one: ModuleCase;
  readonly ons: readonly ActiveFunction[];
  readonly colours: readonly Colour[];
  readonly atOnce: number;
  readonly together: 'sometimes' | 'unknown';
  readonly lamps: Map<string, readonly ChannelRef[]>;
}

/**
 * Modules that several functions ask for more colours at one instant than their fixture can burn: the weaker ones are then
 * dark. What one function shows by itself, colour over colour, is what its pattern draws.
 */
export const twoColours: VerificationCheck = {
  kind: 'two-colours',
  severity: 'blocks',
  clause: 'No more colours at once than a lamp can burn',
  find: (subject) => {
    const { build, showing } = subject;
    const lookup = lookupOf(build);
    const atOnceOf = new Map(
      build.placements.map((p) => [p.id, lookup.fixture(p.fixtureId).coloursAtOnce] as const),
    );
    const met = new Map<string, ColourConflict>();
    for (const one of subject.everyCase()) {
      const { on, drives, module, cell } = one;
      const atOnce = atOnceOf.get(module.placementId) ?? 1;
      if (drives.length <= atOnce) continue;
      const claimed = showing
        .onModule(module.placementId, module.moduleId, on, cell.ambient)
        .flatMap(({ claim, lost }) => (lost === null ? [claim.drive] : []));
      const ons = [...new Set(claimed.map((drive) => drive.on))];
      const colours = [...new Set(claimed.map(({ colour }) => colour))];
      const subjects = [
        ...ons.map((on) => about('function', on)),
        ...colours.map((colour) => about('colour', colour)),
      ];
      const key = subjectsKey(subjects);
      const known = met.get(key);
      if (ons.length < 2 || known?.lamps.has(module.placementId) === true) continue;
      const each = ons.flatMap((one) =>
        alternates(claimed.filter((drive) => drive.on === one).toReversed(), atOnce),
      );
      const together = burnTogether(each, atOnce);
      if (together === 'never') continue;
      const channels = claimed.map(channelOf);
      if (known === undefined)
        met.set(key, {
          subjects,
          one,
          ons,
          colours,
          atOnce,
          together,
          lamps: new Map([[module.placementId, channels]]),
        });
      else known.lamps.set(module.placementId, channels);
    }
    return [...met.values()].map(
      ({ subjects, one, ons, colours, atOnce, together, lamps }): VerificationFinding => {
        const others = lamps.size - 1;
        const who = `${subject.labelOf(one.module)}${others === 0 ? '' : ` and ${others} more`}`;
        return {
          subjects,
          sentence: `${who}: ${activeFunctionNames(build, ons)} request ${textOf(colours)} together. ${atOnce === 1 ? 'Only one colour' : `Only ${atOnce} colours`} can be lit; the higher priority wins.`,
          where: subject.nearest(subject.statesWhere(one.when, one.cell.ambient)),
          channels: [...lamps.values()].flat(),
          ...(together === 'unknown' ? { outcome: 'cannot tell' } : {}),
        };
      },
    );
  },
};
