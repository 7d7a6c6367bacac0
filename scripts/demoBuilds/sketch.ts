import { nightLevelOf, setCue, setNightLevel } from '@flarik/core/design/controlEdits';
import { groupTarget, lightCue } from '@flarik/core/design/functions';
import { STAGE_IDS } from '@flarik/core/design/usualControls';
import type { Slot } from '@flarik/core/timing/span';
import type { Requirement } from '@flarik/core/rules/brief/requirements';
import { addGroup, changeGroup } from '@flarik/core/design/timingEdits';
import { changeModules } from '@flarik/core/design/moduleEdits';
import type { ModuleSetup, Placement } from '@flarik/core/design/placement';
import type { Brief } from '@flarik/core/design/brief';
import type { EyePlace, Finish, WorkPlace } from '@flarik/core/design/site';
import { addPartner, addPlacement, changePlacement, setColour } from '@flarik/core/arrange/lamps';
import type { Build, ModuleRef } from '@flarik/core/design/schema';
import { addOwn, changeDimensions, toggleOption } from '@flarik/core/arrange/vehicleEdits';
import type { Reflector } from '@flarik/core/vehicle/spec';
import type { Colour } from '@flarik/core/words/colour';

/** A step of making a demo build; every one is an edit a designer could make. */
export type Edit = (build: Build) => Build;

export const all =
  (...edits: readonly Edit[]): Edit =>
  (build) =>
    edits.reduce((b, edit) => edit(b), build);

export interface Head {
  readonly id: string;
  readonly fixture: string;
  readonly zone: string;
  readonly u?: number;
  readonly v?: number;
  readonly pan?: number;
  readonly tilt?: number;
  readonly pole?: number;
  readonly status?: Placement['status'];
  readonly fixing?: Placement['fixing'];
  readonly lens?: number;
  readonly text?: string;
}

export const place =
  ({ id, fixture, zone, u = 0, v = 0, pan = 0, tilt = 0, pole = 0, ...h }: Head): Edit =>
  (build) =>
    changePlacement(addPlacement(build, { id, fixtureId: fixture, zoneId: zone, uM: u, vM: v }), id, {
      panDeg: pan,
      tiltDeg: tilt,
      poleM: pole,
      status: h.status ?? 'new',
      fixing: h.fixing ?? null,
      lensTransmission: h.lens ?? 1,
      text: h.text ?? '',
    });

/** A head and its mirrored partner. */
export const pair = (head: Head): Edit =>
  all(place(head), (build) => addPartner(build, head.id, `${head.id}-x`));

/** Pairs at several places of a zone: `id-1`, `id-2`, … */
export const pairs = (head: Head, us: readonly number[]): Edit =>
  all(...us.map((u, i) => pair({ ...head, id: `${head.id}-${i + 1}`, u })));

/** Every lamp whose id begins so, with its partner. */
export const idsOf = (build: Build, stems: readonly string[]): string[] =>
  build.placements
    .map((p) => p.id)
    .filter((id) => stems.some((stem) => id === stem || id.startsWith(`${stem}-`)));

const modulesOf = (build: Build, stems: readonly string[]): ModuleRef[] => {
  const ids = new Set(idsOf(build, stems));
  return build.placements
    .filter((p) => ids.has(p.id))
    .flatMap((p) => p.modules.map((m) => ({ placementId: p.id, moduleId: m.id })));
};

export const paint =
  (stems: readonly string[], ...colours: readonly Colour[]): Edit =>
  (build) =>
    colours.reduce((b, colour, i) => setColour(b, modulesOf(b, stems), i + 1, colour), build);

/** Colours that differ by side: the lamps as named, and their partners. */
export const paintSides =
  (stems: readonly string[], left: readonly Colour[], right: readonly Colour[]): Edit =>
  (build) => {
    const ids = idsOf(build, stems);
    return all(
      paint(
        ids.filter((id) => !id.endsWith('-x')),
        ...left,
      ),
      paint(
        ids.filter((id) => id.endsWith('-x')),
        ...right,
      ),
    )(build);
  };

