import { z } from 'zod';
import type { Build } from '../design/schema.ts';
import { leavesOf, type Condition } from '../design/condition.ts';
import { conditionsOf, REGION } from '../design/inputs.ts';
import type { RuleData, RulePack } from '../design/rulePack.ts';
import { modeOf, sameOpen, type State } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { serviceName } from '../words/service.ts';
import { textOf } from './fields.ts';
import { allOff } from './kinds/allOff.ts';
import { behaviourRule } from './kinds/behaviour.ts';
import { colour } from './kinds/colour.ts';
import { darkGap } from './kinds/darkGap.ts';
import { eyeLight } from './kinds/eyeLight.ts';
import { fewActions } from './kinds/fewActions.ts';
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
import { count } from './kinds/count.ts';
import { lightAtDoors } from './kinds/lightAtDoors.ts';
import { glare } from './kinds/glare.ts';
import { height } from './kinds/height.ts';
import { marking } from './kinds/marking.ts';
import { permittedPatterns } from './kinds/permittedPatterns.ts';
import { signalUntouched } from './kinds/signalUntouched.ts';
import { seenInTime } from './kinds/seenInTime.ts';
import { spacingToSignal } from './kinds/spacingToSignal.ts';
import { standingDraw } from './kinds/standingDraw.ts';
import { staysLit } from './kinds/staysLit.ts';
import { steadyRequired } from './kinds/steadyRequired.ts';
import { symmetry } from './kinds/symmetry.ts';
import { transmission } from './kinds/transmission.ts';
import { unnoticed } from './kinds/unnoticed.ts';
import { veil } from './kinds/veil.ts';
import { workLight } from './kinds/workLight.ts';
import { piecesText } from './piece.ts';
import { elevationsText } from '../words/elevations.ts';

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
  count,
  height,
  marking,
  permittedPatterns,
  signalUntouched,
  spacingToSignal,
  steadyRequired,
  symmetry,
  transmission,
  behaviourRule,
  fewActions,
  allOff,
  standingDraw,
  lightAtDoors,
  staysLit,
  seenInTime,
  workLight,
  glare,
  veil,
  eyeLight,
  unnoticed,
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
  const kind = kindOf(rule);
  const said = piecesText(kind.sentenceParts(rule));
  const when = rule.when === null ? '' : `, when ${plainCondition(rule.when)}`;
  if (!kind.inStates) return `${said}${when}${who}.`;
  const level = rule.elevationsDeg.length === 1 && rule.elevationsDeg[0] === 0;
  const from =
    level || !kind.alongElevations
      ? ''
      : `, seen from ${elevationsText(rule.elevationsDeg)} degrees of elevation`;
  return `${said}${from}, in stage ${textOf(rule.stages)}${when}${who}.`;
}

/** Whether a rule speaks to what a build is for. */
export const appliesToService = ({ services }: RuleData, { service }: Pick<Build, 'service'>): boolean =>
  services.length === 0 || services.includes(service);

/** Whether a rule speaks in a state of a build: to its service, its stage, its pose and the light around. */
export function appliesInState(rule: RuleData, build: Build, { on, open, ambient }: State): boolean {
  if (!appliesToService(rule, build)) return false;
  const mode = modeOf(build, on);
  if (!rule.stages.some((stage) => stage === mode)) return false;
  const kind = kindOf(rule);
  if (!kind.ambients(rule).includes(ambient)) return false;
  const poses = kind.poses(rule, vehicleOf(build.vehicle));
  return poses === null || poses.some((pose) => sameOpen(pose, open));
}

/** A condition in the words of the document: packs do not know the names that a build gives. */
function plainCondition(c: Condition): string {
  switch (c.kind) {
    case 'all':
      return c.of.map(plainCondition).join(' and ');
    case 'any':
      return c.of.map(plainCondition).join(' or ');
    case 'not':
      return `not (${plainCondition(c.of)})`;
    case 'is':
      return `${c.input} is ${c.values.join(' or ')}`;
    case 'on':
      return `${c.functionId} is on`;
  }
}

/** Whether a pack holds where a build drives; one of no jurisdiction holds everywhere, and so do all while the brief names none. */
export const appliesInJurisdiction = (pack: RulePack, { brief }: Pick<Build, 'brief'>): boolean =>
  brief.jurisdictions.length === 0 || brief.jurisdictions.some((name) => holdsIn(pack, name));

/** A rule, and the pack it stands in. */
export interface AskedRule {
  readonly pack: RulePack;
  readonly rule: RuleData;
}

/** The rules that speak to a build: of packs that hold where it drives, to its service. */
export const applicableRules = (build: Build): AskedRule[] =>
  build.rulePacks
    .filter((pack) => appliesInJurisdiction(pack, build))
    .flatMap((pack) =>
      pack.rules.filter((rule) => appliesToService(rule, build)).map((rule) => ({ pack, rule })),
    );

/** Whether a pack holds in a jurisdiction. */
export const holdsIn = ({ jurisdictions }: RulePack, name: string): boolean =>
  jurisdictions.length === 0 || jurisdictions.includes(name);

/** What must be so for a rule to speak, beside stage, pose and light: what it asks, and that the vehicle is where its pack holds. */
export function conditionOf(build: Build, pack: RulePack, { when }: RuleData): Condition | null {
  const { brief, controls } = build;
  const everywhere = brief.jurisdictions.every((name) => holdsIn(pack, name));
  const asksRegion = conditionsOf(controls).some((c) =>
    [...leavesOf(c)].some((leaf) => leaf.kind === 'is' && leaf.input === REGION),
  );
  if (everywhere || !asksRegion) return when;
  const there: Condition = {
    kind: 'is',
    input: REGION,
    values: brief.jurisdictions.filter((name) => holdsIn(pack, name)),
  };
  return when === null ? there : { kind: 'all', of: [there, when] };
}
