import { boundsOf, type Bounds } from '../../geometry/solid.ts';
import type { Vec3 } from '../../geometry/vec.ts';
import type { Assembly, MountZone } from '../types.ts';
import type { Stations } from './dimension.ts';
import { onSkin } from './skin.ts';
import { zone, zonePair, type ZoneSpec } from './zone.ts';

/** No zone is offered that is smaller, m. */
const LEAST_M = { width: 0.04, height: 0.03 };

/**
 * The places that every vehicle offers besides those its own body draws: door panels, undersides and edges of what
 * opens, ceilings, partition, rear posts, running boards, pockets and the roof of a low cab.
 */
export function usualZones(s: Stations, body: Assembly): MountZone[] {
  const there = new Set(body.zones.map((z) => z.id));
  return [...inside(s), ...onDoors(s, body), ...onOpenings(body), ...onFlanks(s), ...atTheEnds(s, there)]
    .flatMap((spec) =>
      spec.id.endsWith('-left') ? zonePair(seated(spec, body)) : [zone(seated(spec, body))],
    )
    .filter((z) => !there.has(z.id) && z.widthM >= LEAST_M.width && z.heightM >= LEAST_M.height);
}

/** Outer zones lie on the skin of the solids there, whatever the measures. */
const seated = (spec: ZoneSpec, { solids }: Assembly): ZoneSpec =>
  spec.face === 'inside' ? spec : { ...spec, centre: onSkin(spec.centre, spec.n, solids) };

/** Where lamps to see by go, and those behind a partition. */
function inside(s: Stations): ZoneSpec[] {
  const under = s.railZ - 0.004;
  const down: Vec3 = [0, 0, -1];
  return [
    {
      id: 'dome',
      name: 'Ceiling over the front seats',
      face: 'inside',
      mount: 'edge',
      centre: [s.roofFrontX - 0.4, 0, under],
      n: down,
      widthM: 2 * s.railY - 0.5,
      heightM: 0.3,
      behind: 'Headliner; curtain airbags along both rails',
      fixings: ['drill', 'adhesive'],
      behindM: 0.03,
    },
    {
      id: 'cargo-ceiling',
      name: 'Ceiling at the rear',
      face: 'inside',
      mount: 'edge',
      centre: [s.roofRearX + 0.25, 0, under],
      n: down,
      widthM: 2 * s.railY - 0.5,
      heightM: 0.3,
      behind: 'Headliner over the load',
      fixings: ['drill', 'adhesive'],
      behindM: 0.03,
    },
    {
      id: 'partition',
      name: 'Partition behind the front seats',
      face: 'inside',
      mount: 'panel',
      centre: [s.pillarX - 0.2, 0, (s.beltZ + s.railZ) / 2],
      n: [-1, 0, 0],
      widthM: 2 * s.railY - 0.3,
      heightM: 0.2,
      behind: 'Partition frame',
      fixings: ['bracket', 'drill'],
    },
  ];
}

const middle = ({ low, high }: Bounds, axis: 0 | 1 | 2): number => (low[axis] + high[axis]) / 2;

/** The skin of each hinged door of the left side. */
function onDoors(s: Stations, { solids }: Assembly): ZoneSpec[] {
  return (['front', 'rear'] as const).flatMap((which): ZoneSpec[] => {
    const partId = `door-${which}-left`;
    const panel = boundsOf(solids.filter((solid) => solid.id === `${partId}-panel`));
    if (panel === null) return [];
    return [
      {
        id: `door-panel-${which}-left`,
        name: `${which === 'front' ? 'Front' : 'Rear'} door panel left`,
        face: 'left',
        mount: 'panel',
        partId,
        centre: [middle(panel, 0), s.halfWidth + 0.002, middle(panel, 2)],
        n: [0, 1, 0],
        widthM: panel.high[0] - panel.low[0] - 0.16,
        heightM: Math.min(0.3, panel.high[2] - panel.low[2] - 0.1),
        behind: 'Door skin: window and crash beam behind it',
        singleWall: true,
        behindM: 0.02,
      },
    ];
  });
}

