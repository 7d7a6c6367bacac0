/** Writes the demo builds of `demo/builds/` from the edits a designer would make. */
import { readFileSync, writeFileSync } from 'node:fs';
import { newBuild } from '@flarik/core/build/create';
import {
  addGroup,
  addPartner,
  addPlacement,
  changeModules,
  changePlacement,
  changeStage,
  setColour,
  setCue,
  type ModuleRef,
} from '@flarik/core/build/edits';
import { readBuild, type Build, type Cue, type StageIndex } from '@flarik/core/build/schema';
import type { Colour } from '@flarik/core/fixture/colour';
import { readRulePack } from '@flarik/core/rules/pack';

const demo = new URL('../demo/', import.meta.url);
const byLaw = readRulePack(JSON.parse(readFileSync(new URL('packs/kestrel-sound.json', demo), 'utf8')));

type Edit = (build: Build) => Build;
const all =
  (...edits: readonly Edit[]): Edit =>
  (build) =>
    edits.reduce((b, edit) => edit(b), build);

interface Head {
  readonly id: string;
  readonly fixture: string;
  readonly zone: string;
  readonly u?: number;
  readonly v?: number;
  readonly pan?: number;
  readonly tilt?: number;
}

const place =
  ({ id, fixture, zone, u = 0, v = 0, pan = 0, tilt = 0 }: Head): Edit =>
  (build) =>
    changePlacement(addPlacement(build, { id, fixtureId: fixture, zoneId: zone, uM: u, vM: v }), id, {
      panDeg: pan,
      tiltDeg: tilt,
    });

/** A head and its mirrored partner. */
const pair = (head: Head): Edit => all(place(head), (build) => addPartner(build, head.id, `${head.id}-x`));

const modulesOf = (build: Build, ids: readonly string[]): ModuleRef[] =>
  build.placements
    .filter((p) => ids.includes(p.id))
    .flatMap((p) => p.modules.map((m) => ({ placementId: p.id, moduleId: m.id })));

const paint =
  (ids: readonly string[], colours: readonly Colour[]): Edit =>
  (build) =>
    colours.reduce((b, colour, i) => setColour(b, modulesOf(b, ids), i + 1, colour), build);

const paintModules =
  (id: string, moduleIds: readonly string[], colours: readonly Colour[], phase: 'A' | 'B'): Edit =>
  (build) => {
    const refs = moduleIds.map((moduleId) => ({ placementId: id, moduleId }));
    const painted = colours.reduce((b, colour, i) => setColour(b, refs, i + 1, colour), build);
    return changeModules(painted, refs, { phase });
  };

const group =
  (id: string, name: string, ids: readonly string[]): Edit =>
  (build) =>
    changeModules(addGroup(build, { id, name }), modulesOf(build, ids), { groupId: id });

const cue =
  (stage: StageIndex, groupId: string | null, patternId: string, slot: Cue['slot'] = 1, level = 1): Edit =>
  (build) =>
    setCue(build, stage, groupId, slot, { groupId, patternId, slot, level });

const LEFT = ['corner-f', 'grille', 'wing', 'mirror', 'sill', 'quarter', 'tail', 'corner-r'] as const;

/** What both sisters carry: the same heads in the same places. */
const heads: Edit = all(
  place({ id: 'bar', fixture: 'roof-bar-1200', zone: 'roof' }),
  pair({ id: 'grille', fixture: 'perimeter-head-2', zone: 'grille', u: 0.3 }),
  pair({ id: 'corner-f', fixture: 'perimeter-head-2', zone: 'corner-front-left' }),
  pair({ id: 'wing', fixture: 'perimeter-head-2', zone: 'wing-left', u: -0.2 }),
  pair({ id: 'mirror', fixture: 'mirror-head', zone: 'mirror-left' }),
  pair({ id: 'sill', fixture: 'perimeter-head-1', zone: 'sill-left', u: -0.3 }),
  pair({ id: 'quarter', fixture: 'perimeter-head-2', zone: 'quarter-glass-left' }),
  pair({ id: 'tail', fixture: 'perimeter-head-2', zone: 'hatch-panel-left' }),
  pair({ id: 'corner-r', fixture: 'perimeter-head-2', zone: 'corner-rear-left' }),
  place({ id: 'arrow', fixture: 'rear-arrow-bar', zone: 'rear-glass' }),
  pair({ id: 'scene', fixture: 'scene-flood', zone: 'roof-side-left' }),
  pair({ id: 'marker-f', fixture: 'door-edge-marker', zone: 'door-edge-front-left' }),
  pair({ id: 'marker-r', fixture: 'door-edge-marker', zone: 'door-edge-rear-left' }),
);

const withPartners = (ids: readonly string[]): string[] => ids.flatMap((id) => [id, `${id}-x`]);

