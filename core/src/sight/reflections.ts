import { hasHousing, housingOf } from '../coverage/housings.ts';
import type { Build } from '../design/schema.ts';
import { bearingOf } from '../geometry/direction.ts';
import { entryM } from '../geometry/ray.ts';
import type { Solid } from '../geometry/solid.ts';
import { add, cross, dot, length, scale, sub, unit, type Vec3 } from '../geometry/vec.ts';
import { HighestTogether } from '../resolve/highest.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { Vehicle } from '../vehicle/types.ts';
import { paneReflectance } from './fresnel.ts';
import { glareAt, type Glare } from './glare.ts';
import type { ModuleLight } from './source.ts';
import { solidName, solidsIn, type Station } from './stations.ts';
import { partText } from '../vehicle/partText.ts';

/** Rays end this far before a surface, so that it does not hide its own light, m. */
const BEFORE_M = 1e-3;
/** Less light than this at the eye is not worth a name, lx. */
const NAMED_LX = 1e-3;
/** Of the faces of a pane those that are its panes, not its rims: with so much of the area of the largest. */
const PANE_SHARE = 0.5;
/** What a vehicle's outside mirror throws back: between the 0.4 that UN R46 asks for and the 0.8 of polished silver. */
const MIRROR_REFLECTANCE = 0.55;

/** A flat thing that mirrors: a polygon, seen from the side its normal points to. */
export interface Mirror {
  readonly name: string;
  /** Corners in order, m. */
  readonly polygon: readonly Vec3[];
  /** Unit vector. */
  readonly normal: Vec3;
  /** Share of the light that it throws back. @param cosIn - of the angle between the ray and the normal */
  readonly reflectance: (cosIn: number) => number;
}

/** What one pane or mirror shows an eye of the lamps. */
export interface Reflection extends Pick<Glare, 'highest' | 'mean' | 'eyeLx'> {
  readonly mirror: string;
  /** Where the brightest image is seen. */
  readonly bearingDeg: number;
  readonly elevationDeg: number;
  /** Each lamp's share of the light at the eye, all at their highest, the greatest first. */
  readonly byLamp: readonly { readonly placementId: string; readonly share: number }[];
}

/**
 * What the driver sees of the own lamps in panes of the cab and in the outside mirrors: the image of each module behind the
 * surface, as far as the ray to the surface and on to the eye is free of body and housings. The most light first.
 */
export function reflectionsAt(
  build: Build,
  open: readonly string[],
  lights: readonly ModuleLight[],
  { eye, view }: Pick<Station, 'eye' | 'view'>,
): Reflection[] {
  const lookup = lookupOf(build);
  const solids = solidsIn(lookup.vehicle, open);
  const housings = build.placements.filter(hasHousing).map((p) => housingOf(lookup, p, open));
  const byName = new Map<string, Mirror[]>();
  for (const solid of solids)
    for (const mirror of [
      ...panesOf(lookup.vehicle, solid),
      ...(showsBack(lookup.vehicle, solid, open) ? outsideMirror(solid, eye) : []),
    ])
      byName.set(mirror.name, [...(byName.get(mirror.name) ?? []), mirror]);
  return [...byName]
    .flatMap(
      ([name, mirrors]) => reflectionIn(name, mirrors, [...solids, ...housings], lights, eye, view) ?? [],
    )
    .toSorted((a, b) => b.eyeLx - a.eyeLx);
}

/** What one pane, or several that are one, shows; null where it shows nothing worth a name. */
function reflectionIn(
  name: string,
  mirrors: readonly Mirror[],
  solids: readonly Solid[],
  lights: readonly ModuleLight[],
  eye: Vec3,
  view: Vec3,
): Reflection | null {
  const images = lights.flatMap((light) =>
    imagesIn(mirrors, light.centre, eye).flatMap(({ at, behind, reflectance }): ModuleLight[] => {
      const to = sub(at, light.centre);
      const seen = sub(at, eye);
      const arrives =
        reflectance *
        light.shareToward(unit(to), length(to) - BEFORE_M) *
        passAlong(solids, eye, unit(seen), length(seen) - BEFORE_M);
      return arrives === 0 ? [] : [{ ...light, centre: behind, shareToward: () => arrives }];
    }),
  );
  // An image shines on the eye as a lamp would that stood there.
  const { highest, mean, eyeLx } = glareAt(images, { eye, view });
  if (eyeLx < NAMED_LX) return null;
  const named = images.map((image) => ({ ...image, lx: mostLx(image, eye) }));
  const brightest = named.reduce((a, b) => (b.lx > a.lx ? b : a));
  const all = named.reduce((sum, { lx }) => sum + lx, 0);
  const byLamp = new Map<string, number>();
  for (const { placementId, lx } of named) byLamp.set(placementId, (byLamp.get(placementId) ?? 0) + lx / all);
  return {
    mirror: name,
    eyeLx,
    highest,
    mean,
    ...bearingOf(unit(sub(brightest.centre, eye))),
    byLamp: [...byLamp]
      .map(([placementId, share]) => ({ placementId, share }))
      .toSorted((a, b) => b.share - a.share),
  };
}

