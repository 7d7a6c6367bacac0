import type { Placement } from '../../design/placement.ts';
import type { DocumentCheck } from '../documentCheck.ts';
import type { IssueDraft } from '../judgement.ts';
import { aimRangeFaults } from './aimRange.ts';
import { asymmetryFaults } from './asymmetry.ts';
import { balanceFaults } from './balance.ts';
import { behindLampFaults } from './behindLamp.ts';
import { blockedFaults, coveredFaults } from './blocked.ts';
import { fixingFaults, holeFaults } from './holes.ts';
import { insideFaults } from './inside.ts';
import { keepOutFaults } from './keepOut.ts';
import { liftedFaults } from './lifted.ts';
import { misfitFaults } from './misfit.ts';
import { nearSignalFaults } from './nearSignal.ts';
import { offZoneFaults } from './offZone.ts';
import { overlapFaults } from './overlap.ts';
import { reachFaults } from './reach.ts';
import { roomFaults } from './room.ts';
import type { LayoutSubject } from './subject.ts';
import { turnedAwayFaults } from './turnedAway.ts';
import { counterpartsOf } from '../counterpart.ts';
import { subjectsKey } from '../subject.ts';

export const LAYOUT_CHECKS: readonly DocumentCheck[] = [
  { kind: 'overlap', severity: 'blocks', clause: 'Lamps do not overlap', findIssues: overlapFaults },
  { kind: 'keep-out', severity: 'blocks', clause: 'Keep-outs stay clear', findIssues: keepOutFaults },
  {
    kind: 'hole',
    severity: 'blocks',
    clause: 'No holes where drilling is not permitted',
    findIssues: holeFaults,
  },
  { kind: 'misfit', severity: 'blocks', clause: 'Lamps fit their zones', findIssues: misfitFaults },
  { kind: 'inside', severity: 'blocks', clause: 'Lenses are outside the body', findIssues: insideFaults },
  { kind: 'off-zone', severity: 'warns', clause: 'Lamps stay on their zones', findIssues: offZoneFaults },
  { kind: 'room', severity: 'warns', clause: 'Depth behind and projection', findIssues: roomFaults },
  {
    kind: 'aim-range',
    severity: 'warns',
    clause: 'Aim within the fixture’s range',
    findIssues: aimRangeFaults,
  },
  { kind: 'fixing', severity: 'warns', clause: 'Mounting suits the zone', findIssues: fixingFaults },
  { kind: 'near-signal', severity: 'warns', clause: 'Clear of turn signals', findIssues: nearSignalFaults },
  { kind: 'blocked', severity: 'warns', clause: 'Beams pass the body', findIssues: blockedFaults },
  { kind: 'behind-lamp', severity: 'warns', clause: 'Beams pass other lamps', findIssues: behindLampFaults },
  { kind: 'covered', severity: 'advises', clause: 'Beams pass open parts', findIssues: coveredFaults },
  {
    kind: 'turned-away',
    severity: 'advises',
    clause: 'Visible with open doors',
    findIssues: turnedAwayFaults,
  },
  {
    kind: 'balance',
    severity: 'advises',
    clause: 'Balance of upper and lower lamps',
    findIssues: balanceFaults,
  },
  { kind: 'reach', severity: 'notes', clause: 'Within reach for service', findIssues: reachFaults },
  {
    kind: 'lifted',
    severity: 'notes',
    clause: 'Keep-outs as the survey found them',
    findIssues: liftedFaults,
  },
  { kind: 'asymmetry', severity: 'notes', clause: 'Left and right match', findIssues: asymmetryFaults },
];

/** What a check found. */
export function layoutFaults(subject: LayoutSubject, check: DocumentCheck): IssueDraft[] {
  return oncePerPair(subject, check.findIssues(subject));
}

/** Figures that differ by less than this share of the greater are one. */
const SAME_SHARE = 0.01;

const isSameFigure = (a: IssueDraft['figure'], b: IssueDraft['figure']): boolean => {
  const [one, other] = [a?.value ?? 0, b?.value ?? 0];
  return Math.abs(one - other) <= SAME_SHARE * Math.max(Math.abs(one), Math.abs(other));
};

/** A fault that a mirrored pair shares is said once; one that is worse on one side is said of both. */
export function oncePerPair(subject: LayoutSubject, faults: readonly IssueDraft[]): IssueDraft[] {
  const lamps = new Map<string, Placement>(subject.build.placements.map((p) => [p.id, p]));
  const counterpart = counterpartsOf(subject.build);
  const byKey = new Map(faults.map((f) => [subjectsKey(f.subjects), f]));
  return faults.flatMap((fault): IssueDraft[] => {
    const [lamp, ...more] = fault.subjects.filter(({ kind }) => kind === 'lamp');
    const p = lamps.get(lamp?.id ?? '');
    const twin = byKey.get(subjectsKey(fault.subjects.map(counterpart)));
    if (p === undefined || more.length > 0 || twin === undefined || twin === fault) return [fault];
    if (!isSameFigure(fault.figure, twin.figure)) return [fault];
    if (faults.indexOf(twin) < faults.indexOf(fault)) return [];
    return [
      {
        ...fault,
        // A label may hold what a replacement would read as a pattern.
        sentence: fault.sentence.replace(p.label, (label) => `${label} (and its counterpart)`),
        channels: [...(fault.channels ?? []), ...(twin.channels ?? [])],
      },
    ];
  });
}
