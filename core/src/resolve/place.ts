import { posed } from '../design/lampMoves.ts';
import type { ModuleSetup, Placement } from '../design/placement.ts';
import { aimFrame, pointInFrame, turnFrame, type AimFrame } from '../geometry/frame.ts';
import { add, combine, scale, type Vec3 } from '../geometry/vec.ts';
import type { Fixture, FixtureModule } from '../fixture/types.ts';
import type { Fixing, MountZone } from '../vehicle/types.ts';
import { posedZone, zoneOf, type OpenParts } from '../vehicle/vehicle.ts';
import type { Lookup } from './lookup.ts';

/** A module where it stands: optical centre and aim in body axes. */
export interface PlacedModule {
  readonly placementId: string;
  readonly module: FixtureModule;
  readonly centre: Vec3;
  readonly frame: AimFrame;
}

/** A placement where it stands: the middle of its mounting face and the frame its fixture is built in. */
export interface PlacedFixture {
  readonly fixture: Fixture;
  readonly zone: MountZone;
  /** The point of the zone that it stands on; below its base where it has a pole. */
  readonly foot: Vec3;
  readonly base: Vec3;
  readonly frame: AimFrame;
}

/** Where a placement stands in this pose. */
export function placeFixture(lookup: Lookup, placement: Placement, open: OpenParts): PlacedFixture {
  const p = posed(placement, open);
  const fixture = lookup.fixture(p.fixtureId);
  const zone = posedZone(lookup.vehicle, zoneOf(lookup.vehicle, p.zoneId), open);
  const along = fixture.stands === 'along';
  // What stands along a face that is not a roof shines outward with its mount below it.
  const flat = along && Math.abs(zone.n[2]) > 0.5 ? aimFrame(zone.v, zone.n) : aimFrame(zone.n, zone.v);
  const foot = combine([zone.centre, 1], [zone.u, p.uM], [zone.v, p.vM]);
  return {
    fixture,
    zone,
    foot,
    base: p.poleM === 0 ? foot : add(foot, scale(along ? flat.up : zone.n, p.poleM)),
    frame: turnFrame(flat, p.panDeg, p.tiltDeg, p.rollDeg),
  };
}

/** All modules of a placement, in the fixture's order. */
export function placeModules(lookup: Lookup, p: Placement, open: OpenParts): PlacedModule[] {
  const { fixture, base, frame } = placeFixture(lookup, p, open);
  return fixture.modules.map((made, i) => {
    const setup: ModuleSetup | undefined = p.modules[i];
    const module = setup === undefined ? made : lookup.module(fixture, made, setup);
    return {
      placementId: p.id,
      module,
      centre: pointInFrame(base, frame, module.at),
      frame: turnFrame(frame, module.panDeg, module.tiltDeg, 0),
    };
  });
}

/** The eight corners of a placement's housing. */
export function housingCorners({ fixture, base, frame }: PlacedFixture): Vec3[] {
  const { width, height, depth } = fixture.sizeM;
  const along = fixture.stands === 'along';
  const forward = along ? [-height / 2, height / 2] : [0, depth];
  const up = along ? [0, depth] : [-height / 2, height / 2];
  return forward.flatMap((f) =>
    up.flatMap((h) => [-width / 2, width / 2].map((r) => pointInFrame(base, frame, [f, r, h]))),
  );
}

/** Corners of a module's lens, in order. */
export function lensCorners({ module, centre, frame }: PlacedModule): Vec3[] {
  const { width, height } = module.lensM;
  return [
    [-1, -1],
    [1, -1],
    [1, 1],
    [-1, 1],
  ].map(([r = 0, h = 0]) => pointInFrame(centre, frame, [0, (r * width) / 2, (h * height) / 2]));
}

/** Half the room a fixture takes on its zone along u and v, rolled as it is, m. */
export function footprint(
  { sizeM: { width, height } }: Fixture,
  rollDeg = 0,
): { halfU: number; halfV: number } {
  const c = Math.abs(Math.cos((rollDeg * Math.PI) / 180));
  const s = Math.abs(Math.sin((rollDeg * Math.PI) / 180));
  // A quarter turn leaves a cosine of 6e-17, which would add to the size.
  const exact = (v: number): number => Math.round(v * 1e9) / 1e9;
  return { halfU: exact((width * c + height * s) / 2), halfV: exact((width * s + height * c) / 2) };
}

/** Corners of a placement's mounting face on its zone with everything shut, rolled as it is, not panned or tilted. */
export function footCorners(lookup: Lookup, p: Placement): Vec3[] {
  const { fixture, base, frame } = placeFixture(lookup, { ...p, panDeg: 0, tiltDeg: 0 }, new Set());
  const { width, height } = fixture.sizeM;
  const along = fixture.stands === 'along';
  return [-1, 1].flatMap((a) =>
    [-1, 1].map((b) => {
      const across = (a * width) / 2;
      const up = (b * height) / 2;
      return pointInFrame(base, frame, along ? [up, across, 0] : [0, across, up]);
    }),
  );
}

/**
 * Why a fixture cannot go on a zone, in a sentence; null when it fits.
 * @param rollDeg - how it is turned there
 */
export function misfit(fixture: Fixture, zone: MountZone, rollDeg = 0): string | null {
  if (!fixture.mounts.includes(zone.mount))
    return `made for ${fixture.mounts.join(' or ')}, this is ${zone.mount}`;
  const mm = (m: number) => `${Math.round(m * 1000)} mm`;
  if (zone.tiesIn !== null && fixture.ties.length > 0)
    return fixture.ties.includes(zone.tiesIn)
      ? null
      : `made for ${fixture.ties.join(' or ')} lamps, this is a ${zone.tiesIn} lamp`;
  const { halfU, halfV } = footprint(fixture, rollDeg);
  if (2 * halfU > zone.widthM + FITS_M) return `${mm(2 * halfU)} wide, the zone has ${mm(zone.widthM)}`;
  if (2 * halfV > zone.heightM + FITS_M) return `${mm(2 * halfV)} high, the zone has ${mm(zone.heightM)}`;
  return null;
}

/** How a fixture has to be turned to go on a zone, degrees: not at all, or upright; null when it goes neither way. */
export function rollToFit(fixture: Fixture, zone: MountZone): 0 | 90 | null {
  if (misfit(fixture, zone) === null) return 0;
  return fixture.stands === 'out' && misfit(fixture, zone, 90) === null ? 90 : null;
}

/** A tape measure is not finer than this, m. */
const FITS_M = 0.001;

/** The nearest u, v that keeps the whole fixture on its zone. */
export function keepOnZone(
  fixture: Fixture,
  zone: MountZone,
  uM: number,
  vM: number,
  rollDeg = 0,
): { uM: number; vM: number } {
  const { halfU, halfV } = footprint(fixture, rollDeg);
  const clamp = (value: number, half: number) => Math.min(Math.max(value, -half), half);
  return {
    uM: clamp(uM, Math.max(0, zone.widthM / 2 - halfU)),
    vM: clamp(vM, Math.max(0, zone.heightM / 2 - halfV)),
  };
}

/** How a placement is held: its own way, or its zone's usual one. */
export const fixingOf = (zone: MountZone, p: Placement): Fixing => p.fixing ?? zone.fixings[0] ?? 'bracket';

/** Holes a placement makes. What is kept has its holes already, and what is removed makes none. */
export const holesOf = (fixture: Fixture, zone: MountZone, p: Placement): number =>
  fixingOf(zone, p) === 'drill' && (p.status === 'new' || p.status === 'reused') ? fixture.holes : 0;
