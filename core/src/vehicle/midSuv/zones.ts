import { cross, dot, mirrorY, scale, sub, unit, type Vec3 } from '../../geometry/vec.ts';
import type { MountZone } from '../types.ts';
import type { MidSuvPoints } from './points.ts';

type ZoneSpec = Omit<MountZone, 'u' | 'v' | 'mirrorId'>;

const UP: Vec3 = [0, 0, 1];
const FORWARD: Vec3 = [1, 0, 0];

/** Lays a zone's axes: v as near to up (forward on the roof) as its normal lets it, u to the viewer's right. */
function zone(spec: ZoneSpec): MountZone {
  const n = unit(spec.n);
  const hint = Math.abs(n[2]) > 0.9 ? FORWARD : UP;
  const v = unit(sub(hint, scale(n, dot(hint, n))));
  return { ...spec, n, v, u: cross(v, n), mirrorId: spec.id };
}

/** A left-hand zone and its mirror image on the right. */
function pair(spec: ZoneSpec): MountZone[] {
  const right = (text: string) => text.replace('left', 'right');
  const left = zone(spec);
  const twin = zone({
    ...spec,
    id: right(spec.id),
    name: right(spec.name),
    face: spec.face === 'left' ? 'right' : spec.face,
    partId: spec.partId === null ? null : right(spec.partId),
    centre: mirrorY(spec.centre),
    n: mirrorY(spec.n),
  });
  return [
    { ...left, mirrorId: twin.id },
    { ...twin, mirrorId: left.id },
  ];
}

const NEAR_GLASS_M = 0.03;

