import { z } from 'zod';
import { aimFrame, turnFrame } from '../geometry/frame.ts';
import { box } from '../geometry/solid.ts';
import { add, dot, scale, type Vec3 } from '../geometry/vec.ts';
import { FactoryFunction } from '../words/factoryFunction.ts';
import { Id, Name, FreeText } from '../words/names.ts';
import { mayTie } from './body/assembly.ts';
import { zone } from './body/zone.ts';
import {
  BOX,
  degrees,
  FACINGS,
  FLAT,
  hasRoom,
  OUTWARD,
  Point,
  share,
  size,
  VehicleFacing,
} from './measures.ts';
import { openingZones, tieZones } from './tieIn.ts';
import type { Assembly, FactoryLamp, KeepOut, MountZone } from './types.ts';

/** A vehicle has no more lamps and keep-outs that the survey found otherwise. */
const MOST_FOUND = 60;

/** A lamp the maker fitted, as it was measured on the vehicle. */
export const SurveyedLamp = z.strictObject({
  does: FactoryFunction,
  /** The middle of its lens. */
  middle: Point,
  widthM: size,
  heightM: size,
  /** The way its light goes, before it is turned to the right and raised, degrees. */
  facing: VehicleFacing,
  panDeg: degrees(90),
  tiltDeg: degrees(90),
});
export type SurveyedLamp = z.infer<typeof SurveyedLamp>;

/** A lamp the maker fitted that the body type does not have. */
export const AddedLamp = z.strictObject({
  id: Id,
  name: Name,
  /** The moving part that carries it; null on the body. */
  partId: Id.nullable(),
  ...SurveyedLamp.shape,
});
export type AddedLamp = z.infer<typeof AddedLamp>;

/** A keep-out of the body type that was found elsewhere, smaller, or not there. */
export const SurveyedKeepOut = z.strictObject({
  /** Where it is; null where there is none: it is lifted. */
  box: z.strictObject(BOX).refine(hasRoom, FLAT).nullable(),
  /** Who says so, and why. */
  reason: Name,
});
export type SurveyedKeepOut = z.infer<typeof SurveyedKeepOut>;

const atMost = <T>(list: Record<string, T>): boolean => Object.keys(list).length <= MOST_FOUND;
const TOO_MANY = `must be at most ${MOST_FOUND}`;

/** What was seen on the vehicle that differs from its body type. */
export const Survey = z.strictObject({
  /** By factory lamp: whether a flasher may drive it. */
  mayTie: z.record(Id, z.boolean()),
  /** Factory lamps taken out; each leaves its opening as a zone. */
  removedLamps: z.array(Id).max(MOST_FOUND),
  /** By factory lamp of the body type: how it was found. */
  lamps: z.record(Id, SurveyedLamp).refine(atMost, TOO_MANY),
  addedLamps: z.array(AddedLamp).max(MOST_FOUND, TOO_MANY),
  /** By pane: share of light it passes. */
  glass: z.record(Id, share),
  /** By zone: whether it is one skin that must not be drilled. */
  singleWall: z.record(Id, z.boolean()),
  /** By keep-out of the body type. */
  keepOuts: z.record(Id, SurveyedKeepOut).refine(atMost, TOO_MANY),
  notes: FreeText,
});
export type Survey = z.infer<typeof Survey>;

export const EMPTY_SURVEY: Survey = {
  mayTie: {},
  removedLamps: [],
  lamps: {},
  addedLamps: [],
  glass: {},
  singleWall: {},
  keepOuts: {},
  notes: '',
};

