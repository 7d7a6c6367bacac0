import type { Placement } from '@flarik/core/design/placement';
import { housingCorners, lensCorners, placeFixture, placeModules } from '@flarik/core/resolve/place';
import type { Lookup } from '@flarik/core/resolve/lookup';
import { dot, type Vec3 } from '@flarik/core/geometry/vec';
import type { MountZone, Vehicle, View } from '@flarik/core/vehicle/types';
import { isOpen, posedSolids, posedZone, type OpenParts } from '@flarik/core/vehicle/vehicle';
import { outlineOf, project, toViewer } from '@flarik/core/vehicle/picture/views';
import type { Point2 } from '@flarik/core/geometry/polygon';
import { VIEWS } from './arrangement';

export const pathOf = (points: readonly Point2[]): string =>
  `M${points.map(([a, b]) => `${a},${b}`).join('L')}Z`;

/** A face turned less than this toward the viewer is not drawn: the cosine of about 78°. */
const FACING = 0.2;

const facing = (view: View, normal: Vec3): boolean => dot(toViewer[view], normal) > FACING;

export interface LensPicture {
  readonly moduleId: string;
  readonly path: string;
  readonly at: Point2;
}

/** A placement as one view shows it. */
export interface LampPicture {
  readonly placement: Placement;
  readonly view: View;
  readonly housing: string;
  /** The pole it stands on; null without one. */
  readonly pole: string | null;
  readonly lenses: readonly LensPicture[];
  readonly at: Point2;
  /** Half its extent in the view, m; its handle for the pointer is never smaller than a finger needs. */
  readonly half: Point2;
  readonly behindGlass: boolean;
  /** The one view in which the keyboard meets this lamp. */
  readonly primary: boolean;
}

/** Pictures already made, while neither the placement nor what it stands on changes. */
const made = new WeakMap<
  Placement,
  { readonly lookup: Lookup; readonly pose: string; readonly pictures: LampPicture[] }
>();

/** The pictures of a placement; made once for a placement that did not change. */
export function rememberedPictures(lookup: Lookup, placement: Placement, open: OpenParts): LampPicture[] {
  const pose = [...open].join('+');
  const known = made.get(placement);
  if (known?.lookup === lookup && known.pose === pose) return known.pictures;
  const pictures = lampPictures(lookup, placement, open);
  made.set(placement, { lookup, pose, pictures });
  return pictures;
}

/** The pictures of a placement in every view that shows it; the plan shows all, from above. */
export function lampPictures(lookup: Lookup, placement: Placement, open: OpenParts): LampPicture[] {
  const placed = placeFixture(lookup, placement, open);
  const modules = placeModules(lookup, placement, open);
  const corners = housingCorners(placed);
  const { partId, face } = placed.zone;
  const covered = face === 'inside' && !isOpen(lookup.vehicle, partId, open);
  const views = VIEWS.filter((view) => {
    if (view === 'plan') return true;
    if (covered) return false;
    if (placed.fixture.stands === 'along') return true;
    return facing(view, placed.zone.n);
  });
  const primary = views.find((view) => view !== 'plan') ?? 'plan';
  return views.map((view) => {
    const outline = outlineOf(corners.map((c) => project(view, c)));
    const as = outline.map(([a]) => a);
    const bs = outline.map(([, b]) => b);
    const [minA, maxA, minB, maxB] = [Math.min(...as), Math.max(...as), Math.min(...bs), Math.max(...bs)];
    return {
      placement,
      view,
      housing: pathOf(outline),
      pole:
        placed.foot === placed.base ? null : pathOf([project(view, placed.foot), project(view, placed.base)]),
      lenses: modules
        .filter((m) => view === 'plan' || facing(view, m.frame.aim))
        .map((m) => ({
          moduleId: m.module.id,
          path: pathOf(thick(outlineOf(lensCorners(m).map((c) => project(view, c))))),
          at: project(view, m.centre),
        })),
      at: [(minA + maxA) / 2, (minB + maxB) / 2],
      half: [(maxA - minA) / 2, (maxB - minB) / 2],
      behindGlass: placed.zone.mount === 'glass',
      primary: view === primary,
    };
  });
}

