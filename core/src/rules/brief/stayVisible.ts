import type { ConstraintOf } from '../../design/brief.ts';
import { fieldsOf } from '../../coverage/field.ts';
import { FACE_BEARINGS } from '../../coverage/sectors.ts';
import { bearingOf } from '../../geometry/direction.ts';
import { openText } from '../../state/state.ts';
import { posedZone, zoneOf } from '../../vehicle/vehicle.ts';
import type { Fault } from '../finding.ts';
import { evidenceOf, percent, type LayoutSubject } from '../layout/subject.ts';
import type { RuleFace } from '../pack.ts';

/** Of what a zone's lamps send to their face when shut, so much must still arrive. */
const LEAST_SHARE = 0.5;
const FACES: readonly RuleFace[] = ['front', 'right', 'rear', 'left'];

/** Zones whose lamps no longer serve their face with the named parts open. */
export function checkStayVisible(subject: LayoutSubject, c: ConstraintOf<'stay-visible'>): Fault[] {
  const { lookup } = subject;
  const fields = fieldsOf(lookup);
  return c.zoneIds.flatMap((zoneId): Fault[] => {
    const zone = zoneOf(lookup.vehicle, zoneId);
    const lamps = subject.lamps.filter((p) => p.zoneId === zoneId);
    // An inside zone is made for the open pose, and faces what it faces there.
    const inside = zone.face === 'inside';
    const facing = inside ? posedZone(lookup.vehicle, zone, new Set(c.open)).n : zone.n;
    const face = FACES[Math.round(bearingOf(facing).bearingDeg / 90) % 4] ?? 'front';
    const toward = (open: readonly string[]): number =>
      lamps.reduce(
        (sum, p) =>
          fields
            .of(p, open, 0)
            .reduce((s, f) => s + FACE_BEARINGS[face].reduce((t, b) => t + (f.share[b] ?? 0), 0), sum),
        0,
      );
    const what = openText(lookup.vehicle, c.open);
    if (lamps.length === 0)
      return [
        {
          sentence: `${zone.name} carries no lamp, so nothing there stays visible with ${what}.`,
          figure: null,
          limits: [],
          evidence: evidenceOf([]),
        },
      ];
    const after = toward(c.open);
    const before = inside ? after : toward([]);
    const share = before === 0 ? 0 : after / before;
    if (share >= LEAST_SHARE) return [];
    return [
      {
        sentence: `of the light of ${zone.name} to the ${face}, ${percent(share)} % is left with ${what}.`,
        figure: { value: share * 100, unit: '%' },
        limits: [{ value: LEAST_SHARE * 100, unit: '%', sense: 'at least' }],
        evidence: evidenceOf(lamps, c.open),
      },
    ];
  });
}
