import { BODY_TYPES } from '../vehicle/bodies/bodyTypes.ts';
import { rankFunction, removeSet, setCue } from '../design/controlEdits.ts';
import { CONTROL_TEMPLATES, templateMisfit } from './controlTemplates.ts';
import { FUNCTION_TEMPLATES } from './templates/functionTemplates.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { changeStage, stageId } from '../../test/reference/places.ts';
import { addGroup, changeGroup, removeGroup } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { readBuild } from '../rules/document.ts';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { newBuild } from '../design/create.ts';
import {
  addPartner,
  addPlacement,
  changePlacement,
  mirrorBuild,
  removePlacements,
  setColour,
} from './lamps.ts';
import { changeBodyType, changeDimensions, toggleOption } from './vehicleEdits.ts';
import { misfit } from '../resolve/place.ts';
import type { Build } from '../design/schema.ts';
import { channelIdOf } from '../resolve/channels.ts';
import { CATALOGUE } from '../fixture/catalogue/catalogue.ts';
import { COLOURS } from '../words/colour.ts';
import { checkBuild } from '../rules/check.ts';
import { PATTERNS } from '../timing/library.ts';
import { MID_SUV } from '../vehicle/bodies/cars.ts';
import { VehicleSpec } from '../vehicle/spec.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { DEMO_BUILDS, demoBuild, demoPack } from '../../test/reference/demo.ts';

const empty = newBuild('55555555-5555-4555-8555-555555555555', 'Test', 'police', [demoPack()]);
const fits = CATALOGUE.flatMap((f) =>
  vehicleOf(empty.vehicle)
    .zones.filter((z) => misfit(f, z) === null)
    .map((z) => ({ fixtureId: f.id, zoneId: z.id })),
);

type Edit = (build: Build, serial: number) => Build;
/** A template may have taken a stage away. */
const hasStage = (build: Build, stage: number): boolean =>
  build.controls.functions.some(({ id }) => id === stageId(stage));

/** A change of dimensions that do not go together is refused, as the vehicle panel does. */
const ifReadable = (before: Build, after: Build): Build =>
  VehicleSpec.safeParse(after.vehicle).success ? after : before;

const nth = <T>(items: readonly T[], n: number): T | undefined => items[n % Math.max(1, items.length)];
const number = (min: number, max: number) => fc.double({ min, max, noNaN: true });
const which = fc.nat(40);
const slot = fc.constantFrom(1 as const, 2 as const, 3 as const);