/** Edge-on lenses keep a visible thickness, m. */
const THIN_M = 0.02;

function thick(outline: readonly Point2[]): readonly Point2[] {
  const as = outline.map(([a]) => a);
  const bs = outline.map(([, b]) => b);
  const [minA, maxA, minB, maxB] = [Math.min(...as), Math.max(...as), Math.min(...bs), Math.max(...bs)];
  if (outline.length > 2 && maxA - minA >= THIN_M && maxB - minB >= THIN_M) return outline;
  const grow = (lo: number, hi: number): [number, number] => {
    const short = Math.max(0, THIN_M - (hi - lo)) / 2;
    return [lo - short, hi + short];
  };
  if (outline.length > 2 && maxA - minA >= THIN_M / 2 && maxB - minB >= THIN_M / 2) return outline;
  const [a0, a1] = grow(minA, maxA);
  const [b0, b1] = grow(minB, maxB);
  return [
    [a0, b0],
    [a1, b0],
    [a1, b1],
    [a0, b1],
  ];
}

export interface ZonePicture {
  readonly zone: MountZone;
  readonly path: string;
  readonly at: Point2;
}

/** The zones that face a view; one inside that is shut off only from the end of the vehicle that it is in. */
export function zonePictures(vehicle: Vehicle, view: View, open: OpenParts): ZonePicture[] {
  return vehicle.zones.flatMap((fixed) => {
    const zone = posedZone(vehicle, fixed, open);
    if (!facing(view, zone.n)) return [];
    const covered = zone.face === 'inside' && !isOpen(vehicle, zone.partId, open);
    if (covered && dot(zone.centre, toViewer[view]) <= 0) return [];
    const corners = [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ].map(([u = 0, v = 0]): Point2 => {
      const p = offset(zone, (u * zone.widthM) / 2, (v * zone.heightM) / 2);
      return project(view, p);
    });
    return [{ zone: fixed, path: pathOf(corners), at: project(view, zone.centre) }];
  });
}

const offset = (zone: MountZone, u: number, v: number): Vec3 => [
  zone.centre[0] + zone.u[0] * u + zone.v[0] * v,
  zone.centre[1] + zone.u[1] * u + zone.v[1] * v,
  zone.centre[2] + zone.u[2] * u + zone.v[2] * v,
];

/** An open part's solid as a view shows it, in front of the body or behind it. */
export interface PartPicture {
  readonly id: string;
  readonly path: string;
  readonly glass: boolean;
  readonly front: boolean;
}

export function openPartPictures(vehicle: Vehicle, view: View, open: OpenParts): PartPicture[] {
  return posedSolids(vehicle, open)
    .filter((s) => isOpen(vehicle, s.partId, open))
    .map((s) => {
      const depth = s.vertices.reduce((sum, v) => sum + dot(toViewer[view], v), 0) / s.vertices.length;
      return {
        id: s.id,
        path: pathOf(outlineOf(s.vertices.map((v) => project(view, v)))),
        glass: s.transmission > 0,
        front: depth > (view === 'plan' ? 0.5 : 0),
      };
    });
}

/**
 * How far along a zone's u and v a step on a view leads, by least squares: what the view cannot show stays.
 *
 * @param step - m on the view
 */
export function stepOnZone(view: View, zone: MountZone, [da, db]: Point2): { du: number; dv: number } {
  const [ua, ub] = project(view, zone.u);
  const [va, vb] = project(view, zone.v);
  const small = 1e-3;
  const uu = ua * ua + ub * ub + small;
  const vv = va * va + vb * vb + small;
  const uv = ua * va + ub * vb;
  const ru = ua * da + ub * db;
  const rv = va * da + vb * db;
  const det = uu * vv - uv * uv;
  return { du: (ru * vv - rv * uv) / det, dv: (rv * uu - ru * uv) / det };
}
