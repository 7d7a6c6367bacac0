import type { Ambient } from '../../coverage/range.ts';
import { powerRing } from '../../coverage/ring.ts';
import { bearingsIn, FACE_BEARINGS, sectorText } from '../../coverage/sectors.ts';
import type { PartKind, Vehicle } from '../../vehicle/types.ts';
import { stopsOf } from '../../vehicle/vehicle.ts';
import type { Fault } from '../finding.ts';
import type { PoseKind, RuleFace, RuleOf } from '../pack.ts';
import type { StageIndex } from '../../design/schema.ts';
import {
  AMBIENTS,
  faceSectorsWhere,
  faceText,
  roundDown,
  stateOf,
  type KindResult,
  type Subject,
} from '../subject.ts';

/** At least so much optical power at every bearing of a face, in each pose the rule names. */
export function checkPowerFloor(subject: Subject, rule: RuleOf<'power-floor'>): KindResult {
  const poses = subject.posesAmong(rule.poses.flatMap((kind) => posesOf(subject.vehicle, kind)));
  const ambients = subject.ambientsAmong(ambientsOf(rule));
  const faults = subject
    .stages(rule)
    .flatMap((stage) =>
      ambients.flatMap((ambient) =>
        rule.faces.flatMap((face) => floorFaults(subject, rule, stage, ambient, face, poses)),
      ),
    );
  return { faults, statesChecked: subject.stages(rule).length * ambients.length * poses.length };
}

/** One fault a pose; a pose that only repeats gaps of the poses before it says nothing new. */
function floorFaults(
  subject: Subject,
  rule: RuleOf<'power-floor'>,
  stage: StageIndex,
  ambient: Ambient,
  face: RuleFace,
  poses: readonly (readonly string[])[],
): Fault[] {
  const known = new Set<number>();
  const level = rule.level === 'any' ? '' : `${rule.level} `;
  return poses.flatMap((open) => {
    const state = stateOf(stage, open, ambient);
    const lit = subject.lit(state, rule.level);
    const power = powerRing(lit);
    const below = (b: number) => (power[b] ?? 0) < rule.minCdsPerMin;
    const gaps = faceSectorsWhere(face, below);
    const fresh = gaps.flatMap(bearingsIn).filter((b) => !known.has(b));
    for (const b of fresh) known.add(b);
    if (fresh.length === 0) return [];
    const worst = FACE_BEARINGS[face].reduce((a, b) => ((power[b] ?? 0) < (power[a] ?? 0) ? b : a));
    const least = power[worst] ?? 0;
    const toward = lit.filter(({ drive, share }) =>
      FACE_BEARINGS[face].some((b) => drive.peakCd * (share[b] ?? 0) > 1),
    );
    return [
      {
        sentence: `too little ${level}light ${faceText[face]} in ${subject.stateText(state)}: ${roundDown(least)} of ${rule.minCdsPerMin} cd·s/min at ${worst}°; gap at ${gaps.map(sectorText).join(', ')}.`,
        figure: { value: least, unit: 'cd·s/min' as const },
        limits: [{ value: rule.minCdsPerMin, unit: 'cd·s/min' as const, sense: 'at least' as const }],
        evidence: { state, channelIds: toward.map(({ drive }) => drive.channelId), sectors: gaps },
      },
    ];
  });
}

const ambientsOf = ({ ambient }: RuleOf<'power-floor'>): readonly Ambient[] =>
  ambient === 'any' ? AMBIENTS : [ambient];

function posesOf(vehicle: Vehicle, kind: PoseKind): string[][] {
  const each = (...kinds: [PartKind, ...PartKind[]]): string[][] =>
    stopsOf(vehicle, ...kinds).map((stop) => [stop.id]);
  switch (kind) {
    case 'shut':
      return [[]];
    case 'hatch-open':
      return each('hatch', 'tailgate', 'lift');
    case 'bonnet-open':
      return each('bonnet');
    case 'each-door-open':
      return each('door');
    case 'each-shutter-open':
      return each('shutter');
  }
}

/** The floor a pack sets toward a bearing for the ring being looked at, cd·s/min; 0 where it sets none. */
export function floorToward(
  rules: readonly RuleOf<'power-floor'>[],
  bearing: number,
  stage: StageIndex,
  ambient: Ambient,
  level: 'upper' | 'lower' | 'any',
): number {
  const floors = rules
    .filter(
      (r) =>
        r.level === level &&
        r.stages.some((s) => s === stage) &&
        ambientsOf(r).includes(ambient) &&
        r.faces.some((face) => FACE_BEARINGS[face].includes(bearing)),
    )
    .map((r) => r.minCdsPerMin);
  return Math.max(0, ...floors);
}