/** Illuminance at an eye across the ray, with all that a module shows at its highest, lx. */
function mostLx({ centre, shareToward, drives }: ModuleLight, eye: Vec3): number {
  const to = sub(eye, centre);
  const farM = length(to);
  const highest = new HighestTogether(drives).of((at) => drives[at]?.peakCd ?? 0);
  return (highest * shareToward(unit(to), farM)) / farM ** 2;
}

/** Where a point is seen in a mirror. */
export interface Image {
  /** On the mirror. */
  readonly at: Vec3;
  /** Where it seems to be, as far behind the mirror as the point is before it. */
  readonly behind: Vec3;
  /** Share of its light that comes on. */
  readonly reflectance: number;
}

/** The images of a point in mirrors for an eye: each ray leaves as flat as it falls on one. */
export const imagesIn = (mirrors: readonly Mirror[], point: Vec3, eye: Vec3): Image[] =>
  mirrors.flatMap(({ polygon, normal, reflectance }): Image[] => {
    const [corner] = polygon;
    if (corner === undefined) return [];
    const off = dot(normal, sub(point, corner));
    const eyeOff = dot(normal, sub(eye, corner));
    if (off <= 0 || eyeOff <= 0) return [];
    const behind = sub(point, scale(normal, 2 * off));
    const way = sub(behind, eye);
    const at = add(eye, scale(way, eyeOff / (eyeOff + off)));
    return isWithin(polygon, normal, at)
      ? [{ at, behind, reflectance: reflectance((eyeOff + off) / length(way)) }]
      : [];
  });

/** Whether a point of its plane lies within a convex polygon, whichever way round its corners go. */
function isWithin(polygon: readonly Vec3[], normal: Vec3, point: Vec3): boolean {
  const sides = polygon.map((corner, i) => {
    const next = polygon[(i + 1) % polygon.length] ?? corner;
    return dot(cross(sub(next, corner), sub(point, corner)), normal);
  });
  return sides.every((side) => side >= 0) || sides.every((side) => side <= 0);
}

/** The two sides of a pane that is a solid of the body. */
function panesOf(vehicle: Vehicle, solid: Solid): Mirror[] {
  const { transmission, partId, faces, planes, vertices } = solid;
  if (transmission === 0) return [];
  const part = partText(solidName(vehicle, solid));
  const name = partId === null ? part : `glass of ${part}`;
  const sides = faces.map((face, i) => {
    const polygon = face.flatMap((at) => vertices.slice(at, at + 1));
    return { polygon, normal: planes[i]?.n ?? UP, area: areaOf(polygon) };
  });
  const largest = Math.max(...sides.map(({ area }) => area));
  return sides
    .filter(({ area }) => area >= PANE_SHARE * largest)
    .map(({ polygon, normal }) => ({ name, polygon, normal, reflectance: paneReflectance }));
}

const UP: Vec3 = [0, 0, 1];

/** Area of a plane polygon, m². */
const areaOf = (polygon: readonly Vec3[]): number =>
  length(
    polygon.reduce<Vec3>(
      (sum, corner, i) => {
        const next = polygon[(i + 1) % polygon.length] ?? corner;
        return add(sum, scale(cross(corner, next), 0.5));
      },
      [0, 0, 0],
    ),
  );

/** Whether a solid is an outside mirror on a shut door, and no wider one stands in its place. */
const showsBack = (vehicle: Vehicle, { id, partId }: Solid, open: readonly string[]): boolean =>
  /^(wide-)?mirror-(left|right)$/.test(id) &&
  !vehicle.solids.some((other) => other.id === `wide-${id}`) &&
  vehicle.parts.every((part) => part.id !== partId || !part.stops.some((stop) => open.includes(stop.id)));

/** The glass at the back of an outside mirror, turned so that the eye sees straight back in its middle. */
function outsideMirror({ id, vertices }: Solid, eye: Vec3): Mirror[] {
  const span = (axis: 0 | 1 | 2): readonly [number, number] => {
    const values = vertices.map((corner) => corner[axis]);
    return [Math.min(...values), Math.max(...values)];
  };
  const [[rearX], [y0, y1], [z0, z1]] = [span(0), span(1), span(2)];
  const back: Vec3 = [rearX, (y0 + y1) / 2, (z0 + z1) / 2];
  const normal = unit(add(unit(sub(eye, back)), [-1, 0, 0]));
  const across = unit(cross(UP, normal));
  const up = cross(normal, across);
  // So far back that no corner is within the housing.
  const halves = [(y1 - y0) / 2, (z1 - z0) / 2] as const;
  const deep = Math.abs(across[0]) * halves[0] + Math.abs(up[0]) * halves[1] + BEFORE_M;
  const middle: Vec3 = [back[0] - deep, back[1], back[2]];
  const corner = (a: number, b: number): Vec3 =>
    add(middle, add(scale(across, a * halves[0]), scale(up, b * halves[1])));
  const polygon = [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
  const side = id.endsWith('left') ? 'left' : 'right';
  return [{ name: `${side} mirror`, polygon, normal, reflectance: () => MIRROR_REFLECTANCE }];
}

/** Share of light that solids before an end let pass toward an eye. An eye that is within a solid sees through it. */
function passAlong(solids: readonly Solid[], eye: Vec3, direction: Vec3, endM: number): number {
  let share = 1;
  for (const solid of solids) {
    if (solid.transmission === 1) continue;
    const atM = entryM(solid, eye, direction);
    if (atM > 0 && atM < endM) share *= solid.transmission;
  }
  return share;
}
