import { leavesOf } from '../../design/condition.ts';
import { onsOf, onText } from '../../design/controls.ts';
import { vehicleOf } from '../../vehicle/vehicle.ts';
import { partInput } from '../../design/inputs.ts';
import { litMs } from '../../timing/span.ts';
import { AMBIENTS } from '../../words/ambient.ts';
import type { RuleOf } from '../../rules/registry.ts';
import type { Found } from '../found.ts';
import type { ProofSubject } from '../subject.ts';

/** The voltage at which draw is told, V. */
const SYSTEM_V = 12.8;

/** What an open door or hatch switches on for as long as it stands open, and that draws much with the engine stopped. */
export function standingDraws(subject: ProofSubject, { maxW }: RuleOf<'standing-draw'>): Found[] {
  const { build, showing } = subject;
  const parts = new Set(vehicleOf(build.vehicle).parts.map((part) => partInput(part.id)));
  return subject.functions.flatMap((fn): Found[] => {
    const { when } = fn;
    if (when.way !== 'while') return [];
    const leaves = [...leavesOf(when.condition), ...(fn.enabledBy === null ? [] : leavesOf(fn.enabledBy))];
    const inputs = leaves.flatMap((leaf) => (leaf.kind === 'is' ? [leaf.input] : []));
    // What asks for the key or the engine, itself or through the master switch, ends with them.
    const guarded =
      (build.controls.enabledBy !== null && !fn.withoutMaster) ||
      leaves.some((leaf) => leaf.kind === 'on') ||
      inputs.some((id) => id === 'ignition' || id === 'engine');
    if (guarded || !inputs.some((id) => parts.has(id))) return [];
    return onsOf(fn).flatMap((on): Found[] => {
      const inLight = AMBIENTS.map((ambient) =>
        showing
          .driven([on], ambient)
          .reduce((sum, d) => sum + (d.currentA * litMs(d.spans) * SYSTEM_V) / d.cycleMs, 0),
      );
      const w = Math.max(...inLight);
      return w <= maxW
        ? []
        : [
            {
              about: on,
              sentence: `${onText(build, [on])} draws ${Math.round(w)} W for as long as a door stands open, with the engine stopped and no timer; at most ${maxW} W is wanted.`,
            },
          ];
    });
  });
}