/** Undersides and edges of bonnet, hatch and tailgate: covered when shut, seen when open. */
function onOpenings({ parts, solids }: Assembly): ZoneSpec[] {
  return parts.flatMap((part): ZoneSpec[] => {
    const own = solids.filter((solid) => solid.partId === part.id);
    const all = boundsOf(own);
    const panel = boundsOf(own.filter((solid) => solid.transmission === 0)) ?? all;
    if (all === null || panel === null) return [];
    const across = panel.high[1] - panel.low[1];
    switch (part.kind) {
      case 'bonnet': {
        const slope = (panel.high[2] - panel.low[2]) / Math.max(0.1, panel.high[0] - panel.low[0]);
        const x = panel.high[0] - 0.35;
        return [
          {
            id: 'bonnet-under',
            name: 'Under the bonnet',
            face: 'inside',
            mount: 'panel',
            partId: part.id,
            centre: [x, 0, panel.low[2] + 0.35 * slope - 0.02],
            n: [-slope, 0, -1],
            widthM: across - 0.3,
            heightM: 0.2,
            behind: 'Inner skin of the bonnet: heat, and cables over the hinge',
            fixings: ['drill', 'adhesive'],
            behindM: 0.02,
          },
        ];
      }
      case 'hatch':
        return [
          {
            id: `${part.id}-inside`,
            name: `${part.name}, inside`,
            face: 'inside',
            mount: 'panel',
            partId: part.id,
            centre: [panel.high[0] + 0.003, 0, panel.low[2] + 0.3 * (panel.high[2] - panel.low[2])],
            n: [1, 0, 0],
            widthM: across - 0.2,
            heightM: 0.12,
            behind: 'Inner skin: faces down when open',
            fixings: ['drill', 'adhesive'],
            behindM: 0.03,
          },
        ];
      case 'tailgate':
        return [
          {
            id: `${part.id}-edge`,
            name: `${part.name}, top edge`,
            face: 'inside',
            mount: 'edge',
            partId: part.id,
            centre: [middle(panel, 0), 0, panel.high[2] + 0.002],
            n: [0, 0, 1],
            widthM: across - 0.2,
            heightM: Math.max(0.04, panel.high[0] - panel.low[0]),
            behind: 'Top edge: faces the rear when it hangs open',
          },
          {
            id: `${part.id}-inside`,
            name: `${part.name}, inside`,
            face: 'inside',
            mount: 'panel',
            partId: part.id,
            centre: [panel.high[0] + 0.003, 0, middle(panel, 2)],
            n: [1, 0, 0],
            widthM: across - 0.3,
            heightM: Math.max(0.05, 0.5 * (panel.high[2] - panel.low[2])),
            behind: 'Inner skin: faces up when open',
            behindM: 0.03,
          },
        ];
      case 'door':
      case 'shutter':
      case 'blade':
      case 'lift':
      case 'mast':
        return [];
    }
  });
}

/** Running boards, step pockets and the rear edges of the sides. */
function onFlanks(s: Stations): ZoneSpec[] {
  const sillM = s.doorFrontX - s.doorRearX;
  return [
    {
      id: 'running-board-left',
      name: 'Running board left',
      face: 'left',
      mount: 'panel',
      centre: [(s.doorFrontX + s.doorRearX) / 2, s.halfWidth + 0.05, s.floorZ + 0.01],
      n: [0, 1, 0],
      widthM: sillM - 0.3,
      heightM: 0.05,
      behind: 'Edge of the board: spray and stones',
      fixings: ['bracket', 'drill'],
      behindM: 0.05,
    },
    {
      id: 'step-pocket-left',
      name: 'Step pocket left',
      face: 'left',
      mount: 'panel',
      centre: [s.doorFrontX - 0.2, s.halfWidth + 0.002, s.floorZ + 0.07],
      n: [0, 1, 0],
      widthM: 0.16,
      heightM: 0.06,
      behind: 'Pocket under the door',
      behindM: 0.08,
    },
    {
      id: 'rear-edge-left',
      name: 'Rear edge of the side left',
      face: 'rear',
      mount: 'panel',
      centre: [s.tailX + 0.1, s.outerY - 0.05, (s.beltZ + s.railZ) / 2 - 0.1],
      n: [-1, 0, 0],
      widthM: 0.08,
      heightM: 0.3,
      behind: 'Rear post of the body',
      fixings: ['bracket', 'drill'],
      behindM: 0.04,
    },
  ];
}

/** Fog-lamp pockets, and the roof of a cab that its body leaves low. */
function atTheEnds(s: Stations, there: ReadonlySet<string>): ZoneSpec[] {
  return [
    {
      id: 'fog-pocket-left',
      name: 'Fog-lamp pocket left',
      face: 'front',
      mount: 'panel',
      centre: [s.noseX - 0.02, s.halfWidth - 0.5, s.floorZ + 0.17],
      n: [1, 0, 0],
      widthM: 0.16,
      heightM: 0.09,
      behind: 'Pocket in the bumper; washer hose',
      behindM: 0.09,
    },
    ...(there.has('roof')
      ? []
      : [
          {
            id: 'cab-roof',
            name: 'Cab roof',
            face: 'top',
            mount: 'roof',
            centre: [s.roofFrontX - 0.4, 0, s.roofZ + 0.002],
            n: [0, 0, 1],
            widthM: 2 * s.railY - 0.32,
            heightM: 0.3,
            behind: 'Roof skin of the cab before the body; one cable gland',
          } satisfies ZoneSpec,
        ]),
  ];
}
