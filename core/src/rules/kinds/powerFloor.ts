import { z } from 'zod';
import type { LampHeight } from '../../coverage/ring.ts';
import { powerRing } from '../../coverage/ring.ts';
import { bearingsIn, FACE_BEARINGS, faceSectorsWhere, sectorText } from '../../coverage/sectors.ts';
import { listOf, RULE_HEAD } from '../../design/rulePack.ts';
import { channelOf } from '../../resolve/channels.ts';
import type { PartKind, Vehicle } from '../../vehicle/types.ts';
import { stopsOf } from '../../vehicle/vehicle.ts';
import { faceText, type Face } from '../../words/face.ts';
import { positive } from '../../words/numbers.ts';
import { defineRule, type Pose } from '../define.ts';
import {
  ambientsOf,
  faces,
  facesField,
  Lamps,
  lampsField,
  Level,
  levelField,
  When,
  whenField,
} from '../fields.ts';
import { atLeast } from '../finding.ts';
import { fails, holds, roomAbove, type Verdict } from '../judgement.ts';
import { figure, someOf, type Field } from '../piece.ts';
import type { Situation } from '../situation.ts';
import { about } from '../subject.ts';
import { formatQuantity } from '../../words/quantity.ts';

/** Which openings a floor must bear, each alone: nothing, doors, the hatch or tailgate or lift, the bonnet, shutters. */
const PoseKind = z.enum(['shut', 'each-door-open', 'hatch-open', 'bonnet-open', 'each-shutter-open']);
type PoseKind = z.infer<typeof PoseKind>;

const poseText: Readonly<Record<PoseKind, string>> = {
  shut: 'everything closed',
  'each-door-open': 'each door open',
  'hatch-open': 'the hatch open',
  'bonnet-open': 'the bonnet open',
  'each-shutter-open': 'each shutter open',
};

const isPose = (text: string): text is PoseKind => PoseKind.options.some((p) => p === text);
const posesField = (poses: readonly PoseKind[]): Field =>
  someOf('poses', poses, 'Door positions', PoseKind.options, (p) => (isPose(p) ? poseText[p] : p));

const PARTS: Readonly<Record<Exclude<PoseKind, 'shut'>, readonly [PartKind, ...PartKind[]]>> = {
  'each-door-open': ['door'],
  'hatch-open': ['hatch', 'tailgate', 'lift'],
  'bonnet-open': ['bonnet'],
  'each-shutter-open': ['shutter'],
};

const posesNamed = (vehicle: Vehicle, kind: PoseKind): Pose[] =>
  kind === 'shut' ? [[]] : stopsOf(vehicle, ...PARTS[kind]).map((stop) => [stop.id]);

const Schema = z.strictObject({
  kind: z.literal('power-floor'),
  ...RULE_HEAD,
  faces,
  level: Level,
  ambient: When,
  minCdsPerMin: positive,
  poses: listOf(PoseKind, 'pose'),
  lamps: Lamps.default('warning'),
});
type PowerFloor = z.output<typeof Schema>;

/** At least so much optical power at every bearing of a face, in each pose the rule names. */
export const powerFloor = defineRule({
  kind: 'power-floor',
  title: 'Least optical power',
  blank: {
    faces: ['rear'],
    level: 'any',
    ambient: 'day',
    minCdsPerMin: 10_000,
    poses: ['shut'],
  },
  home: 'visibility',
  sees: 'light',
  schema: Schema,
  sentenceParts: (rule) => [
    'At least ',
    figure('minCdsPerMin', rule.minCdsPerMin, 'Least optical power, cd·s/min'),
    ' cd·s/min from ',
    levelField(rule.level),
    lampsField(rule.lamps),
    ' at every bearing to the ',
    facesField(rule.faces),
    whenField('ambient', rule.ambient),
    ', with ',
    posesField(rule.poses),
  ],
  poses: (rule, vehicle) => rule.poses.flatMap((kind) => posesNamed(vehicle, kind)),
  ambients: (rule) => ambientsOf(rule.ambient),
  monotonicity: () => 'helps',
  check: (at, rule) => {
    const lit = at.lit(rule.lamps, rule.level);
    const power = powerRing(lit);
    return rule.faces.map((face) => floorToward(rule, face, lit, power));
  },
});

function floorToward(
  rule: PowerFloor,
  face: Face,
  lit: ReturnType<Situation['lit']>,
  power: Float64Array,
): Verdict {
  const bearings = FACE_BEARINGS[face];
  const worst = bearings.reduce((a, b) => ((power[b] ?? 0) < (power[a] ?? 0) ? b : a));
  const least = power[worst] ?? 0;
  const margin = roomAbove(least, rule.minCdsPerMin);
  if (least >= rule.minCdsPerMin) return holds(margin);
  const gaps = faceSectorsWhere(face, (b) => (power[b] ?? 0) < rule.minCdsPerMin);
  const level = rule.level === 'any' ? '' : `, ${rule.level} lamps`;
  const toward = lit.filter(({ drive, share }) => bearings.some((b) => drive.peakCd * (share[b] ?? 0) > 1));
  return fails({
    subjects: [about('face', face)],
    margin,
    sentence: `optical power ${faceText[face]}${level}: ${formatQuantity(least, 'cd·s/min', 'down')} at ${worst}° (minimum ${formatQuantity(rule.minCdsPerMin, 'cd·s/min')}). Gap: ${gaps.map(sectorText).join(', ')}.`,
    figure: { value: least, unit: 'cd·s/min' },
    limits: [atLeast(rule.minCdsPerMin, 'cd·s/min')],
    channels: toward.map(({ drive }) => channelOf(drive)),
    sectors: gaps,
    news: gaps.flatMap(bearingsIn),
  });
}

/** What a floor asks for toward a bearing from the lamps of a level, cd·s/min; 0 where it asks nothing. */
export const floorAt = (rule: PowerFloor, bearing: number, level: LampHeight): number =>
  rule.level === level && rule.faces.some((face) => FACE_BEARINGS[face].includes(bearing))
    ? rule.minCdsPerMin
    : 0;
