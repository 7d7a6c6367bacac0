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
 * and aim; the orders of a sweep run on from left to right, on a front as seen from behind the vehicle. A lamp that has its partner on
 * another zone takes it along: each copy gets one.
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
  const reach = Math.max(0, zone.widthM / 2 - footprint(lookup.fixture(lamp.fixtureId)).halfU);
  const step = (2 * reach) / newIds.length;
  const places = Math.max(...lamp.modules.map((m) => m.order));
  // What lies further along u is further left where u points to the vehicle's left.
  const turnOf = (i: number): number => (zone.u[1] > 0.5 ? newIds.length - i : i);
  const inTurn = (i: number): Placement['modules'] =>
    lamp.modules.map((m) => ({ ...m, order: m.order + turnOf(i) * places }));
  const copies = newIds.reduce((b, newId, i) => {
    const { fixtureId, zoneId, vM } = lamp;
    const placed = addPlacement(b, { id: newId, fixtureId, zoneId, uM: -reach + (i + 1) * step, vM });
    return {
      ...placed,
      placements: placed.placements.map((p) =>
        p.id === newId
          ? {
              ...p,
              panDeg: lamp.panDeg,
              tiltDeg: lamp.tiltDeg,
              rollDeg: lamp.rollDeg,
              lensTransmission: lamp.lensTransmission,
              modules: inTurn(i + 1),
            }
          : p,
      ),
    };
  }, build);
  const paired =
    lamp.partnerId === null || zone.mirrorId === zone.id
      ? copies
      : newIds.reduce((b, newId, i) => addPartner(b, newId, partnerIds[i] ?? `${newId}-x`), copies);
  const numbered = {
    ...paired,
    placements: paired.placements.map((p) => (p.id === id ? { ...p, modules: inTurn(0) } : p)),
  };
  return changePlacement(numbered, id, { uM: -reach });
}

/** How many of a fixture stand side by side on a zone without touching. */
export function roomFor(
  build: Build,
  { fixtureId, zoneId }: Pick<Placement, 'fixtureId' | 'zoneId'>,
): number {
  const lookup = lookupOf(build);
  const zone = zoneOf(lookup.vehicle, zoneId);
  return Math.max(1, Math.floor(zone.widthM / lookup.fixture(fixtureId).sizeM.width + 1e-9));
}
