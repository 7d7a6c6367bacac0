import { length, mirrorY, sub } from '../../geometry/vec.ts';
import type { Fault } from '../finding.ts';
import { evidenceOf, mmDown, type LayoutSubject } from './subject.ts';

/** Twins may stand this far from each other's mirror image, m. */
const TOLERANCE_M = 0.02;

/** Lamps beside the centreline with no like lamp at their mirror image. */
export function asymmetryFaults(subject: LayoutSubject): Fault[] {
  const standing = subject.standing();
  return standing.flatMap(({ p, placed }): Fault[] => {
    if (Math.abs(placed.base[1]) < TOLERANCE_M || placed.zone.face === 'inside') return [];
    const image = mirrorY(placed.base);
    const off = standing
      .filter((other) => other.p.id !== p.id && other.p.fixtureId === p.fixtureId)
      .map((other) => length(sub(other.placed.base, image)));
    const nearest = Math.min(Infinity, ...off);
    if (nearest <= TOLERANCE_M) return [];
    const near = nearest < 0.4;
    return [
      {
        sentence: near
          ? `"${p.label}" and its like on the other side stand ${mmDown(nearest)} mm apart from mirror images.`
          : `"${p.label}" has no like lamp on the other side.`,
        figure: near ? { value: nearest * 1000, unit: 'mm' } : null,
        limits: near ? [{ value: TOLERANCE_M * 1000, unit: 'mm', sense: 'at most' }] : [],
        evidence: evidenceOf([p]),
      },
    ];
  });
}
