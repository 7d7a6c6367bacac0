import { aimFrame, pointInFrame, turnFrame, type AimFrame } from '../geometry/frame.ts';
import { add, combine, scale, type Vec3 } from '../geometry/vec.ts';
import type { Fixture, FixtureModule } from '../fixture/types.ts';
import type { Fixing, MountZone } from '../vehicle/types.ts';
import { posedZone, zoneOf, type OpenParts } from '../vehicle/vehicle.ts';
import type { Lookup } from './lookup.ts';
import type { ModuleSetup, Placement } from '../design/schema.ts';

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
  readonly base: Vec3;
  readonly frame: AimFrame;
}

/** Where a placement stands in this pose. */
export function placeFixture(lookup: Lookup, p: Placement, open: OpenParts): PlacedFixture {
  const fixture = lookup.fixture(p.fixtureId);
  const zone = posedZone(lookup.vehicle, zoneOf(lookup.vehicle, p.zoneId), open);
  const along = fixture.stands === 'along';
  // What stands along a face that is not a roof shines outward with its mount below it.
  const flat = along && Math.abs(zone.n[2]) > 0.5 ? aimFrame(zone.v, zone.n) : aimFrame(zone.n, zone.v);
  const foot = combine([zone.centre, 1], [zone.u, p.uM], [zone.v, p.vM]);
  return {
    fixture,
    zone,
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

/** Half the room a fixture takes on its zone, along u and v, m. */
export function footprint(fixture: Fixture): { halfU: number; halfV: number } {
  return { halfU: fixture.sizeM.width / 2, halfV: fixture.sizeM.height / 2 };
}

/** Why a fixture cannot go on a zone, in a sentence; null when it fits. */
export function misfit(fixture: Fixture, zone: MountZone): string | null {
  if (!fixture.mounts.includes(zone.mount))
    return `made for ${fixture.mounts.join(' or ')}, this is ${zone.mount}`;
  const mm = (m: number) => `${Math.round(m * 1000)} mm`;
  if (fixture.sizeM.width > zone.widthM)
    return `${mm(fixture.sizeM.width)} wide, the zone has ${mm(zone.widthM)}`;
  if (fixture.sizeM.height > zone.heightM)
    return `${mm(fixture.sizeM.height)} high, the zone has ${mm(zone.heightM)}`;
  return null;
}

/** The nearest u, v that keeps the whole fixture on its zone. */
export function keepOnZone(
  fixture: Fixture,
  zone: MountZone,
  uM: number,
  vM: number,
): { uM: number; vM: number } {
  const { halfU, halfV } = footprint(fixture);
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
