import { formatNumber } from '../../words/quantity.ts';
import type { Build } from '../../design/schema.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { textOf } from '../fields.ts';

export const moneyText = (minor: number, currency: string): string =>
  `${formatNumber(minor / 100)} ${currency}`;

/** Zones by their names. */
export function zonesText(build: Build, ids: readonly string[]): string {
  const { vehicle } = lookupOf(build);
  return textOf(ids.map((id) => vehicle.zones.find((z) => z.id === id)?.name ?? 'deleted zone'));
}
