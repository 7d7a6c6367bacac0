import { cross, dot, mirrorY, scale, sub, unit, type Vec3 } from '../../geometry/vec.ts';
import type { MountStyle } from '../../fixture/types.ts';
import type { Fixing, MountZone } from '../types.ts';

/** A zone as it is described: what is not said follows from how it takes a fixture. */
export type ZoneSpec = Pick<
  MountZone,
  'id' | 'name' | 'face' | 'mount' | 'centre' | 'n' | 'widthM' | 'heightM' | 'behind'
> &
  Partial<Pick<MountZone, 'partId' | 'fixings' | 'singleWall' | 'reach' | 'behindM' | 'outM' | 'tiesIn'>>;

const UP: Vec3 = [0, 0, 1];
const FORWARD: Vec3 = [1, 0, 0];

const usualFixings: Readonly<Record<MountStyle, readonly Fixing[]>> = {
  panel: ['drill', 'bracket', 'adhesive'],
  glass: ['bracket', 'adhesive'],
  roof: ['drill', 'bracket', 'magnet'],
  mirror: ['bracket', 'drill'],
  edge: ['drill', 'adhesive'],
  factory: ['as fitted'],
};

/** Lays a zone's axes: v as near to up (forward on the roof) as its normal lets it, u to the viewer's right. */
export function zone(spec: ZoneSpec): MountZone {
  const n = unit(spec.n);
  const hint = Math.abs(n[2]) > 0.9 ? FORWARD : UP;
  const v = unit(sub(hint, scale(n, dot(hint, n))));
  return {
    partId: null,
    behindM: null,
    outM: null,
    tiesIn: null,
    fixings: spec.singleWall === true ? ['bracket', 'adhesive'] : usualFixings[spec.mount],
    singleWall: false,
    reach: 'free',
    ...spec,
    n,
    v,
    u: cross(v, n),
    mirrorId: spec.id,
  };
}

/** A left-hand zone and its mirror image on the right. */
export function zonePair(spec: ZoneSpec): MountZone[] {
  const right = (text: string) => text.replace('left', 'right');
  const left = zone(spec);
  const twin = zone({
    ...spec,
    id: right(spec.id),
    name: right(spec.name),
    face: spec.face === 'left' ? 'right' : spec.face,
    ...(spec.partId === undefined || spec.partId === null ? {} : { partId: right(spec.partId) }),
    centre: mirrorY(spec.centre),
    n: mirrorY(spec.n),
  });
  return [
    { ...left, mirrorId: twin.id },
    { ...twin, mirrorId: left.id },
  ];
}
