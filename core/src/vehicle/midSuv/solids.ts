import { box, extrudeAcross, prism, sheetSolid, type Solid, type SolidTraits } from '../../geometry/solid.ts';
import { mirrorY, type Vec3 } from '../../geometry/vec.ts';
import type { MovingPart } from '../types.ts';
import type { MidSuvPoints } from './points.ts';

/** Share of light through laminated windscreen glass, and through dark rear glass. */
const WINDSCREEN = 0.75;
const PRIVACY = 0.25;
const FRONT_DOOR_GLASS = 0.7;

const PANEL_M = 0.06;
const GLASS_M = 0.006;

export function midSuvParts(p: MidSuvPoints): MovingPart[] {
  const door = (id: string, name: string, x: number, side: 1 | -1): MovingPart => ({
    id,
    name,
    open: { through: [x, side * p.halfWidth, 0], axis: [0, 0, 1], angleDeg: -side * 66 },
  });
  return [
    door('door-front-left', 'Front left door', p.doorFrontX, 1),
    door('door-front-right', 'Front right door', p.doorFrontX, -1),
    door('door-rear-left', 'Rear left door', p.pillarX, 1),
    door('door-rear-right', 'Rear right door', p.pillarX, -1),
    {
      id: 'hatch',
      name: 'Hatch',
      open: { through: [p.roofRearX, 0, p.railZ], axis: [0, 1, 0], angleDeg: 84 },
    },
    {
      id: 'bonnet',
      name: 'Bonnet',
      open: { through: [p.cowlX, 0, p.beltZ], axis: [0, 1, 0], angleDeg: -52 },
    },
  ];
}

export function midSuvSolids(p: MidSuvPoints): Solid[] {
  const left = sideOf(p);
  return [...hull(p), ...left, ...left.map(mirrorSolid)];
}

/** What lies across the centreline: nose, floor, bumpers, roof, windscreen, hatch, bonnet. */
function hull(p: MidSuvPoints): Solid[] {
  const w = p.halfWidth;
  const engine: [number, number][] = [
    [p.noseX - 0.06, 0.5],
    [p.noseX - 0.12, p.noseZ - 0.03],
    [p.cowlX, p.beltZ - 0.05],
    [p.cowlX, p.floorZ],
    [p.noseX - 0.35, p.floorZ],
  ];
  const hatchPanel: [number, number][] = [
    [p.glassFootX, p.beltZ],
    [p.hatchFootX - 0.01, p.beltZ - 0.12],
    [p.hatchFootX, p.bumperTopZ],
    [p.hatchFootX + 0.08, p.bumperTopZ],
    [p.glassFootX + 0.08, p.beltZ],
  ];
  const bonnet: [number, number][] = [
    [p.noseX - 0.13, p.noseZ - 0.02],
    [p.noseX - 0.16, p.noseZ],
    [p.cowlX, p.beltZ],
    [p.cowlX, p.beltZ - 0.04],
  ];
  const roof: [number, number][] = [
    [p.roofFrontX, p.railZ],
    [p.roofFrontX - 0.35, p.roofZ],
    [p.roofRearX + 0.45, p.roofZ],
    [p.roofRearX, p.railZ],
  ];
  const glassAcross = (
    id: string,
    foot: number,
    head: number,
    footY: number,
    headY: number,
    inward: Vec3,
    traits: SolidTraits,
  ) =>
    sheetSolid(
      id,
      [
        [foot, footY, p.beltZ],
        [head, headY, p.railZ],
        [head, -headY, p.railZ],
        [foot, -footY, p.beltZ],
      ],
      inward,
      GLASS_M,
      traits,
    );
  return [
    extrudeAcross('nose', engine, -(w - 0.1), w - 0.1),
    prism('front-bumper', bumperPlan(p, p.noseX, -1), [0, 0, p.bumperTopZ - 0.02 - p.floorZ]),
    extrudeAcross('bonnet', bonnet, -(w - 0.14), w - 0.14, { partId: 'bonnet' }),
    box('floor', [p.tailX + 0.15, -(w - 0.05), p.floorZ], [p.cowlX, w - 0.05, p.sillZ]),
    box('dashboard', [p.cowlX - 0.36, -(w - 0.1), p.sillZ], [p.cowlX, w - 0.1, p.beltZ - 0.08]),
    box('rear-seat', [p.doorRearX - 0.02, -0.68, p.sillZ], [p.doorRearX + 0.1, 0.68, p.beltZ + 0.12]),
    extrudeAcross('roof', roof, -p.railY, p.railY),
    glassAcross('windscreen', p.cowlX, p.roofFrontX, w - 0.12, p.railY - 0.03, [-1, 0, 0], {
      transmission: WINDSCREEN,
    }),
    glassAcross('hatch-glass', p.glassFootX, p.roofRearX, w - 0.16, p.railY - 0.04, [1, 0, 0], {
      transmission: PRIVACY,
      partId: 'hatch',
    }),
    extrudeAcross('hatch-panel', hatchPanel, -(w - 0.13), w - 0.13, { partId: 'hatch' }),
    prism('rear-bumper', bumperPlan(p, p.tailX, 1), [0, 0, p.bumperTopZ - 0.01 - p.floorZ]),
  ];
}

