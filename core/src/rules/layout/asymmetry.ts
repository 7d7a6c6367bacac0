import type { Placement } from '../../design/placement.ts';
import { length, mirrorY, sub } from '../../geometry/vec.ts';
import { placeModules } from '../../resolve/place.ts';
import type { Colour } from '../../words/colour.ts';
import { atMost } from '../finding.ts';
import type { IssueDraft } from '../judgement.ts';
import { mmDown, pointing, type LayoutSubject, type StandingLamp } from './subject.ts';

/** Twins may stand this far from each other's mirror image, m. */
const TOLERANCE_M = 0.02;

/** Lamps beside the centreline with no like lamp at their mirror image, or with one in other colours than the rest. */
export function asymmetryFaults(subject: LayoutSubject, toleranceM = TOLERANCE_M): IssueDraft[] {
  const standing = subject.standing();
  const sided = standing.filter(
    ({ placed }) => Math.abs(placed.base[1]) >= TOLERANCE_M && placed.zone.face !== 'inside',
  );
  return [...sided.flatMap((s) => missingTwin(s, standing, toleranceM)), ...otherColours(subject, sided)];
}

function likes(of: StandingLamp, standing: readonly StandingLamp[]): { other: StandingLamp; offM: number }[] {
  const image = mirrorY(of.placed.base);
  return standing
    .filter((other) => other.p.id !== of.p.id && other.p.fixtureId === of.p.fixtureId)
    .map((other) => ({ other, offM: length(sub(other.placed.base, image)) }))
    .toSorted((a, b) => a.offM - b.offM);
}

function missingTwin(
  lamp: StandingLamp,
  standing: readonly StandingLamp[],
  toleranceM: number,
): IssueDraft[] {
  const nearest = likes(lamp, standing)[0]?.offM ?? Infinity;
  if (nearest <= toleranceM) return [];
  const near = nearest < 0.4;
  return [
    {
      sentence: near
        ? `${lamp.p.label}: counterpart is ${mmDown(nearest)} mm from the mirrored position.`
        : `${lamp.p.label} has no counterpart on the other side.`,
      figure: near ? { value: nearest * 1000, unit: 'mm' } : null,
      limits: near ? [atMost(toleranceM * 1000, 'mm')] : [],
      ...pointing([lamp.p]),
    },
  ];
}

/**
 * What a colour on one side answers to on the other, as most twins have it: itself, or the other of a split pair.
 * @param from - the side that asks
 */
function usualAnswers(pairs: readonly ColourPair[], from: 'left' | 'right'): ReadonlyMap<Colour, Colour> {
  const to = from === 'left' ? 'right' : 'left';
  const votes = new Map<Colour, Map<Colour, number>>();
  for (const pair of pairs) {
    const mine = votes.get(pair[from]) ?? new Map<Colour, number>();
    mine.set(pair[to], (mine.get(pair[to]) ?? 0) + 1);
    votes.set(pair[from], mine);
  }
  return new Map(
    [...votes].map(([asked, mine]) => [
      asked,
      [...mine].reduce((a, b) => (b[1] > a[1] || (b[1] === a[1] && b[0] === asked) ? b : a))[0],
    ]),
  );
}

interface ColourPair {
  readonly left: Colour;
  readonly right: Colour;
}

/** Twins whose colours do not answer each other as those of the other twins do. */
function otherColours(subject: LayoutSubject, sided: readonly StandingLamp[]): IssueDraft[] {
  const twins = sided
    .filter(({ placed }) => placed.base[1] > 0)
    .flatMap((left) => {
      const nearest = likes(left, sided)[0];
      return nearest === undefined || nearest.offM > TOLERANCE_M
        ? []
        : [{ left: left.p, right: nearest.other.p, pairs: pairsOf(subject, left.p, nearest.other.p) }];
    });
  const all = twins.flatMap((t) => t.pairs);
  // Asked from both sides: a colour that only the odd one has would agree with itself.
  const [fromLeft, fromRight] = [usualAnswers(all, 'left'), usualAnswers(all, 'right')];
  const isUsual = (pair: ColourPair): boolean =>
    fromLeft.get(pair.left) === pair.right && fromRight.get(pair.right) === pair.left;
  return twins.flatMap(({ left, right, pairs }): IssueDraft[] => {
    const odd = pairs.find((pair) => !isUsual(pair));
    if (odd === undefined) return [];
    return [
      {
        sentence: `${left.label} and ${right.label}: colours do not match the other pairs (left ${odd.left}, right ${odd.right}).`,
        ...pointing([left, right]),
      },
    ];
  });
}

/** The colours of modules that are each other's mirror images, slot by slot. */
function pairsOf({ lookup }: LayoutSubject, left: Placement, right: Placement): ColourPair[] {
  const theirs = placeModules(lookup, right, new Set());
  return placeModules(lookup, left, new Set()).flatMap(({ centre }, i) => {
    const image = mirrorY(centre);
    const k = theirs.findIndex((m) => length(sub(m.centre, image)) <= TOLERANCE_M);
    const [mine, other] = [left.modules[i], right.modules[k]];
    if (mine === undefined || other === undefined) return [];
    return mine.colours.flatMap((colour, slot): ColourPair[] => {
      const answer = other.colours[slot];
      return answer === undefined ? [] : [{ left: colour, right: answer }];
    });
  });
}
