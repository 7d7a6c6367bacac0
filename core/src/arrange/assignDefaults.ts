import { MOST_GROUPS } from '../design/timing.ts';
import { changeModules } from '../design/moduleEdits.ts';
import type { Build } from '../design/schema.ts';
import { nightLevelOf, setCue } from '../design/controlEdits.ts';
import { functionAt, readOn, effectsOf, type ActiveFunction } from '../design/controls.ts';
import { groupTarget, lightCue, MOST_CUES, sameTarget } from '../design/functions.ts';
import { addGroupInStep } from '../design/timingEdits.ts';
import { coloursOffered } from '../fixture/catalogue/catalogue.ts';
import { length, sub, type Vec3 } from '../geometry/vec.ts';
import { isWarning } from '../resolve/channels.ts';
import { lookupOf, type Lookup } from '../resolve/lookup.ts';
import { placeFixture, placeModules } from '../resolve/place.ts';
import type { Phase } from '../timing/pattern.ts';
import type { MountZone } from '../vehicle/types.ts';
import { bearingOf } from '../geometry/direction.ts';
import type { Colour } from '../words/colour.ts';
import { facesAt, type Face } from '../words/face.ts';
import { firstColours, type MayShow } from './firstColours.ts';

/** The places of a vehicle whose lamps usually work together. */
export const PLACES = ['front', 'sides', 'rear', 'upper'] as const;
export type LampRegion = (typeof PLACES)[number];

export const placeName: Readonly<Record<LampRegion, string>> = {
  front: 'Front',
  sides: 'Sides',
  rear: 'Rear',
  upper: 'Upper',
};

/** What a group shows where no other shows anything to go by. */
const FIRST_PATTERN = 'double';
/** Nearer to the centre plane than this a module belongs to neither side, m. */
const MIDDLE_M = 0.02;
/** A lamp within this of the mirrored place is its mirror image, m. */
const MIRROR_M = 0.06;

const SHUT: ReadonlySet<string> = new Set();

/** Where the lamps of a zone belong: those on the roof to the upper ones, the others where they look. */
function placeOf({ mount, n }: MountZone): LampRegion {
  if (mount === 'roof') return 'upper';
  if (Math.abs(n[0]) < 0.5) return 'sides';
  return n[0] > 0 ? 'front' : 'rear';
}

/** A module as it stands, with its setup. */
interface ModuleSnapshot {
  readonly placementId: string;
  readonly moduleId: string;
  readonly at: Vec3;
  readonly zoneId: string;
  readonly place: LampRegion;
  readonly groupId: string | null;
  readonly phase: Phase;
  readonly colours: readonly Colour[];
  /** Where it looks. */
  readonly faces: readonly Face[];
}

function standing(build: Build, lookup: Lookup): ModuleSnapshot[] {
  return build.placements.flatMap((p) => {
    if (p.status === 'removed' || !isWarning(lookup.fixture(p.fixtureId))) return [];
    const { zone } = placeFixture(lookup, p, SHUT);
    return placeModules(lookup, p, SHUT).flatMap(({ module, centre, frame }) => {
      const setup = p.modules.find((m) => m.id === module.id);
      return setup === undefined
        ? []
        : [
            {
              ...setup,
              placementId: p.id,
              moduleId: module.id,
              at: centre,
              zoneId: p.zoneId,
              place: placeOf(zone),
              faces: facesAt(bearingOf(frame.aim).bearingDeg),
            },
          ];
    });
  });
}

/** Left, middle or right of the vehicle: 1, 0, −1. */
const sideOf = ([, y]: Vec3): number => (Math.abs(y) < MIDDLE_M ? 0 : Math.sign(y));

/** The value named most often, of equals the first; undefined of none. */
function mostOften<T>(values: readonly T[]): T | undefined {
  const counts = new Map<T, number>();
  for (const value of values) counts.set(value, (counts.get(value) ?? 0) + 1);
  return [...counts].reduce<[T, number] | undefined>(
    (a, b) => (a !== undefined && a[1] >= b[1] ? a : b),
    undefined,
  )?.[0];
}

/**
 * Lamps just placed join those of their place: the group their neighbours are in, or that of the front, the sides, the
 * rear or the roof, made when there is none. They take the colours of their side, else those usual for the service, answer
 * their mirror image, and light in what is looked at. Lamps that light up a scene, and factory lamps, stay by themselves.
 * @param mayShow - what the packs of the build permit
 */