/** Plan of a bumper with its corners cut off, at floor height; `inward` is +1 toward the front. */
export function bumperPlan(p: MidSuvPoints, endX: number, inward: 1 | -1): Vec3[] {
  const w = p.halfWidth;
  const front: Vec3[] = [
    [endX, 0.58, p.floorZ],
    [endX + inward * 0.28, w - 0.03, p.floorZ],
    [endX + inward * 0.42, w - 0.03, p.floorZ],
  ];
  return [...front, ...front.toReversed().map(mirrorY)];
}

/** The left side's solids; the right side is their mirror image. */
function sideOf(p: MidSuvPoints): Solid[] {
  const w = p.halfWidth;
  const panel = (id: string, x0: number, x1: number, z0: number, traits?: SolidTraits) =>
    box(id, [x0, w - PANEL_M, z0], [x1, w, p.beltZ], traits);
  /** A sheet leaning with the side glass, between belt and roof rail. */
  const leaning = (id: string, feet: [number, number], heads: [number, number], traits?: SolidTraits) =>
    sheetSolid(
      id,
      [
        [feet[0], w - 0.03, p.beltZ],
        [feet[1], w - 0.03, p.beltZ],
        [heads[1], p.railY, p.railZ],
        [heads[0], p.railY, p.railZ],
      ],
      [0, -1, 0],
      traits?.transmission === undefined ? PANEL_M : GLASS_M,
      traits,
    );
  const front = { partId: 'door-front-left' };
  const rear = { partId: 'door-rear-left' };
  const seatX = p.pillarX - 0.02;
  return [
    panel('wing-left', p.cowlX - 0.16, p.noseX - 0.42, 0.62),
    panel('door-front-left-panel', p.pillarX, p.doorFrontX, p.sillZ, front),
    leaning(
      'door-front-left-glass',
      [p.pillarX + 0.06, p.doorFrontX - 0.06],
      [p.pillarX + 0.06, p.roofFrontX - 0.08],
      {
        ...front,
        transmission: FRONT_DOOR_GLASS,
      },
    ),
    panel('door-rear-left-panel', p.doorRearX, p.pillarX - 0.01, p.sillZ, rear),
    leaning(
      'door-rear-left-glass',
      [p.doorRearX + 0.08, p.pillarX - 0.06],
      [p.doorRearX + 0.08, p.pillarX - 0.06],
      {
        ...rear,
        transmission: PRIVACY,
      },
    ),
    box(
      'mirror-left',
      [p.doorFrontX - 0.14, w + 0.02, p.beltZ - 0.03],
      [p.doorFrontX, w + 0.24, p.beltZ + 0.15],
      front,
    ),
    leaning('pillar-a-left', [p.doorFrontX - 0.06, p.cowlX - 0.02], [p.roofFrontX - 0.08, p.roofFrontX]),
    box('pillar-b-left', [p.pillarX - 0.1, w - 0.2, p.sillZ], [p.pillarX + 0.12, w - 0.065, p.beltZ]),
    leaning(
      'pillar-b-left-upper',
      [p.pillarX - 0.06, p.pillarX + 0.06],
      [p.pillarX - 0.06, p.pillarX + 0.06],
    ),
    box('pillar-c-left', [p.doorRearX - 0.2, w - 0.22, p.sillZ], [p.doorRearX + 0.13, w - 0.065, p.beltZ]),
    leaning(
      'pillar-c-left-upper',
      [p.doorRearX - 0.1, p.doorRearX + 0.08],
      [p.doorRearX - 0.1, p.doorRearX + 0.08],
    ),
    panel('quarter-left', p.tailX + 0.14, p.doorRearX - 0.005, p.sillZ),
    leaning(
      'quarter-glass-left',
      [p.glassFootX + 0.24, p.doorRearX - 0.1],
      [p.roofRearX + 0.2, p.doorRearX - 0.1],
      {
        transmission: PRIVACY,
      },
    ),
    leaning(
      'pillar-d-left',
      [p.glassFootX + 0.02, p.glassFootX + 0.24],
      [p.roofRearX + 0.02, p.roofRearX + 0.2],
    ),
    box('front-seat-left', [seatX - 0.14, 0.16, p.sillZ], [seatX, 0.66, p.beltZ + 0.2]),
    ...[p.frontAxleX, p.rearAxleX].map((x, i) => wheel(`wheel-${i === 0 ? 'front' : 'rear'}-left`, x, p)),
  ];
}

/** A wheel as a twelve-sided drum. */
function wheel(id: string, axleX: number, p: MidSuvPoints): Solid {
  const rim = Array.from({ length: 12 }, (_, i): [number, number] => {
    const a = ((i + 0.5) * Math.PI) / 6;
    return [axleX + p.wheelRadius * Math.cos(a), p.wheelRadius * (1 + Math.sin(a))];
  });
  return extrudeAcross(id, rim, p.halfWidth - 0.25, p.halfWidth - 0.01);
}

/** The solid's twin on the right side. */
function mirrorSolid(s: Solid): Solid {
  const other = (id: string) => id.replace('left', 'right');
  return {
    ...s,
    id: other(s.id),
    partId: s.partId === null ? null : other(s.partId),
    vertices: s.vertices.map(mirrorY),
    faces: s.faces.map((face) => face.toReversed()),
    planes: s.planes.map(({ n, d }) => ({ n: mirrorY(n), d })),
  };
}
