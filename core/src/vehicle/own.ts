import { aimFrame, turnFrame } from '../geometry/frame.ts';
import { box, extrudeAcross, type Solid } from '../geometry/solid.ts';
import { assemble } from './body/assembly.ts';
import { zone } from './body/zone.ts';
import { OUTWARD } from './measures.ts';
import type { Equipment, OwnSolid, OwnZone, VehicleSpec } from './spec.ts';
import type { Assembly, MountZone } from './types.ts';

const solidOf = (s: OwnSolid): Solid => {
  const traits = { transmission: s.transmission };
  switch (s.kind) {
    case 'box':
      return box(s.id, s.from, s.to, traits);
    case 'profile':
      return extrudeAcross(s.id, s.points, s.fromY, s.toY, traits);
  }
};

function ownZone({ facing, panDeg, tiltDeg, ...z }: OwnZone): MountZone {
  const straight = zone({ ...z, n: OUTWARD[facing] });
  const turned = turnFrame(aimFrame(straight.n, straight.v), panDeg, tiltDeg, 0);
  return zone({ ...z, n: turned.aim });
}

const solidOfEquipment = ({ id, from, to, transmission }: Equipment): Solid =>
  box(id, from, to, { transmission });

/** The user's own zones, solids, keep-outs and equipment. */
export const ownParts = (spec: VehicleSpec): Assembly =>
  assemble({
    zones: mirrorsOf(spec.zones.map(ownZone)),
    solids: [...spec.solids.map(solidOf), ...spec.equipment.map(solidOfEquipment)],
    keepOuts: [
      ...spec.keepOuts.map((k) => ({ id: k.id, name: k.name, kind: k.kind, solid: box(k.id, k.from, k.to) })),
      // No lamp may stand where something else does.
      ...spec.equipment.map((e) => ({
        id: e.id,
        name: e.name,
        kind: 'other' as const,
        solid: solidOfEquipment(e),
      })),
    ],
  });

/** Two own zones that are mirror images of each other are known as such. */
function mirrorsOf(zones: readonly MountZone[]): MountZone[] {
  const close = (a: number, b: number) => Math.abs(a - b) < 1e-6;
  return zones.map((z) => {
    const twin = zones.find(
      (other) =>
        close(other.centre[0], z.centre[0]) &&
        close(other.centre[1], -z.centre[1]) &&
        close(other.centre[2], z.centre[2]) &&
        close(other.n[0], z.n[0]) &&
        close(other.n[1], -z.n[1]) &&
        close(other.n[2], z.n[2]) &&
        close(other.widthM, z.widthM) &&
        close(other.heightM, z.heightM),
    );
    return { ...z, mirrorId: twin?.id ?? z.id };
  });
}
