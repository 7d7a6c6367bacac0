import { thresholdIncrement } from '@flarik/core/sight/glare';
import type { AmbientLevel } from '@flarik/core/words/weather';

/** The light around an eye, and the luminance that it is used to, cd/m². */
export interface UsedTo {
  readonly around: AmbientLevel;
  readonly cdPerM2: number;
}

/** A figure with no more places than it is worth. */
export const small = (v: number): string =>
  v === 0 ? '0' : v < 0.01 ? '<\u{a0}0.01' : v < 10 ? v.toFixed(2) : v.toFixed(0);

/** So much more contrast an eye needs under a veil. @param veil - cd/m² */
export const contrastText = (veil: number, { cdPerM2 }: UsedTo): string =>
  `${small(thresholdIncrement(veil, cdPerM2))}\u{a0}%`;

/** The two lamps with the greatest shares. */
export const whoText = (
  labels: ReadonlyMap<string, string>,
  byLamp: readonly { readonly placementId: string; readonly share: number }[],
): string =>
  byLamp
    .slice(0, 2)
    .map(
      ({ placementId, share }) => `${labels.get(placementId) ?? 'deleted lamp'} ${Math.round(share * 100)} %`,
    )
    .join(', ');
