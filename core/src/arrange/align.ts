import type { Placement } from '../design/placement.ts';
import { zoneOf } from '../vehicle/vehicle.ts';
import { addPartner, addPlacement, changePlacement } from './lamps.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { footprint, placeFixture } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';

const chosen = (build: Build, ids: readonly string[]): Placement[] =>
  ids.flatMap((id) => build.placements.filter((p) => p.id === id));

/** A zone whose v leans further from upright than this gives no height to align, as the roof. */
const UPRIGHT = 0.5;

/** Brings lamps to the height of the first named, as far as their zones reach. */
export function alignHeights(build: Build, ids: readonly string[]): Build {
  const lookup = lookupOf(build);
  const [first, ...others] = chosen(build, ids);
  if (first === undefined) return build;
  const heightM = placeFixture(lookup, first, new Set()).base[2];
  return others.reduce((b, p) => {
    const { base, zone } = placeFixture(lookup, p, new Set());
    if (zone.v[2] < UPRIGHT) return b;
    return changePlacement(b, p.id, { vM: p.vM + (heightM - base[2]) / zone.v[2] });
  }, build);
}

/** Spaces the lamps of each zone evenly between its two outermost; fewer than three on a zone stay. */
export function spaceEvenly(build: Build, ids: readonly string[]): Build {
  const lamps = chosen(build, ids);
  return [...new Set(lamps.map((p) => p.zoneId))].reduce((b, zoneId) => {
    const inOrder = lamps.filter((p) => p.zoneId === zoneId).toSorted((p, q) => p.uM - q.uM);
    const from = inOrder[0]?.uM ?? 0;
    const step = ((inOrder.at(-1)?.uM ?? from) - from) / Math.max(1, inOrder.length - 1);
    // A partner follows its mirror image; where both were chosen, the later setting stands.
    return inOrder.reduce((c, p, i) => changePlacement(c, p.id, { uM: from + i * step }), b);
  }, build);
}

/**
 * Fills a zone with copies of a lamp: `newIds.length` more, all evenly spaced over the zone, in its colours, group
 * and aim; the orders of a sweep run on from left to right, on a front as seen from behind the vehicle. A lamp that has a
 * partner takes it along: each copy gets one, on the other zone, or on the other half of a zone across the centreline.
 *
 * @param partnerIds - for the partners, as many as `newIds`; not asked of a lamp without one
 */
export function arrayAlong(
  build: Build,
  id: string,
  newIds: readonly string[],
  partnerIds: readonly string[] = [],
): Build {
  const [lamp] = chosen(build, [id]);
  if (lamp === undefined || newIds.length === 0) return build;
  const lookup = lookupOf(build);
  const zone = zoneOf(lookup.vehicle, lamp.zoneId);
  const shares = sharesZone(build, lamp);
  const reach = Math.max(0, zone.widthM / 2 - footprint(lookup.fixture(lamp.fixtureId), lamp.rollDeg).halfU);
  /** Lamps along the zone, the first at its lesser end. */
  const along = (newIds.length + 1) * (shares ? 2 : 1);
  const isUpper = shares && lamp.uM > 0;
  const placeOf = (i: number): number => (isUpper ? along - 1 - i : i);
  const uOf = (i: number): number => -reach + (placeOf(i) * 2 * reach) / (along - 1);
  const orders = Math.max(...lamp.modules.map((m) => m.order));
  // What lies further along u is further left where u points to the vehicle's left.
  const turnOf = (place: number): number => (zone.u[1] > 0.5 ? along - 1 - place : place);
  const inTurn = (place: number): Placement['modules'] =>
    lamp.modules.map((m) => ({ ...m, order: m.order + turnOf(place) * orders }));
  const { fixtureId, zoneId, vM, panDeg, tiltDeg, rollDeg, lensTransmission, partnerId } = lamp;
  const copies = newIds.reduce((b, newId, i) => {
    const placed = addPlacement(b, { id: newId, fixtureId, zoneId, uM: uOf(i + 1), vM, rollDeg });
    const like = { panDeg, tiltDeg, lensTransmission, modules: inTurn(placeOf(i + 1)) };
    return withPatch(placed, newId, like);
  }, build);
  const paired =
    partnerId === null
      ? copies
      : newIds.reduce((b, newId, i) => addPartner(b, newId, partnerIds[i] ?? `${newId}-x`), copies);
  const numbered = withPatch(paired, id, { modules: inTurn(placeOf(0)) });
  const turned = !shares
    ? numbered
    : [partnerId ?? '', ...newIds.map((newId, i) => partnerIds[i] ?? `${newId}-x`)].reduce((b, twin, i) => {
        const there = b.placements.find((p) => p.id === twin);
        const order = turnOf(along - 1 - placeOf(i)) * orders;
        const modules = there?.modules.map((m, k) => ({
          ...m,
          order: order + (lamp.modules[k]?.order ?? 1),
        }));
        return modules === undefined ? b : withPatch(b, twin, { modules });
      }, numbered);
  return changePlacement(turned, id, { uM: uOf(0) });
}

const withPatch = (build: Build, id: string, patch: Partial<Placement>): Build => ({
  ...build,
  placements: build.placements.map((p) => (p.id === id ? { ...p, ...patch } : p)),
});

/** Whether a lamp and its partner stand on one zone, across the centreline. */
const sharesZone = (build: Build, { partnerId, zoneId }: Placement): boolean =>
  build.placements.some((p) => p.id === partnerId && p.zoneId === zoneId);

/** How many of a lamp stand side by side on its zone without touching; of a pair that shares it, how many pairs. */
export function roomFor(build: Build, lamp: Placement): number {
  const lookup = lookupOf(build);
  const zone = zoneOf(lookup.vehicle, lamp.zoneId);
  const { halfU } = footprint(lookup.fixture(lamp.fixtureId), lamp.rollDeg);
  const lamps = Math.floor(zone.widthM / (2 * halfU) + 1e-9);
  return Math.max(1, sharesZone(build, lamp) ? Math.floor(lamps / 2) : lamps);
}