export const paintModules =
  (
    id: string,
    moduleIds: readonly string[],
    colours: readonly Colour[],
    phase: ModuleSetup['phase'] = 'A',
  ): Edit =>
  (build) => {
    const refs = moduleIds.map((moduleId) => ({ placementId: id, moduleId }));
    const painted = colours.reduce((b, colour, i) => setColour(b, refs, i + 1, colour), build);
    return changeModules(painted, refs, { phase });
  };

export const group =
  (id: string, name: string, stems: readonly string[]): Edit =>
  (build) =>
    changeModules(addGroup(build, { id, name }), modulesOf(build, stems), { groupId: id });

/** Lets a group run on another's clock. */
export const follows =
  (id: string, followsId: string): Edit =>
  (build) =>
    changeGroup(build, id, { followsId });

/** Takes lamps out of every group. */
export const ungroup =
  (stems: readonly string[]): Edit =>
  (build) =>
    changeModules(build, modulesOf(build, stems), { groupId: null });

type Stage = 0 | 1 | 2 | 3;

export const cue =
  (stage: Stage, groupId: string | null, patternId: string, slot: Slot = 1, level = 1): Edit =>
  (build) => {
    const target = groupTarget(groupId);
    const on = STAGE_IDS[stage];
    const nightLevel = nightLevelOf(build, on) ?? 1;
    return setCue(build, on, target, slot, lightCue(target, slot, patternId, { level, nightLevel }));
  };

/** What message boards say in a stage: by day at full, at night at a fifth, so that letters do not run together. */
export const says =
  (stage: Stage, groupId: string, text: string): Edit =>
  (build) => {
    const target = groupTarget(groupId);
    return setCue(
      build,
      STAGE_IDS[stage],
      target,
      1,
      lightCue(target, 1, 'steady', { nightLevel: 0.2, text }),
    );
  };

/** The same in several stages. */
export const cues = (stages: readonly Stage[], groupId: string, patternId: string, level = 1): Edit =>
  all(...stages.map((stage) => cue(stage, groupId, patternId, 1, level)));

/** Night levels of all that the three stages show by now. */
export const nights = (one: number, two: number, three: number): Edit =>
  all(
    (b) => setNightLevel(b, STAGE_IDS[1], one),
    (b) => setNightLevel(b, STAGE_IDS[2], two),
    (b) => setNightLevel(b, STAGE_IDS[3], three),
  );

export const dimensions =
  (patch: Readonly<Record<string, number>>): Edit =>
  (build) =>
    changeDimensions(build, patch);

export const options =
  (...ids: readonly string[]): Edit =>
  (build) =>
    ids.reduce(toggleOption, build);

/** Reflective areas of the body's own. */
export const sheeting =
  (...areas: readonly Reflector[]): Edit =>
  (build) =>
    addOwn(build, 'reflectors', [...areas]);

/** Agency request; each wish gets a number of its own. */
export const brief =
  (said: Partial<Brief>, ...wishes: readonly WishOf[]): Edit =>
  (build) => ({
    ...build,
    brief: {
      ...build.brief,
      ...said,
      constraints: wishes.map((wish, i): Requirement => ({ ...wish, id: `wish-${i + 1}` })),
    },
  });

/** Where people work at the vehicle, and where their eyes are. */
export const site =
  (workPlaces: readonly WorkPlace[], eyes: readonly EyePlace[]): Edit =>
  (build) => ({ ...build, workPlaces: [...workPlaces], eyes: [...eyes] });

/** Surfaces that throw back more or less light than is usual. */
export const finishes =
  (...said: readonly Finish[]): Edit =>
  (build) => ({ ...build, finishes: [...said] });

type WithoutId<T> = T extends unknown ? Omit<T, 'id'> : never;
type WishOf = WithoutId<Requirement>;
