import type { RequirementData } from '../design/brief.ts';
import type { Condition } from '../design/condition.ts';
import type { Build } from '../design/schema.ts';
import type { Drive } from '../resolve/channels.ts';
import { requirementKindOf } from '../rules/brief/requirements.ts';
import { judgementsOf, limitsOf, looksFrom } from '../rules/elevations.ts';
import type { Head } from '../rules/finding.ts';
import { BRIEF_PACK, ruleHead, requirementHead } from '../rules/heads.ts';
import type { Verdict } from '../rules/judgement.ts';
import { conditionOf, kindOf, type AskedRule } from '../rules/registry.ts';
import type { PoseIndependentLimit } from '../rules/shown.ts';
import { LEVEL_DEG, type Situation } from '../rules/situation.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { AMBIENTS, type Ambient } from '../words/ambient.ts';

/** What is judged picture by picture: a rule of a pack, or a wish of the brief about what shows. */
export interface Asked {
  readonly head: Head;
  /** All by which its judgements differ from those of others. */
  readonly text: string;
  /** The modes it speaks in; null for any, and where no warning is on. */
  readonly modes: readonly number[] | null;
  readonly ambients: readonly Ambient[];
  /** What must hold besides; null asks for nothing. */
  readonly when: Condition | null;
  readonly sees: 'driven' | 'light';
  /** Where it looks from, degrees up; null where it has eyes of its own, or sees no light. */
  readonly elevationsDeg: readonly number[] | null;
  /** Optical centres above this are upper, m. */
  readonly upperAboveM: number;
  /** The poses it speaks of; null when it speaks of any. */
  readonly poses: readonly (readonly string[])[] | null;
  /** Which channels it looks at. */
  readonly regards: (drive: Drive) => boolean;
  /** What one more such channel does to it, where that is always the same. */
  readonly more: 'helps' | 'hurts' | null;
  /** Null where all channels are one lot, which speaks when it is empty, too. */
  readonly lots: ((drive: Drive, at: Situation) => readonly string[]) | null;
  /** Whether it asks if one function is on alone. */
  readonly asksAlone: boolean;
  /** What it keeps to whatever stands open. */
  readonly limits: (at: Situation) => readonly PoseIndependentLimit[];
  readonly judge: (at: Situation) => readonly Verdict[];
}

/** A rule that is judged state by state; null for another. */
export function askedRule(build: Build, { pack, rule }: AskedRule): Asked | null {
  const kind = kindOf(rule);
  if (!kind.inStates) return null;
  const { partitions: lots } = kind;
  return {
    head: ruleHead(pack, rule),
    text: JSON.stringify([pack.id, pack.upperAboveM, rule]),
    modes: rule.stages,
    ambients: kind.ambients(rule),
    when: conditionOf(build, pack, rule),
    sees: kind.sees === 'driven' ? 'driven' : 'light',
    elevationsDeg: kind.alongElevations ? looksFrom(rule) : null,
    upperAboveM: pack.upperAboveM,
    poses: kind.poses(rule, vehicleOf(build.vehicle)),
    regards: (drive) => kind.countsChannel(drive, rule),
    more: kind.monotonicity(rule),
    lots: lots === null ? null : (drive, at) => lots(drive, at, rule),
    asksAlone: kind.asksAlone,
    limits: (at) => limitsOf(rule, at),
    judge: (at) => judgementsOf(rule, at),
  };
}

/** A wish about what shows in any state; null for another. */
export function requirementQuery(build: Build, wish: RequirementData): Asked | null {
  const { check } = requirementKindOf(wish);
  if (!('inState' in check)) return null;
  const limits = check.limits(wish);
  return {
    head: requirementHead(build, wish),
    text: JSON.stringify([BRIEF_PACK, wish]),
    modes: null,
    ambients: AMBIENTS,
    when: null,
    sees: 'light',
    elevationsDeg: [LEVEL_DEG],
    upperAboveM: 0,
    poses: null,
    regards: (drive) => limits.some((limit) => limit.colour === drive.colour && limit.counts(drive)),
    more: 'hurts',
    lots: null,
    asksAlone: false,
    limits: () => limits,
    judge: (at) => check.inState(at, wish),
  };
}
