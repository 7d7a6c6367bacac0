import { removePlacements } from '../arrange/lamps.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { drivenIn } from '../state/driven.ts';
import { checkedFunctionSets, stateWith } from '../state/state.ts';
import { AMBIENTS } from '../words/ambient.ts';
import { checkBuild } from './check.ts';
import type { CheckResult, Finding, Quantity, RuleOutcome } from './finding.ts';

/** A lamp, with its mirror image where it has one, without which nothing is broken that holds with it. */
export interface Redundant {
  readonly placementIds: readonly string[];
  /** What is saved by not buying it, minor units; 0 for what is there already. */
  readonly priceMinor: number;
  /** The rule that loses most of its room, and how much it has with and without the lamp; null when none loses any. */
  readonly loses:
    | (Pick<RuleOutcome, 'packId' | 'ruleId'> & { readonly with: number; readonly without: number })
    | null;
}

/** A margin that differs by less is the same. */
const SAME = 0.001;

/**
 * Lamps that could be left out, what costs most first: without one of them, or a pair, nothing more than a note is found
 * that is not found with it, and nothing that is found gets worse. Each function is looked at by itself, as `checkBuild`
 * does; what is left to the proof is not looked at. Without two of those that are named something may well be broken.
 * Between two lamps it can be given up.
 */
export function* redundantLamps(build: Build): Generator<number, Redundant[]> {
  const lookup = lookupOf(build);
  const base = checkBuild(build);
  const found: Redundant[] = [];
  const lots = warningLots(build);
  for (const [i, lot] of lots.entries()) {
    const ids = new Set(lot.map(({ id }) => id));
    const without = checkBuild(removePlacements(build, ids));
    if (!isWorse(base, without))
      found.push({
        placementIds: [...ids],
        priceMinor: lot.reduce(
          (sum, p) => sum + (p.status === 'new' ? lookup.fixture(p.fixtureId).priceMinor : 0),
          0,
        ),
        loses: mostLost(base, without),
      });
    yield (i + 1) / lots.length;
  }
  return found.toSorted((a, b) => b.priceMinor - a.priceMinor);
}

/** The lamps made to warn that light in some function, each with its mirror image. */
function warningLots(build: Build): Placement[][] {
  const lit = new Set(
    checkedFunctionSets(build).flatMap((on) =>
      AMBIENTS.flatMap((ambient) =>
        drivenIn(build, stateWith({ on: [on], ambient })).flatMap((d) => (d.warns ? [d.placementId] : [])),
      ),
    ),
  );
  const lamps = build.placements.filter(({ id }) => lit.has(id));
  const isPartnerOfEarlier = (p: Placement, at: number): boolean =>
    lamps.slice(0, at).some((q) => q.id === p.partnerId);
  return lamps
    .filter((p, at) => !isPartnerOfEarlier(p, at))
    .map((p) => [p, ...lamps.filter((q) => q.id === p.partnerId && q.id !== p.id)]);
}

const outcomesByRule = ({ outcomes }: CheckResult): ReadonlyMap<string, RuleOutcome> =>
  new Map(outcomes.map((one) => [`${one.packId}|${one.ruleId}`, one]));

/** Whether something more than a note is found that was not, or the same by more than it was. */
function isWorse(base: CheckResult, without: CheckResult): boolean {
  const known = new Map(base.findings.map((finding) => [finding.id, finding]));
  return without.findings.some((now) => {
    const before = known.get(now.id);
    return before === undefined ? now.severity !== 'notes' : isFurtherOff(before, now);
  });
}

/** Whether the figure of a finding lies farther beyond a limit than it did. */
const isFurtherOff = (before: Finding, { figure, limits }: Finding): boolean =>
  limits.some(({ value, sense }) => {
    if (figure === null || before.figure === null) return false;
    const beyond = ({ value: is }: Quantity): number => (sense === 'at least' ? value - is : is - value);
    return beyond(figure) > Math.max(0, beyond(before.figure)) + SAME * Math.abs(value);
  });

function mostLost(base: CheckResult, without: CheckResult): Redundant['loses'] {
  const before = outcomesByRule(base);
  let most: Redundant['loses'] = null;
  for (const { packId, ruleId, margin } of without.outcomes) {
    const was = before.get(`${packId}|${ruleId}`)?.margin ?? null;
    if (margin === null || was === null || was - margin < SAME) continue;
    if (most === null || was - margin > most.with - most.without)
      most = { packId, ruleId, with: was, without: margin };
  }
  return most;
}
