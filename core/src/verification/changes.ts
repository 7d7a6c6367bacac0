import { NONE, type Diagram } from './diagrams.ts';
import type { MachineEvent } from './parts.ts';
import type { ReachableSet } from './reachable.ts';
import { image, preImage } from './relations.ts';
import type { RepresentativeState } from './representative.ts';
import type { VerificationSubject } from './subject.ts';

/** A change that one event may bring about: from one of some states to one of others. */
export interface Change {
  readonly from: Diagram;
  readonly to: Diagram;
  readonly by: (event: MachineEvent) => boolean;
}

/** The state after a change of a kind that is reached by as few events as any such; null where none can come about. */
export function nearestChange(
  subject: VerificationSubject,
  reached: ReachableSet,
  { from, to, by }: Change,
): RepresentativeState | null {
  const d = reached.program.diagrams;
  const before = d.and(reached.states, from);
  let nearest: RepresentativeState | null = null;
  for (const { relations } of reached.parts)
    for (const relation of relations) {
      if (!by(relation.event) || d.and(image(reached.program, relation, before), to) === NONE) continue;
      const starts = d.and(before, preImage(reached.program, relation, to));
      const way = reached.nearest(
        nearest === null ? starts : reached.nearerThan(starts, nearest.events.length - 1),
      );
      if (way !== null) nearest = subject.played([...way.events, relation.event.event], to, reached);
    }
  return nearest;
}