const stages: Edit = all(
  (b) => changeStage(b, 1, { name: 'Stage 1', nightLevel: 0.6 }),
  (b) => changeStage(b, 2, { name: 'Stage 2', nightLevel: 0.7 }),
  (b) => changeStage(b, 3, { name: 'Stage 3', nightLevel: 0.8 }),
);

const BAR_LEFT = ['m1', 'm2', 'm3', 'm7', 'm8', 'm9', 'c1', 'c4'] as const;
const BAR_RIGHT = ['m4', 'm5', 'm6', 'm10', 'm11', 'm12', 'c2', 'c3'] as const;
const BAR_FRONT_WHITE = ['m3', 'm4'] as const;

/** Groups and stages that both sisters share; `rear` names the heads in the rear group. */
const timing = (frontHeads: readonly string[], rearHeads: readonly string[]): Edit =>
  all(
    group('front', 'Front and sides', withPartners(frontHeads)),
    group('bar', 'Roof bar', ['bar']),
    group('rear', 'Rear', withPartners(rearHeads)),
    group('arrow', 'Rear arrow', ['arrow']),
    group('scene', 'Scene light', withPartners(['scene'])),
    group('doors', 'Door markers', withPartners(['marker-f', 'marker-r'])),
    cue(1, 'rear', 'single'),
    cue(1, 'bar', 'single'),
    cue(1, 'doors', 'steady'),
    cue(2, 'front', 'double'),
    cue(2, 'bar', 'double'),
    cue(2, 'rear', 'double'),
    cue(2, 'doors', 'steady'),
    cue(3, 'front', 'quad'),
    cue(3, 'bar', 'quad'),
    cue(3, 'rear', 'double'),
    cue(3, 'doors', 'steady'),
    stages,
  );

/** KS-12: side-split colours, rear first; with a few honest mistakes left in. */
const ks12 = all(
  heads,
  paint(withPartners(['scene']), ['white']),
  paint(withPartners(['marker-f', 'marker-r']), ['red']),
  paint(LEFT, ['red', 'white']),
  paint(
    LEFT.map((id) => `${id}-x`),
    ['blue', 'white'],
  ),
  paintModules('bar', BAR_LEFT, ['red', 'white'], 'A'),
  paintModules('bar', BAR_RIGHT, ['blue', 'white'], 'B'),
  paint(['arrow'], ['amber']),
  timing(['corner-f', 'grille', 'wing', 'mirror', 'sill', 'quarter'], ['tail', 'corner-r']),
  cue(1, 'arrow', 'sweep'),
  cue(2, 'arrow', 'slow-alternate'),
  cue(3, 'arrow', 'sweep'),
  cue(3, 'bar', 'single', 2),
  (b) => changeModules(b, modulesOf(b, ['quarter-x']), { groupId: null }),
  cue(2, null, 'double'),
  cue(3, null, 'quad'),
);

/** KS-13: all colours on both sides, and the mistakes put right. */
const ks13 = all(
  heads,
  pair({ id: 'lip', fixture: 'hatch-lip-head', zone: 'hatch-lip', u: 0.4 }),
  pair({ id: 'bumper', fixture: 'perimeter-head-2', zone: 'rear-bumper', u: 0.4 }),
  paint(withPartners(['scene']), ['white']),
  paint(withPartners(['marker-f', 'marker-r']), ['red']),
  paint(withPartners([...LEFT, 'lip', 'bumper']), ['red', 'blue']),
  paintModules('bar', BAR_LEFT, ['red', 'blue'], 'A'),
  paintModules('bar', BAR_RIGHT, ['red', 'blue'], 'B'),
  paintModules('bar', BAR_FRONT_WHITE, ['red', 'blue', 'white'], 'A'),
  paint(['arrow'], ['amber']),
  timing(['corner-f', 'grille', 'wing', 'mirror', 'sill', 'quarter'], ['tail', 'corner-r', 'lip', 'bumper']),
  cue(1, 'arrow', 'sweep'),
  cue(2, 'arrow', 'sweep'),
  cue(3, 'arrow', 'sweep'),
  cue(3, 'bar', 'single', 3),
);

function write(file: string, id: string, name: string, notes: string, edit: Edit): void {
  const build = readBuild({ ...edit(newBuild(id, name, 'police', [byLaw])), notes });
  writeFileSync(new URL(`builds/${file}`, demo), `${JSON.stringify(build, null, 1)}\n`);
}

write(
  'ks-12.json',
  '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1200',
  'Causeway patrol KS-12',
  'Made-up demo: Slipway Workshop, Kestrel Sound. Side-split colours. A few honest mistakes are left in for the checks to find.',
  ks12,
);
write(
  'ks-13.json',
  '0c6f0d5e-6a0e-4b7e-9d1c-5a1f5d0c1300',
  'Causeway patrol KS-13',
  'Made-up demo: the sister of KS-12 with all colours on both sides, and the mistakes put right.',
  ks13,
);
