import { z } from 'zod';
import type { RequirementData } from '../../design/brief.ts';
import type { Build } from '../../design/schema.ts';
import { behaviour } from './requirements/behaviour.ts';
import { keepHead } from './requirements/keepHead.ts';
import { leaveFactoryLamp } from './requirements/leaveFactoryLamp.ts';
import { lowestLamp } from './requirements/lowestLamp.ts';
import { neverColours } from './requirements/neverColours.ts';
import { noHoles } from './requirements/noHoles.ts';
import { onlyColours } from './requirements/onlyColours.ts';
import { spareOutputs } from './requirements/spareOutputs.ts';
import { spendAtMost } from './requirements/spendAtMost.ts';
import { stayVisible } from './requirements/stayVisible.ts';
import { unseenWhenOff } from './requirements/unseenWhenOff.ts';

/** Every kind of wish there is. */
export const REQUIREMENT_KINDS = [
  lowestLamp,
  noHoles,
  onlyColours,
  neverColours,
  unseenWhenOff,
  spendAtMost,
  keepHead,
  leaveFactoryLamp,
  spareOutputs,
  stayVisible,
  behaviour,
] as const;
type AnyKind = (typeof REQUIREMENT_KINDS)[number];

/** A wish of any kind, with all that its kind wants of it. */
export const Requirement = z.union(REQUIREMENT_KINDS.map(({ schema }) => schema));
export type Requirement = z.input<AnyKind['schema']>;
/** A wish with what it leaves unsaid filled in. */
export type CompleteRequirement = z.output<AnyKind['schema']>;
export type RequirementOf<K extends CompleteRequirement['kind']> = Extract<CompleteRequirement, { kind: K }>;

const KNOWN = REQUIREMENT_KINDS.map(({ kind }) => kind).join(', ');

/**
 * The kind of a wish.
 * @throws {RangeError} there is no such kind
 */
export function requirementKindOf({ kind }: Pick<RequirementData, 'kind'>): AnyKind {
  const known = REQUIREMENT_KINDS.find((k) => k.kind === kind);
  if (known === undefined) throw new RangeError(`unknown kind of requirement '${kind}'; known are ${KNOWN}`);
  return known;
}

/** Reads a wish as a document holds it. */
export const readRequirement = (data: RequirementData): CompleteRequirement =>
  requirementKindOf(data).schema.parse(data);

/** A wish as a plain sentence. */
export const describeRequirement = (build: Build, wish: RequirementData): string =>
  requirementKindOf(wish).sentence(build, wish);
