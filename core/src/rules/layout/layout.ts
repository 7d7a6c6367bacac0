import type { Build } from '../../design/schema.ts';
import type { Fault, LayoutKind } from '../finding.ts';
import type { Severity } from '../pack.ts';
import { asymmetryFaults } from './asymmetry.ts';
import { balanceFaults } from './balance.ts';
import { blockedFaults } from './blocked.ts';
import { fixingFaults, holeFaults } from './holes.ts';
import { keepOutFaults } from './keepOut.ts';
import { nearSignalFaults } from './nearSignal.ts';
import { offZoneFaults } from './offZone.ts';
import { overlapFaults } from './overlap.ts';
import { reachFaults } from './reach.ts';
import { LayoutSubject } from './subject.ts';
import { turnedAwayFaults } from './turnedAway.ts';

interface LayoutCheck {
  readonly kind: LayoutKind;
  readonly severity: Severity;
  readonly clause: string;
  readonly faults: (subject: LayoutSubject) => Fault[];
}

/** The checks that need no pack: a lamp cannot stand in another, whatever any law says. */
export const LAYOUT_CHECKS: readonly LayoutCheck[] = [
  { kind: 'overlap', severity: 'blocks', clause: 'Lamps stand apart', faults: overlapFaults },
  { kind: 'keep-out', severity: 'blocks', clause: 'Keep-outs stay clear', faults: keepOutFaults },
  { kind: 'hole', severity: 'blocks', clause: 'No holes where none may be', faults: holeFaults },
  { kind: 'off-zone', severity: 'warns', clause: 'Lamps stay on their zones', faults: offZoneFaults },
  { kind: 'fixing', severity: 'warns', clause: 'Held as the zone bears', faults: fixingFaults },
  { kind: 'near-signal', severity: 'warns', clause: 'Clear of turn signals', faults: nearSignalFaults },
  { kind: 'blocked', severity: 'warns', clause: 'Beams pass the body', faults: blockedFaults },
  { kind: 'turned-away', severity: 'advises', clause: 'Seen with doors open', faults: turnedAwayFaults },
  { kind: 'balance', severity: 'advises', clause: 'Upper and lower in balance', faults: balanceFaults },
  { kind: 'reach', severity: 'notes', clause: 'Within reach for service', faults: reachFaults },
  { kind: 'asymmetry', severity: 'notes', clause: 'Left and right alike', faults: asymmetryFaults },
];

/** Every check of the layout with what it found. */
export function checkLayout(build: Build): { readonly check: LayoutCheck; readonly faults: Fault[] }[] {
  const subject = new LayoutSubject(build);
  return LAYOUT_CHECKS.map((check) => ({ check, faults: joinPairs(build, check.faults(subject)) }));
}

const lampOf = (fault: Fault): string => {
  const lamps = new Set(fault.evidence.channelIds.map((id) => id.slice(0, id.indexOf('/'))));
  const [only] = lamps;
  return lamps.size === 1 && only !== undefined ? only : '';
};

/** A mirrored pair with the same fault on both is said once. */
function joinPairs(build: Build, faults: readonly Fault[]): Fault[] {
  const byLamp = new Map(faults.map((f) => [lampOf(f), f]));
  return faults.flatMap((fault): Fault[] => {
    const p = build.placements.find((candidate) => candidate.id === lampOf(fault));
    const twin = p?.partnerId === undefined || p.partnerId === null ? undefined : byLamp.get(p.partnerId);
    if (p === undefined || twin === undefined) return [fault];
    if (faults.indexOf(twin) < faults.indexOf(fault)) return [];
    return [
      {
        ...fault,
        sentence: fault.sentence.replace(`"${p.label}"`, `"${p.label}" (and its mirror image)`),
        evidence: {
          ...fault.evidence,
          channelIds: [...fault.evidence.channelIds, ...twin.evidence.channelIds],
        },
      },
    ];
  });
}