export function assignDefaults(
  build: Build,
  placementIds: readonly string[],
  on: readonly ActiveFunction[],
  mayShow: MayShow = () => true,
): Build {
  const lookup = lookupOf(build);
  const all = standing(build, lookup);
  const isNew = new Set(placementIds);
  const others = all.filter((m) => !isNew.has(m.placementId));
  return placementIds.reduce((now, id) => {
    const p = now.placements.find((candidate) => candidate.id === id);
    const mine = all.filter((m) => m.placementId === id);
    const [first] = mine;
    if (p === undefined || first === undefined || placeFixture(lookup, p, SHUT).zone.mount === 'factory')
      return now;
    const group = inGroup(now, first, others);
    if (group === null) return now;
    const { build: grouped, groupId } = group;
    const { outputs, colourSlots } = lookup.fixture(p.fixtureId);
    const offered = coloursOffered(outputs);
    const usual = (m: ModuleSnapshot): Colour[] =>
      firstColours(build.service, { offered, slots: colourSlots, faces: m.faces, mayShow });
    const joined = mine.reduce(
      (b, m) =>
        changeModules(b, [{ placementId: id, moduleId: m.moduleId }], {
          groupId,
          phase: phaseFor(m, others),
          colours: coloursBeside(m, others, offered)?.slice(0, colourSlots) ?? usual(m),
        }),
      grouped,
    );
    return on.reduce((lit, one) => litIn(lit, one, groupId), joined);
  }, build);
}

/** The group for a lamp, made where there is none for its place; null when no more can be made. */
function inGroup(
  build: Build,
  { zoneId, place }: ModuleSnapshot,
  others: readonly ModuleSnapshot[],
): { build: Build; groupId: string } | null {
  const groupsOf = (of: readonly ModuleSnapshot[]): string | undefined =>
    mostOften(of.flatMap(({ groupId }) => groupId ?? []));
  const { groups } = build.timing;
  const known =
    groupsOf(others.filter((o) => o.zoneId === zoneId)) ??
    groups.find((g) => g.name.toLowerCase() === placeName[place].toLowerCase())?.id ??
    groupsOf(others.filter((o) => o.place === place));
  if (known !== undefined) return { build, groupId: known };
  if (groups.length >= MOST_GROUPS) return null;
  const taken = new Set(groups.map((g) => g.id));
  const groupId = [place, ...Array.from({ length: groups.length }, (_, i) => `${place}-${i + 2}`)].find(
    (id) => !taken.has(id),
  );
  if (groupId === undefined) throw new RangeError(`no id is free for the group '${place}'`);
  return { build: addGroupInStep(build, { id: groupId, name: placeName[place] }), groupId };
}

/** A on the left and B on the right, or the other way round where its mirror image says so. */
function phaseFor({ at, phase, place }: ModuleSnapshot, others: readonly ModuleSnapshot[]): Phase {
  const image: Vec3 = [at[0], -at[1], at[2]];
  const twin = others.find((o) => length(sub(o.at, image)) < MIRROR_M && sideOf(o.at) !== 0);
  if (twin !== undefined) return twin.phase === 'A' ? 'B' : 'A';
  const beside = mostOften(
    others.filter((o) => o.place === place && sideOf(o.at) === sideOf(at)).map((o) => o.phase),
  );
  if (beside !== undefined) return beside;
  return sideOf(at) === 0 ? phase : sideOf(at) > 0 ? 'A' : 'B';
}

/** Says who commands, and is no colour of a side. */
const OF_COMMAND: Colour = 'green';

/** The colours of the nearest module on its side, as far as the fixture has them; null where none goes before. */
function coloursBeside(
  m: ModuleSnapshot,
  others: readonly ModuleSnapshot[],
  offered: readonly Colour[],
): Colour[] | null {
  const nearest = others
    .filter(
      (o) =>
        sideOf(o.at) === sideOf(m.at) &&
        o.colours.slice(0, 1).every((c) => c !== OF_COMMAND && offered.includes(c)),
    )
    .toSorted(
      (a, b) =>
        Number(b.place === m.place) - Number(a.place === m.place) ||
        length(sub(a.at, m.at)) - length(sub(b.at, m.at)),
    )[0];
  return nearest?.colours.filter((c) => offered.includes(c)) ?? null;
}

/** A group lights in a warning function, as most others there; Off stays dark. */
function litIn(build: Build, on: ActiveFunction, groupId: string): Build {
  const { kind, mode } = functionAt(build, readOn(on).id);
  const cues = effectsOf(build, on).cues.filter((cue) => cue.show === 'light');
  const target = groupTarget(groupId);
  const warns = (kind === 'stage' && mode !== 0) || kind === 'warning';
  if (!warns || cues.length >= MOST_CUES || cues.some((c) => sameTarget(c.target, target))) return build;
  const patternId =
    mostOften(cues.filter((c) => c.ink === 1 && c.target.kind === 'group').map((c) => c.patternId)) ??
    FIRST_PATTERN;
  const nightLevel = nightLevelOf(build, on) ?? 1;
  return setCue(build, on, target, 1, lightCue(target, 1, patternId, { nightLevel }));
}
