import type { Placement } from '@flarik/core/design/placement';
import type { Lookup } from '@flarik/core/resolve/lookup';
import { footprint, placeModules } from '@flarik/core/resolve/place';
import { roomAround, type Guide } from '@flarik/core/arrange/snap';
import { combine } from '@flarik/core/geometry/vec';
import { DIMENSIONS, type DimensionKey } from '@flarik/core/vehicle/body/dimension';
import type { VehicleSpec } from '@flarik/core/vehicle/spec';
import type { MountZone, Vehicle, View } from '@flarik/core/vehicle/types';
import { posedZone, zoneOf, type OpenParts } from '@flarik/core/vehicle/vehicle';
import { project } from '@flarik/core/vehicle/picture/views';
import type { Point2 } from '@flarik/core/geometry/polygon';
import { formatQuantity } from '@flarik/core/words/quantity';

/** A measured distance drawn on a view. */
export interface DimensionPicture {
  readonly id: string;
  readonly from: Point2;
  readonly to: Point2;
  readonly text: string;
}

/** Where one of the vehicle's own dimensions is measured, on the view that shows it. */
export interface MarkPicture extends Omit<DimensionPicture, 'id'> {
  readonly view: View;
  /** From where to where, in words. */
  readonly measured: string;
}

const isDimension = (key: string): key is DimensionKey => key in DIMENSIONS;

/** The mark of a dimension by its key; null for one that this vehicle does not have. */
export function markOf(spec: VehicleSpec, vehicle: Vehicle, key: string): MarkPicture | null {
  const found = vehicle.marks[key];
  if (found === undefined || !isDimension(key)) return null;
  const value = spec.dimensions[key] ?? 0;
  const figure = key.endsWith('Deg') ? `${value}°` : formatQuantity(value * 1000, 'mm');
  return {
    view: found.view,
    from: project(found.view, found.from),
    to: project(found.view, found.to),
    text: `${DIMENSIONS[key].name}: ${figure}`,
    measured: DIMENSIONS[key].measured,
  };
}

/** A line that a lamp was drawn to. */
export interface GuidePicture {
  readonly id: string;
  readonly from: Point2;
  readonly to: Point2;
  readonly why: string;
}

/** Nearer than this there is nothing to measure, m. */
const NOTHING_M = 0.004;

const onView = (view: View, zone: MountZone, u: number, v: number): Point2 =>
  project(view, combine([zone.centre, 1], [zone.u, u], [zone.v, v]));

const mm = (m: number): string => `${Math.round(m * 1000)}`;

/** The room around a lamp on its zone, and its height above the ground, as one view shows them. */
export function dimensionsOf(
  lookup: Lookup,
  others: readonly Placement[],
  p: Placement,
  view: View,
  open: OpenParts,
): DimensionPicture[] {
  const zone = posedZone(lookup.vehicle, zoneOf(lookup.vehicle, p.zoneId), open);
  const { halfU, halfV } = footprint(lookup.fixture(p.fixtureId));
  const room = roomAround(lookup, others, p);
  const at = (u: number, v: number): Point2 => onView(view, zone, u, v);
  const sides: readonly (DimensionPicture & { readonly m: number })[] = [
    {
      id: 'left',
      m: room.leftM,
      from: at(p.uM - halfU - room.leftM, p.vM),
      to: at(p.uM - halfU, p.vM),
      text: mm(room.leftM),
    },
    {
      id: 'right',
      m: room.rightM,
      from: at(p.uM + halfU, p.vM),
      to: at(p.uM + halfU + room.rightM, p.vM),
      text: mm(room.rightM),
    },
    {
      id: 'below',
      m: room.belowM,
      from: at(p.uM, p.vM - halfV - room.belowM),
      to: at(p.uM, p.vM - halfV),
      text: mm(room.belowM),
    },
    {
      id: 'above',
      m: room.aboveM,
      from: at(p.uM, p.vM + halfV),
      to: at(p.uM, p.vM + halfV + room.aboveM),
      text: mm(room.aboveM),
    },
  ];
  const shown = sides.filter(
    ({ m, from, to }) => m > NOTHING_M && Math.hypot(to[0] - from[0], to[1] - from[1]) > NOTHING_M,
  );
  const height = placeModules(lookup, p, open)[0]?.centre[2];
  if (view === 'plan' || height === undefined) return shown;
  const [a] = at(p.uM, p.vM);
  return [...shown, { id: 'height', from: [a, 0], to: [a, height], text: `${mm(height)} up` }];
}

/** What a moved lamp was drawn to, across its zone. */
export function guidesOf(
  lookup: Lookup,
  guides: readonly Guide[],
  zoneId: string,
  view: View,
  open: OpenParts,
): GuidePicture[] {
  const zone = posedZone(lookup.vehicle, zoneOf(lookup.vehicle, zoneId), open);
  return guides.map(({ axis, atM, why }) => ({
    id: `${axis} ${why}`,
    why,
    from:
      axis === 'u' ? onView(view, zone, atM, -zone.heightM / 2) : onView(view, zone, -zone.widthM / 2, atM),
    to: axis === 'u' ? onView(view, zone, atM, zone.heightM / 2) : onView(view, zone, zone.widthM / 2, atM),
  }));
}
