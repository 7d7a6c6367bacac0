import type { Build } from '../design/schema.ts';
import { boundsOf } from '../geometry/solid.ts';
import { mirrorY } from '../geometry/vec.ts';
import { lookupOf } from '../resolve/lookup.ts';
import type { KeepOut } from '../vehicle/types.ts';
import { about, type Subject } from './subject.ts';

/** Keep-outs are mirror images when their boxes agree so closely, m. */
const ALIKE_M = 0.002;

/**
 * What stands on the other side of a vehicle in place of a subject: the partner of a lamp, the keep-out at the mirror image,
 * the other side. Itself where there is none.
 */
export function counterpartsOf(build: Build): (one: Subject) => Subject {
  const partners = new Map(build.placements.map(({ id, partnerId }) => [id, partnerId ?? id]));
  const { keepOuts } = lookupOf(build).vehicle;
  const mirrored = new Map(
    keepOuts.map((keepOut) => [
      keepOut.id,
      keepOuts.find((other) => areMirrorImages(keepOut, other))?.id ?? keepOut.id,
    ]),
  );
  return ({ kind, id }) => about(kind, otherOf(kind, id));

  function otherOf(kind: Subject['kind'], id: string): string {
    if (kind === 'lamp') return partners.get(id) ?? id;
    if (kind === 'keep-out') return mirrored.get(id) ?? id;
    return kind === 'face' ? (SIDES.get(id) ?? id) : id;
  }
}

const SIDES: ReadonlyMap<string, string> = new Map([
  ['left', 'right'],
  ['right', 'left'],
]);

function areMirrorImages(a: KeepOut, b: KeepOut): boolean {
  const [one, other] = [boundsOf([a.solid]), boundsOf([b.solid])];
  if (a.kind !== b.kind || one === null || other === null) return false;
  const image = { low: mirrorY(other.low), high: mirrorY(other.high) };
  const apart = [
    one.low[0] - image.low[0],
    one.high[0] - image.high[0],
    // A mirror image's right edge is the left edge of what it mirrors.
    one.low[1] - image.high[1],
    one.high[1] - image.low[1],
    one.low[2] - image.low[2],
    one.high[2] - image.high[2],
  ];
  return apart.every((m) => Math.abs(m) <= ALIKE_M);
}
