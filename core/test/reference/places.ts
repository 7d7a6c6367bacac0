import { newBuild } from '../../src/design/create.ts';
import { addPlacement, changePlacement, type PlacementPatch } from '../../src/arrange/lamps.ts';
import { changeModules } from '../../src/design/moduleEdits.ts';
import type { Build } from '../../src/design/schema.ts';
import { changeEffect, setCue, setNightLevel } from '../../src/design/controlEdits.ts';
import { STAGE_IDS } from '../../src/design/usualControls.ts';
import { groupTarget, lightCue, type Cue } from '../../src/design/functions.ts';
import { addGroup } from '../../src/design/timingEdits.ts';
import { checkBuild } from '../../src/rules/check.ts';
import type { OwnZone } from '../../src/vehicle/spec.ts';
import type { Finding } from '../../src/rules/finding.ts';

/** An empty build on a body type. */
export const emptyBuild = (bodyType = 'mid-suv'): Build =>
  newBuild('66666666-6666-4666-8666-666666666666', 'Test', 'police', [], bodyType);

export interface At extends PlacementPatch {
  readonly fixture?: string;
  readonly zone: string;
}

/** Puts a lamp on a zone; a perimeter head unless said. */
export function put(
  build: Build,
  id: string,
  { fixture = 'perimeter-head-2', zone, uM = 0, vM = 0, ...more }: At,
): Build {
  return changePlacement(addPlacement(build, { id, fixtureId: fixture, zoneId: zone, uM, vM }), id, more);
}

/** The findings of one kind. */
export const ofKind = (build: Build, kind: string): Finding[] =>
  checkBuild({ ...build, rulePacks: [], brief: { ...build.brief, constraints: [] } }).findings.filter(
    (f) => f.kind === kind,
  );

/** A flat zone of one's own on the body, 200 × 100 mm, held by adhesive. */
export const ownZone = (patch: Partial<OwnZone> & Pick<OwnZone, 'id'>): OwnZone => ({
  name: 'Own zone',
  face: 'left',
  facing: patch.face === undefined || patch.face === 'inside' ? 'left' : patch.face,
  panDeg: 0,
  tiltDeg: 0,
  partId: null,
  mount: 'panel',
  fixings: ['adhesive'],
  centre: [0, 1, 0.7],
  widthM: 0.2,
  heightM: 0.1,
  singleWall: false,
  behind: 'Test',
  behindM: null,
  outM: null,
  ...patch,
});

/** The stage of that number; 0 is Off. */
export function stageId(stage: number): string {
  const id = STAGE_IDS[stage];
  if (id === undefined) throw new RangeError(`no stage ${stage}`);
  return id;
}

/** What a stage shows, replaced; or its level at night. */
export const changeStage = (
  build: Build,
  stage: number,
  { cues, nightLevel }: { readonly cues?: Cue[]; readonly nightLevel?: number },
): Build => {
  const cued = cues === undefined ? build : changeEffect(build, stageId(stage), { cues });
  return nightLevel === undefined ? cued : setNightLevel(cued, stageId(stage), nightLevel);
};

/** A cue of a group's first colour, by day and night alike. */
export const cueOf = (groupId: string, patternId: string): Cue =>
  lightCue(groupTarget(groupId), 1, patternId);

/** A head at the grille in a front group, one at the rear in a rear group, both showing a single flash. */
export function frontAndRear(): Build {
  const placed = put(put(emptyBuild(), 'f', { zone: 'grille' }), 'r', { zone: 'rear-bumper' });
  const grouped = (['f', 'r'] as const).reduce(
    (b, id) =>
      changeModules(addGroup(b, { id: `g${id}`, name: id }), [{ placementId: id, moduleId: 'm1' }], {
        groupId: `g${id}`,
      }),
    placed,
  );
  return (['gf', 'gr'] as const).reduce(
    (b, id) => setCue(b, stageId(2), groupTarget(id), 1, cueOf(id, 'single')),
    grouped,
  );
}