export function midSuvZones(p: MidSuvPoints): MountZone[] {
  const w = p.halfWidth;
  return [
    zone({
      id: 'grille',
      name: 'Grille',
      face: 'front',
      mount: 'panel',
      partId: null,
      centre: [p.noseX - 0.08, 0, p.noseZ - 0.12],
      n: [1, 0, 0],
      widthM: 1.1,
      heightM: 0.16,
      behind: 'Radiator grille bars: bracket, no drilling into the cooler',
    }),
    zone({
      id: 'front-bumper',
      name: 'Front bumper',
      face: 'front',
      mount: 'panel',
      partId: null,
      centre: [p.noseX + 0.002, 0, 0.5],
      n: [1, 0, 0],
      widthM: 1.14,
      heightM: 0.2,
      behind: 'Bumper skin, foam and beam',
    }),
    ...pair({
      id: 'corner-front-left',
      name: 'Front left corner',
      face: 'corner',
      mount: 'panel',
      partId: null,
      centre: [p.noseX - 0.138, (0.58 + w - 0.03) / 2, 0.52],
      n: [w - 0.61, 0.28, 0],
      widthM: 0.36,
      heightM: 0.2,
      behind: 'Bumper skin, hollow; washer hose',
    }),
    ...pair({
      id: 'wing-left',
      name: 'Front wing left',
      face: 'left',
      mount: 'panel',
      partId: null,
      centre: [p.frontAxleX - 0.1, w + 0.002, p.beltZ - 0.16],
      n: [0, 1, 0],
      widthM: 0.7,
      heightM: 0.14,
      behind: 'Single-wall wing; wheel-house liner',
    }),
    ...pair({
      id: 'mirror-left',
      name: 'Mirror left',
      face: 'corner',
      mount: 'mirror',
      partId: 'door-front-left',
      centre: [p.doorFrontX + 0.03, w + 0.13, p.beltZ + 0.02],
      n: [1, 0.8, 0],
      widthM: 0.2,
      heightM: 0.1,
      behind: 'Mirror base casting',
    }),
    ...pair({
      id: 'sill-left',
      name: 'Sill left',
      face: 'left',
      mount: 'panel',
      partId: null,
      centre: [(p.doorFrontX + p.doorRearX) / 2, w + 0.002, p.sillZ - 0.07],
      n: [0, 1, 0],
      widthM: 1.7,
      heightM: 0.1,
      behind: 'Sill box section: corrosion protection at every hole',
    }),
    ...pair({
      id: 'quarter-left',
      name: 'Rear quarter left',
      face: 'left',
      mount: 'panel',
      partId: null,
      centre: [p.rearAxleX - 0.42, w + 0.002, p.beltZ - 0.14],
      n: [0, 1, 0],
      widthM: 0.5,
      heightM: 0.16,
      behind: 'Single-wall quarter panel; filler pipe on the right',
    }),
    ...pair({
      id: 'quarter-glass-left',
      name: 'Quarter glass left',
      face: 'left',
      mount: 'glass',
      partId: null,
      centre: [(p.doorRearX - 0.1 + p.glassFootX + 0.24) / 2, w - 0.13, p.beltZ + 0.22],
      n: [0, 1, 0],
      widthM: 0.5,
      heightM: 0.2,
      behind: 'Inside, behind privacy glass',
    }),
    ...pair({
      id: 'roof-side-left',
      name: 'Roof side left',
      face: 'left',
      mount: 'panel',
      partId: null,
      centre: [p.pillarX - 0.45, p.railY + 0.004, p.railZ + 0.05],
      n: [0, 1, 0],
      widthM: 1,
      heightM: 0.1,
      behind: 'Roof rail; curtain airbag below: bracket to the rail only',
    }),
    zone({
      id: 'windscreen',
      name: 'Windscreen top',
      face: 'front',
      mount: 'glass',
      partId: null,
      centre: [p.roofFrontX - 0.02, 0, p.railZ - 0.09],
      n: [1, 0, 0],
      widthM: 1.2,
      heightM: 0.1,
      behind: 'Headliner, behind the windscreen; keep the camera at the middle clear',
    }),
    zone({
      id: 'roof',
      name: 'Roof',
      face: 'top',
      mount: 'roof',
      partId: null,
      centre: [p.pillarX + 0.02, 0, p.roofZ + 0.002],
      n: [0, 0, 1],
      widthM: 1.3,
      heightM: 0.5,
      behind: 'Roof skin; strap or rail mount, one cable gland',
    }),
    zone({
      id: 'spoiler',
      name: 'Spoiler',
      face: 'rear',
      mount: 'panel',
      partId: 'hatch',
      centre: [p.roofRearX - 0.075, 0, p.railZ - 0.03],
      n: [-1, 0, 0],
      widthM: 1.1,
      heightM: 0.09,
      behind: 'Under the spoiler lip, on the hatch',
    }),
    zone({
      id: 'rear-glass',
      name: 'Rear glass',
      face: 'rear',
      mount: 'glass',
      partId: 'hatch',
      centre: [(p.glassFootX + p.roofRearX) / 2 + NEAR_GLASS_M + 0.09, 0, (p.beltZ + p.railZ) / 2 + 0.14],
      n: [-1, 0, 0],
      widthM: 1.1,
      heightM: 0.14,
      behind: 'Hatch frame inside, behind privacy glass',
    }),
    ...pair({
      id: 'hatch-panel-left',
      name: 'Hatch panel left',
      face: 'rear',
      mount: 'panel',
      partId: 'hatch',
      centre: [p.hatchFootX - 0.012, 0.5, p.beltZ - 0.16],
      n: [-1, 0, 0],
      widthM: 0.5,
      heightM: 0.12,
      behind: 'Double-wall hatch; plate and latch in the middle',
    }),
    zone({
      id: 'hatch-lip',
      name: 'Under the hatch',
      face: 'inside',
      mount: 'edge',
      partId: 'hatch',
      centre: [p.hatchFootX + 0.04, 0, p.bumperTopZ - 0.001],
      n: [0, 0, -1],
      widthM: 1.2,
      heightM: 0.08,
      behind: 'Lower edge of the hatch: covered when shut, faces the rear when open',
    }),
    zone({
      id: 'rear-bumper',
      name: 'Rear bumper',
      face: 'rear',
      mount: 'panel',
      partId: null,
      centre: [p.tailX - 0.002, 0, 0.55],
      n: [-1, 0, 0],
      widthM: 1.14,
      heightM: 0.18,
      behind: 'Bumper skin; parking sensors beside',
    }),
    ...pair({
      id: 'corner-rear-left',
      name: 'Rear left corner',
      face: 'corner',
      mount: 'panel',
      partId: null,
      centre: [p.tailX + 0.138, (0.58 + w - 0.03) / 2, 0.55],
      n: [-(w - 0.61), 0.28, 0],
      widthM: 0.36,
      heightM: 0.18,
      behind: 'Bumper skin, hollow',
    }),
    ...pair(doorEdge(p, 'front', p.pillarX)),
    ...pair(doorEdge(p, 'rear', p.doorRearX)),
  ];
}

/** The inner face of a door near its free edge: covered by the pillar when shut, faces the rear when open. */
const doorEdge = (p: MidSuvPoints, which: 'front' | 'rear', edgeX: number): ZoneSpec => ({
  id: `door-edge-${which}-left`,
  name: `${which === 'front' ? 'Front' : 'Rear'} left door edge`,
  face: 'inside',
  mount: 'edge',
  partId: `door-${which}-left`,
  centre: [edgeX + 0.06, p.halfWidth - 0.062, p.beltZ - 0.3],
  n: [0, -1, 0],
  widthM: 0.1,
  heightM: 0.3,
  behind: 'Door shell; window channel above',
});
