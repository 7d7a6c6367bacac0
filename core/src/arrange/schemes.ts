import { dot, type Vec3 } from '../geometry/vec.ts';
import { bearingOf } from '../geometry/direction.ts';
import type { Phase } from '../timing/pattern.ts';
import type { Build } from '../design/schema.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';

/** Ways to share out phases over a vehicle. */
export const SCHEMES = [
  'together',
  'halves',
  'x',
  'quarters',
  'ends',
  'levels',
  'corners',
  'corners-across',
  'inside-out',
  'checkers',
  'march',
  'row',
] as const;
export type Scheme = (typeof SCHEMES)[number];

export const schemeName: Readonly<Record<Scheme, string>> = {
  together: 'All together',
  halves: 'Left and right',
  x: 'X across the corners',
  quarters: 'Quarters, sequential: A, B, C, D',
  ends: 'Front and rear',
  levels: 'Upper and lower',
  corners: 'Side to end at each corner',
  'corners-across': 'Left to right and side to end together',
  'inside-out': 'Inner and outer',
  checkers: 'Every other one',
  march: 'Marching round: numbered steps',
  row: 'Along a row: numbered left to right as seen from behind',
};

/** Where a module stands and looks, for sharing out phases. */
export interface SchemePlace {
  readonly placementId: string;
  readonly moduleId: string;
  readonly at: Vec3;
  readonly aim: Vec3;
}

/** A module's part in a scheme. */
export interface SchemePart extends SchemePlace {
  readonly phase: Phase;
  /** Its number in a march or a row, from 1. */
  readonly order: number;
}

/** Nearer to the centre plane than this a module belongs to neither side, m. */
const MIDDLE_M = 0.02;
const MOST_STEPS = 64;

/** What each module of these lamps would do in a scheme, in the order of the lamps. */
export function schemeParts(build: Build, ids: ReadonlySet<string>, scheme: Scheme): SchemePart[] {
  const lookup = lookupOf(build);
  const places = build.placements
    .filter((p) => ids.has(p.id))
    .flatMap((p) =>
      placeModules(lookup, p, new Set()).map(({ module, centre, frame }) => ({
        placementId: p.id,
        moduleId: module.id,
        at: centre,
        aim: frame.aim,
      })),
    );
  const border = build.rulePacks[0]?.upperAboveM ?? lookup.vehicle.heightM / 2;
  const turns = takeTurns(places);
  return places.map((place) => ({
    ...place,
    phase: phaseOf(scheme, place, { border, innerM: lookup.vehicle.widthM / 4, turns }),
    order: (stepOf(scheme, turns.get(place)) % MOST_STEPS) + 1,
  }));
}

/** A module's step in a march or a row, from 0. */
function stepOf(scheme: Scheme, turn: Turn | undefined): number {
  if (turn === undefined) return 0;
  return scheme === 'march' ? turn.round : scheme === 'row' ? turn.across : 0;
}

/** Whether a scheme numbers the modules besides giving them phases. */
export const numbers = (scheme: Scheme): boolean => scheme === 'march' || scheme === 'row';

interface Turn {
  /** Place from the front along its own side, from 0. */
  readonly along: number;
  /** Place clockwise round the whole vehicle from straight ahead, from 0. */
  readonly round: number;
  /** Place from the left over the whole width, from 0. */
  readonly across: number;
}

/** The order of modules round the vehicle, and along each side from the front. */
function takeTurns(places: readonly SchemePlace[]): ReadonlyMap<SchemePlace, Turn> {
  const bearing = ({ at }: SchemePlace): number => bearingOf([at[0], at[1], 0]).bearingDeg;
  const round = places.toSorted((a, b) => bearing(a) - bearing(b));
  // Mirrored, so that twins get the same number.
  const fromFront = (p: SchemePlace): number => Math.min(bearing(p), 360 - bearing(p));
  const across = places.toSorted((a, b) => b.at[1] - a.at[1]);
  const sides = [places.filter((p) => p.at[1] > 0), places.filter((p) => p.at[1] <= 0)].map((side) =>
    side.toSorted((a, b) => fromFront(a) - fromFront(b)),
  );
  return new Map(
    places.map((p) => [
      p,
      {
        round: round.indexOf(p),
        across: across.indexOf(p),
        along: sides.find((side) => side.includes(p))?.indexOf(p) ?? 0,
      },
    ]),
  );
}

/** Whether a module looks more to its side of the vehicle than to an end. */
const looksAside = ({ aim }: SchemePlace): boolean =>
  Math.abs(dot(aim, [0, 1, 0])) > Math.abs(dot(aim, [1, 0, 0]));

/** The phase a module takes. */
function phaseOf(
  scheme: Scheme,
  place: SchemePlace,
  { border, innerM, turns }: { border: number; innerM: number; turns: ReadonlyMap<SchemePlace, Turn> },
): Phase {
  const [x, y, z] = place.at;
  const left = y > -MIDDLE_M;
  const one = (first: boolean): Phase => (first ? 'A' : 'B');
  switch (scheme) {
    case 'together':
    case 'march':
    case 'row':
      return 'A';
    case 'halves':
      return one(left);
    case 'x':
      return one(left === x > 0);
    case 'quarters':
      if (x > 0) return left ? 'A' : 'B';
      return left ? 'D' : 'C';
    case 'ends':
      return one(x > 0);
    case 'levels':
      return one(z > border);
    case 'corners':
      return one(looksAside(place));
    case 'corners-across':
      return one(looksAside(place) !== left);
    case 'inside-out':
      return one(Math.abs(y) < innerM);
    case 'checkers':
      return one(((turns.get(place)?.along ?? 0) % 2 === 0) === left);
  }
}

/** Lays a scheme over lamps: the phases of all their modules, and for a march their numbers. */
export function applyScheme(build: Build, ids: ReadonlySet<string>, scheme: Scheme): Build {
  const parts = new Map(
    schemeParts(build, ids, scheme).map((part) => [`${part.placementId}/${part.moduleId}`, part]),
  );
  return {
    ...build,
    placements: build.placements.map((p) =>
      ids.has(p.id)
        ? {
            ...p,
            modules: p.modules.map((m) => {
              const part = parts.get(`${p.id}/${m.id}`);
              if (part === undefined) return m;
              return { ...m, phase: part.phase, order: numbers(scheme) ? part.order : m.order };
            }),
          }
        : p,
    ),
  };
}
