import { z } from 'zod';
import type { Build } from '../design/schema.ts';
import type { RuleData } from '../design/rulePack.ts';
import { modeOf, sameOpen, type State } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { serviceName } from '../words/service.ts';
import { textOf } from './fields.ts';
import { colour } from './kinds/colour.ts';
import { darkGap } from './kinds/darkGap.ts';
import { flashesASecond } from './kinds/flashesASecond.ts';
import { flashRate } from './kinds/flashRate.ts';
import { peakCurrent } from './kinds/peakCurrent.ts';
import { powerCeiling } from './kinds/powerCeiling.ts';
import { powerFloor } from './kinds/powerFloor.ts';
import { pulses } from './kinds/pulses.ts';
import { rhythms } from './kinds/rhythms.ts';
import { sideDark } from './kinds/sideDark.ts';
import { syncPartners } from './kinds/syncPartners.ts';
import { whiteRear } from './kinds/whiteRear.ts';
import { piecesText } from './piece.ts';

/** Every kind of rule there is. */
export const RULE_KINDS = [
  colour,
  flashRate,
  powerFloor,
  darkGap,
  whiteRear,
  syncPartners,
  pulses,
  sideDark,
  flashesASecond,
  powerCeiling,
  rhythms,
  peakCurrent,
] as const;
type AnyKind = (typeof RULE_KINDS)[number];

const SCHEMAS = RULE_KINDS.map(({ schema }) => schema);
const KNOWN = RULE_KINDS.map(({ kind }) => kind).join(', ');

/** A rule of any kind, with all that its kind wants of it. */
export const Rule = z.union(SCHEMAS);
export type Rule = z.input<AnyKind['schema']>;
export type RuleOf<K extends Rule['kind']> = Extract<Rule, { kind: K }>;

/**
 * The kind of a rule.
 * @throws {RangeError} there is no such kind
 */
export function kindOf({ kind }: Pick<RuleData, 'kind'>): AnyKind {
  const known = RULE_KINDS.find((k) => k.kind === kind);
  if (known === undefined) throw new RangeError(`unknown kind of rule '${kind}'; known are ${KNOWN}`);
  return known;
}

/** A rule as a plain sentence. */
export function ruleSentence(rule: RuleData): string {
  const who = rule.services.length === 0 ? '' : ` (${textOf(rule.services.map((s) => serviceName[s]))})`;
  return `${piecesText(kindOf(rule).says(rule))}, in stage ${textOf(rule.stages)}${who}.`;
}

/** Whether a rule speaks to what a build is for. */
export const speaksTo = ({ services }: RuleData, { service }: Pick<Build, 'service'>): boolean =>
  services.length === 0 || services.includes(service);

/** Whether a rule speaks in a state of a build: to its service, its stage, its pose and the light around. */
export function speaksIn(rule: RuleData, build: Build, { on, open, ambient }: State): boolean {
  if (!speaksTo(rule, build)) return false;
  const mode = modeOf(build, on);
  if (!rule.stages.some((stage) => stage === mode)) return false;
  const kind = kindOf(rule);
  if (!kind.ambients(rule).includes(ambient)) return false;
  const poses = kind.poses(rule, vehicleOf(build.vehicle));
  return poses === null || poses.some((pose) => sameOpen(pose, open));
}
