import type { Placement } from '../../design/placement.ts';
import { FACES, facesAt } from '../../words/face.ts';
import { placeModules } from '../../resolve/place.ts';
import { bearingOf } from '../../geometry/direction.ts';
import type { IssueDraft } from '../judgement.ts';
import { pointing, percent, type LayoutSubject } from './subject.ts';
import { about } from '../subject.ts';

/** Neither level should carry less than this share of a face's warning light. */
const LEAST_SHARE = 0.1;
/** The usual border between upper and lower where no pack sets one, m. */
const USUAL_BORDER_M = 1.5;

/** Kinds that warn; floods and cabin lights have a level of their own. */
const WARNS = new Set(['roof bar', 'head', 'interior bar', 'rear bar', 'strip', 'beacon', 'legacy']);

/** Faces on which nearly all warning light comes from one level: a tall or a low car hides it. */
export function balanceFaults(subject: LayoutSubject): IssueDraft[] {
  const border = subject.build.rulePacks[0]?.upperAboveM ?? USUAL_BORDER_M;
  const sums = new Map(FACES.map((f) => [f, { upper: 0, lower: 0, lamps: new Set<Placement>() }]));
  for (const p of subject.lamps) {
    if (p.status === 'planned') continue;
    const fixture = subject.lookup.fixture(p.fixtureId);
    if (!WARNS.has(fixture.kind)) continue;
    for (const [i, { centre, frame, module }] of placeModules(subject.lookup, p, new Set()).entries()) {
      const colour = p.modules[i]?.colours[0];
      const setup = p.modules[i];
      const peak =
        colour === undefined || setup === undefined
          ? 0
          : (subject.lookup.outputs(fixture, setup)[colour]?.peakCd ?? 0);
      const faces = module.distribution.h50Deg === null ? FACES : facesAt(bearingOf(frame.aim).bearingDeg);
      for (const face of faces) {
        const sum = sums.get(face);
        if (sum === undefined) continue;
        if (centre[2] > border) sum.upper += peak;
        else sum.lower += peak;
        sum.lamps.add(p);
      }
    }
  }
  return FACES.flatMap((face): IssueDraft[] => {
    const sum = sums.get(face);
    const whole = sum === undefined ? 0 : sum.upper + sum.lower;
    if (sum === undefined || whole === 0) return [];
    const [weak, least] = sum.upper < sum.lower ? ['upper', sum.upper] : ['lower', sum.lower];
    if (least / whole >= LEAST_SHARE) return [];
    return [
      {
        sentence: `${weak} lamps give ${percent(least / whole)} % of the warning light to the ${face} (minimum ${percent(LEAST_SHARE)} %).`,
        figure: { value: (least / whole) * 100, unit: '%' },
        limits: [{ value: LEAST_SHARE * 100, unit: '%', sense: 'at least' }],
        ...pointing([...sum.lamps]),
        subjects: [about('face', face)],
      },
    ];
  });
}