/** Every edit a designer can make, on whatever stands there when it is made. */
const anyEdit: fc.Arbitrary<Edit> = fc.oneof(
  fc.tuple(fc.constantFrom(...fits), number(-2, 2), number(-1, 1)).map(
    ([at, uM, vM]): Edit =>
      (b, serial) =>
        vehicleOf(b.vehicle).zones.some((z) => z.id === at.zoneId)
          ? addPlacement(b, { id: `p${serial}`, ...at, uM, vM })
          : b,
  ),
  which.map(
    (n): Edit =>
      (b, serial) =>
        addPartner(b, nth(b.placements, n)?.id ?? '', `x${serial}`),
  ),
  fc.tuple(which, number(-2, 2), number(-180, 180), number(-90, 90)).map(
    ([n, uM, panDeg, tiltDeg]): Edit =>
      (b) =>
        changePlacement(b, nth(b.placements, n)?.id ?? '', { uM, panDeg, tiltDeg }),
  ),
  which.map(
    (n): Edit =>
      (b) =>
        removePlacements(b, new Set([nth(b.placements, n)?.id ?? ''])),
  ),
  fc.constant<Edit>((b, serial) => addGroup(b, { id: `g${serial}`, name: `Group ${serial}` })),
  which.map(
    (n): Edit =>
      (b) =>
        changeGroup(b, nth(b.timing.groups, n)?.id ?? '', { name: 'Renamed' }),
  ),
  which.map(
    (n): Edit =>
      (b) =>
        removeGroup(b, nth(b.timing.groups, n)?.id ?? ''),
  ),
  fc.tuple(which, which).map(([n, g]): Edit => (b) => {
    const p = nth(b.placements, n);
    const refs = p?.modules.map((m) => ({ placementId: p.id, moduleId: m.id })) ?? [];
    return changeModules(b, refs, { groupId: nth(b.timing.groups, g)?.id ?? null, phase: 'B' });
  }),
  fc
    .tuple(which, fc.integer({ min: 1, max: 4 }), fc.option(fc.constantFrom(...COLOURS)))
    .map(([n, slotNumber, colour]): Edit => (b) => {
      const p = nth(b.placements, n);
      const refs = p?.modules.map((m) => ({ placementId: p.id, moduleId: m.id })) ?? [];
      return setColour(b, refs, slotNumber, colour);
    }),
  fc
    .tuple(fc.constantFrom(0, 1, 2, 3), which, slot, slot, fc.option(fc.constantFrom(...PATTERNS)))
    .map(([stage, g, from, to, pattern]): Edit => (b) => {
      const groupId = nth([null, ...b.timing.groups.map((group) => group.id)], g) ?? null;
      const cue = pattern === null ? null : lightCue(groupTarget(groupId), to, pattern.id);
      return hasStage(b, stage) ? setCue(b, stageId(stage), groupTarget(groupId), from, cue) : b;
    }),
  fc.tuple(fc.constantFrom(0, 1, 2, 3), number(0.05, 1)).map(
    ([stage, nightLevel]): Edit =>
      (b) =>
        hasStage(b, stage) ? changeStage(b, stage, { nightLevel }) : b,
  ),
  fc.tuple(fc.constantFrom(...Object.entries(MID_SUV.ranges)), number(0, 1)).map(
    ([[key, [min, max]], part]): Edit =>
      (b) =>
        b.vehicle.bodyType === MID_SUV.id
          ? ifReadable(b, changeDimensions(b, { [key]: min + part * (max - min) }))
          : b,
  ),
  fc.constantFrom(...MID_SUV.options).map(
    (option): Edit =>
      (b) =>
        b.vehicle.bodyType === MID_SUV.id ? toggleOption(b, option) : b,
  ),
  fc.constantFrom('large-suv', 'sedan', 'mid-suv').map(
    (body): Edit =>
      (b) =>
        changeBodyType(b, body),
  ),
  fc.constant<Edit>(mirrorBuild),
  which.map((n): Edit => (b) => {
    const ready = nth(FUNCTION_TEMPLATES, n);
    return ready?.misfit(b) === null ? ready.applyTemplate(b) : b;
  }),
  which.map((n): Edit => (b) => {
    const template = nth(CONTROL_TEMPLATES, n);
    return template !== undefined && templateMisfit(template, b) === null ? template.applyTemplate(b) : b;
  }),
  fc.tuple(which, which).map(
    ([n, rank]): Edit =>
      (b) =>
        rankFunction(b, nth(b.controls.functions, n)?.id ?? '', rank),
  ),
  which.map(
    (n): Edit =>
      (b) =>
        removeSet(b, nth(b.controls.sets, n)?.id ?? ''),
  ),
);

describe('whatever is edited, in whatever order', () => {
  test('the build stays one that reads back equal, and no edit touches the build before it', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 1, maxLength: 25 }), (edits) => {
        let build = empty;
        for (const [serial, edit] of edits.entries()) {
          const before = JSON.stringify(build);
          const after = edit(build, serial);
          expect(JSON.stringify(build)).toBe(before);
          expect(readBuild(JSON.parse(JSON.stringify(after)))).toEqual(after);
          build = after;
        }
      }),
      { numRuns: 150, seed: 31 },
    );
  });

  test('it can be checked, and every finding names channels that exist', () => {
    fc.assert(
      fc.property(fc.array(anyEdit, { minLength: 5, maxLength: 25 }), (edits) => {
        const build = edits.reduce((b, edit, serial) => edit(b, serial), empty);
        const channels = new Set(
          build.placements.flatMap((p) =>
            p.modules.flatMap((m) => m.colours.map((_, i) => `${p.id}/${m.id}/${i + 1}`)),
          ),
        );
        const { findings } = checkBuild(build);
        expect(new Set(findings.map((f) => f.id)).size).toBe(findings.length);
        for (const f of findings) {
          for (const c of f.evidence.channels)
            expect(channels.has(channelIdOf(c)), `${f.sentence} ${channelIdOf(c)}`).toBe(true);
          expect(f.sentence).not.toMatch(/undefined|NaN|\[object/);
        }
      }),
      { numRuns: 12, seed: 37 },
    );
  });
});

test('a mirrored car breaks the same rules in the same stages, as often', () => {
  const sums = (build: Build): string[] =>
    checkBuild(build)
      // A sweep to the right runs to the left in a mirror.
      .findings.filter((f) => f.kind !== 'direction')
      .map((f) => `${f.ruleId} ${f.evidence.state?.on.join() ?? ''} ${f.severity}`)
      .toSorted();
  expect(sums(mirrorBuild(demoBuild('ks-12')))).toEqual(sums(demoBuild('ks-12')));
});

test('any other body under a build with a programme leaves one that reads back', () => {
  for (const name of DEMO_BUILDS)
    for (const { id } of BODY_TYPES) {
      const changed = changeBodyType(demoBuild(name), id);
      expect(readBuild(JSON.parse(JSON.stringify(changed))), `${name} on ${id}`).toEqual(changed);
    }
});