/** What the survey found, laid over what the body type says. Its keep-outs alone can be found otherwise, not one's own. */
export function surveyed(body: Assembly, own: Assembly, survey: Survey): Assembly {
  const gone = new Set(survey.removedLamps);
  const found = [
    ...body.factoryLamps.map((lamp) => foundAt(lamp, survey.lamps[lamp.id])),
    ...survey.addedLamps.map(({ id, name, partId, ...lamp }) =>
      placedLamp({ id, name, partId, mayTie: mayTie(lamp.does) }, lamp),
    ),
  ];
  const factoryLamps = found
    .filter((lamp) => !gone.has(lamp.id))
    .map((lamp) => ({ ...lamp, mayTie: survey.mayTie[lamp.id] ?? lamp.mayTie }));
  const openings = found.filter((lamp) => gone.has(lamp.id));
  const solids = [...body.solids, ...own.solids];
  const zones = [
    ...body.zones,
    ...own.zones,
    ...tieZones(factoryLamps, solids),
    ...openingZones(openings, solids),
  ];
  return {
    ...body,
    solids: solids.map((s) => ({ ...s, transmission: survey.glass[s.id] ?? s.transmission })),
    factoryLamps,
    zones: zones.map((z) => ({ ...z, singleWall: survey.singleWall[z.id] ?? z.singleWall })),
    keepOuts: [
      ...body.keepOuts.flatMap((keepOut) => keptAt(keepOut, survey.keepOuts[keepOut.id]) ?? []),
      ...own.keepOuts,
    ],
  };
}

const foundAt = (lamp: FactoryLamp, at: SurveyedLamp | undefined): FactoryLamp =>
  at === undefined ? lamp : placedLamp(lamp, at);

/** Straight out that way, and to the right and up as seen from outside, as on a zone that looks there. */
const axesOf = (facing: VehicleFacing): Pick<MountZone, 'n' | 'u' | 'v'> =>
  zone({
    id: '',
    name: '',
    face: 'front',
    mount: 'factory',
    centre: [0, 0, 0],
    n: OUTWARD[facing],
    behind: '',
    widthM: 0,
    heightM: 0,
  });

type LampHead = Pick<FactoryLamp, 'id' | 'name' | 'partId' | 'mayTie'>;

/** A lamp with a flat lens where it was measured. */
function placedLamp({ id, name, partId, mayTie: may }: LampHead, at: SurveyedLamp): FactoryLamp {
  const { n, u, v } = axesOf(at.facing);
  const corner = (right: number, up: number): Vec3 =>
    add(at.middle, add(scale(u, (right * at.widthM) / 2), scale(v, (up * at.heightM) / 2)));
  return {
    id,
    name,
    does: at.does,
    partId,
    mayTie: may,
    aim: turnFrame(aimFrame(n, v), at.panDeg, at.tiltDeg, 0).aim,
    outline: [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)],
  };
}

/** A lamp as the survey would note it if it were found just as it stands, its lens taken as flat. */
export function asFound({ does, outline, aim }: FactoryLamp): SurveyedLamp {
  const facing = FACINGS.reduce((a, b) => (dot(OUTWARD[b], aim) > dot(OUTWARD[a], aim) ? b : a));
  const { n, u, v } = axesOf(facing);
  const across = outline.map((p) => dot(p, u));
  const upward = outline.map((p) => dot(p, v));
  const extent = (along: readonly number[]): number =>
    Math.max(0.01, Math.max(...along) - Math.min(...along));
  const middle = scale(
    outline.reduce<Vec3>((sum, p) => add(sum, p), [0, 0, 0]),
    1 / Math.max(1, outline.length),
  );
  const { right, up } = aimFrame(n, v);
  return {
    does,
    middle: [middle[0], middle[1], middle[2]],
    widthM: extent(across),
    heightM: extent(upward),
    facing,
    panDeg: degreesOf(Math.atan2(dot(aim, right), dot(aim, n))),
    tiltDeg: degreesOf(Math.asin(Math.min(1, Math.max(-1, dot(aim, up))))),
  };
}

const degreesOf = (radians: number): number => (radians * 180) / Math.PI;

/** A keep-out where it was found; null where it is lifted. */
const keptAt = (keepOut: KeepOut, found: SurveyedKeepOut | undefined): KeepOut | null => {
  if (found === undefined) return keepOut;
  if (found.box === null) return null;
  const { partId } = keepOut.solid;
  return { ...keepOut, solid: box(keepOut.id, found.box.from, found.box.to, { partId }) };
};
