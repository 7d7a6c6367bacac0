import type { Constraint } from '../../design/brief.ts';
import type { Build } from '../../design/schema.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { openText } from '../../state/state.ts';

const list = (items: readonly string[]): string => items.join(', ');

export const moneyText = (minor: number, currency: string): string =>
  `${Math.round(minor / 100).toLocaleString('en')} ${currency}`;

/** A wish of the brief as a plain sentence. */
export function constraintSentence(build: Build, c: Constraint): string {
  const { vehicle } = lookupOf(build);
  const zones = (ids: readonly string[]) =>
    list(ids.map((id) => vehicle.zones.find((z) => z.id === id)?.name ?? id));
  switch (c.kind) {
    case 'lowest-lamp':
      return `Nothing below ${Math.round(c.heightM * 1000)} mm from the ground`;
    case 'no-holes':
      return c.zoneIds.length === 0 ? 'No holes at all' : `No holes in ${zones(c.zoneIds)}`;
    case 'only-colours':
      return `Only ${list(c.colours)} to the ${list(c.faces)}`;
    case 'never-colours':
      return `No ${list(c.colours)} to the ${list(c.faces)}`;
    case 'unseen-when-off':
      return c.atMost === 0 ? 'Unseen when off' : `At most ${c.atMost} lamps seen when off`;
    case 'spend-at-most':
      return `Fixtures for at most ${moneyText(c.minor, build.brief.currency)}`;
    case 'keep-head':
      return `Keep "${build.placements.find((p) => p.id === c.placementId)?.label ?? c.placementId}" where it is`;
    case 'leave-factory-lamp':
      return `Leave the ${(vehicle.factoryLamps.find((l) => l.id === c.lampId)?.name ?? c.lampId).toLowerCase()} untouched`;
    case 'spare-outputs':
      return `Of ${c.outputs} outputs, ${c.spare} stay spare`;
    case 'stay-visible':
      return `${zones(c.zoneIds)} stay visible with ${openText(vehicle, c.open)}`;
  }
}
