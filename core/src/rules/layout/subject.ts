import type { Placement } from '../../design/placement.ts';
import { lookupOf, type Lookup } from '../../resolve/lookup.ts';
import { housingOf } from '../../resolve/housing.ts';
import { placeFixture, type PlacedFixture } from '../../resolve/place.ts';
import type { Build } from '../../design/schema.ts';
import { bodyPoses, stateWith } from '../../state/state.ts';
import type { Convex } from '../../geometry/overlap.ts';
import { formatNumber } from '../../words/quantity.ts';
import type { Issue } from '../judgement.ts';
import { about } from '../subject.ts';

/** A lamp where it stands. */
export interface StandingLamp {
  readonly p: Placement;
  readonly placed: PlacedFixture;
  readonly housing: Convex;
}

/** A build's lamps under check: those that will be on the vehicle, in one pose at a time. */
export class LayoutSubject {
  readonly build: Build;
  readonly lookup: Lookup;
  readonly lamps: readonly Placement[];
  #standing: readonly StandingLamp[] | null = null;

  constructor(build: Build) {
    this.build = build;
    this.lookup = lookupOf(build);
    this.lamps = build.placements.filter((p) => p.status !== 'removed');
  }

  /** Everything shut, and each stop of each moving part by itself. */
  get poses(): readonly (readonly string[])[] {
    return bodyPoses(this.lookup.vehicle);
  }

  /** Every lamp with everything shut. */
  standing(): readonly StandingLamp[] {
    this.#standing ??= this.lamps.map((p) => this.stand(p, []));
    return this.#standing;
  }

  /** A lamp in a pose. */
  stand(p: Placement, open: readonly string[]): StandingLamp {
    const placed = placeFixture(this.lookup, p, new Set(open));
    return { p, placed, housing: housingOf(placed) };
  }
}

/** What to look at when a lamp's place is at fault: in every state, or in the pose that brings it about. */
export const pointing = (
  placements: readonly Placement[],
  open: readonly string[] = [],
): Pick<Issue, 'subjects' | 'channels' | 'state'> => ({
  subjects: placements.map(({ id }) => about('lamp', id)),
  channels: placements.flatMap((p) => p.modules.map((m) => ({ placementId: p.id, moduleId: m.id, slot: 1 }))),
  state: open.length === 0 ? null : stateWith({ open }),
});

/** Millimetres, a figure that is too high rounded up. */
export const mmUp = (m: number): string => formatNumber(Math.ceil(m * 1000 - 1e-6));
/** Millimetres, a figure that is too low rounded down. */
export const mmDown = (m: number): string => formatNumber(Math.floor(m * 1000 + 1e-6));
export const percent = (share: number): string => String(Math.round(share * 100));
