import { describe, expect, test } from 'vitest';
import type { Build } from '../design/schema.ts';
import { MOST_GROUPS } from '../design/timing.ts';
import { addGroup } from '../design/timingEdits.ts';
import { drivenIn } from '../state/driven.ts';
import { stateWith } from '../state/state.ts';
import { CATALOGUE } from '../fixture/catalogue/catalogue.ts';
import { checkBuild } from '../rules/check.ts';
import { readBuild } from '../rules/document.ts';
import { permittedColours } from '../rules/permittedColours.ts';
import type { Service } from '../words/service.ts';
import { emptyBuild, put, type At, stageId } from '../../test/reference/places.ts';
import { demoPack } from '../../test/reference/demo.ts';
import { assignDefaults, PLACES } from './assignDefaults.ts';
import { addPartner, setColour } from './lamps.ts';
import { STAGE_PRESETS, withStartingStages } from './startingStages.ts';

const place = (build: Build, id: string, at: At, stage = 2): Build =>
  assignDefaults(put(build, id, at), [id], [stageId(stage)]);
const lamp = (build: Build, id: string) => {
  const found = build.placements.find((p) => p.id === id);
  if (found === undefined) throw new Error(`there is no lamp ${id}`);
  return found;
};
const groupOf = (build: Build, id: string): (string | null)[] => [
  ...new Set(lamp(build, id).modules.map((m) => m.groupId)),
];
const litIds = (build: Build, stage: number): string[] => [
  ...new Set(drivenIn(build, stateWith({ on: [stageId(stage)] })).map((d) => d.placementId)),
];

describe('a lamp just placed', () => {
  test.each([
    ['grille', 'front'],
    ['rear-bumper', 'rear'],
    ['wing-left', 'sides'],
  ])('on %s joins %s, made where there is none, and lights in the stage looked at', (zone, group) => {
    const build = place(emptyBuild(), 'a', { zone });
    expect(groupOf(build, 'a')).toEqual([group]);
    expect(build.timing.groups.map((g) => g.id)).toEqual([group]);
    expect(litIds(build, 2)).toEqual(['a']);
    expect(litIds(build, 1)).toEqual([]);
  });

  test('on the roof, a bar joins the upper lamps: its left answers its right, and it is not dark', () => {
    const build = place(emptyBuild(), 'bar', { zone: 'roof', fixture: 'roof-bar-1200' });
    expect(groupOf(build, 'bar')).toEqual(['upper']);
    const phases = lamp(build, 'bar').modules.map((m) => m.phase);
    expect(phases.filter((p) => p === 'A')).toHaveLength(phases.filter((p) => p === 'B').length);
    expect(litIds(build, 2)).toEqual(['bar']);
    expect(checkBuild(build).findings.filter((f) => f.severity === 'blocks')).toEqual([]);
  });

  test('joins the group its neighbours are in, whatever that is called', () => {
    const named = addGroup(emptyBuild(), { id: 'mine', name: 'Fangs' });
    const first = place(named, 'a', { zone: 'grille', uM: -0.2 });
    const moved: Build = {
      ...first,
      placements: first.placements.map((p) => ({
        ...p,
        modules: p.modules.map((m) => ({ ...m, groupId: 'mine' })),
      })),
    };
    expect(groupOf(place(moved, 'b', { zone: 'grille', uM: 0.2 }), 'b')).toEqual(['mine']);
    // Another zone of the front: the group by its place's name goes before the neighbours of the place.
    expect(groupOf(place(moved, 'c', { zone: 'front-bumper', uM: 0.2 }), 'c')).toEqual(['front']);
  });

  test('takes the colours of its side, as far as it has them', () => {
    const coloured = (colour: 'blue' | 'green', side: number): Build => {
      const first = place(emptyBuild(), 'a', { zone: 'grille', uM: 0.2 * side });
      const one = [{ placementId: 'a', moduleId: 'm1' }];
      return setColour(setColour(first, one, 2, null), one, 1, colour);
    };
    const left = (b: Build, id: string) => lamp(b, id).modules[0]?.colours;
    const own = left(place(emptyBuild(), 'b', { zone: 'front-bumper', uM: 0.3 }), 'b');
    for (const side of [1, -1]) {
      const blue = coloured('blue', side);
      expect(left(place(blue, 'b', { zone: 'front-bumper', uM: 0.3 * side }), 'b')).toEqual(['blue']);
      expect(left(place(blue, 'b', { zone: 'front-bumper', uM: -0.3 * side }), 'b')).toEqual(own);
      // Green says who commands, and is no colour of a side.
      expect(
        left(place(coloured('green', side), 'b', { zone: 'front-bumper', uM: 0.3 * side }), 'b'),
      ).toEqual(own);
    }
  });

  test.each<[Service, At, readonly string[]]>([
    ['police', { zone: 'grille' }, ['red', 'blue']],
    ['fire', { zone: 'grille', fixture: 'perimeter-head-3' }, ['red', 'white', 'amber']],
    ['road-work', { zone: 'grille' }, ['amber', 'white']],
    ['road-work', { zone: 'rear-bumper', fixture: 'perimeter-head-1' }, ['amber']],
  ])('%s, first of all lamps: in the colours of its service', (service, at, colours) => {
    const build = place({ ...emptyBuild(), service }, 'a', at);
    expect(lamp(build, 'a').modules.map((m) => m.colours)).toEqual([colours]);
    expect(() => readBuild({ ...build })).not.toThrow();
  });

  test('no colour that a pack forbids to where it looks, whatever the service', () => {
    const fire: Build = { ...emptyBuild(), service: 'fire', rulePacks: [demoPack()] };
    const mayShow = permittedColours(fire);
    const coloursAt = (zone: string): readonly string[] => {
      const build = assignDefaults(put(fire, 'a', { zone, fixture: 'perimeter-head-3' }), ['a'], [], mayShow);
      return lamp(build, 'a').modules[0]?.colours ?? [];
    };
    expect(mayShow('rear', 'white')).toBe(false);
    expect(mayShow('front', 'white')).toBe(true);
    expect(coloursAt('grille')).toContain('white');
    expect(coloursAt('rear-bumper')).not.toContain('white');
    expect(coloursAt('rear-bumper').length).toBeGreaterThan(0);
  });

  test('whatever is placed beside whatever, the build can be stored', () => {
    // A neighbour of three colours on each side, and every fixture of the catalogue beside it.
    const two = (['a', 'b'] as const).reduce(
      (b, id, i) =>
        (['blue', 'white', 'amber'] as const).reduce(
          (c, colour, slot) =>
            setColour(c, [{ placementId: id, moduleId: 'm1' }], (slot + 1) as 1 | 2 | 3, colour),
          place(b, id, { zone: 'front-bumper', fixture: 'perimeter-head-3', uM: i === 0 ? 0.4 : -0.4 }),
        ),
      emptyBuild(),
    );
    expect(lamp(two, 'a').modules[0]?.colours).toEqual(['blue', 'white', 'amber']);
    for (const fixture of CATALOGUE)
      for (const uM of [0.2, -0.2, 0]) {
        const put_ = place(two, 'x', { zone: 'grille', fixture: fixture.id, uM });
        expect(() => readBuild(put_), fixture.id).not.toThrow();
      }
  });

  test('where no more groups can be made it stays by itself', () => {
    const full = Array.from({ length: MOST_GROUPS }, (_, i) => i).reduce(
      (b, i) => addGroup(b, { id: `g${i}`, name: `Group ${i}` }),
      emptyBuild(),
    );
    const alone = put(full, 'a', { zone: 'grille' });
    expect(assignDefaults(alone, ['a'], ['stage-2'])).toBe(alone);
    expect(() => readBuild(alone)).not.toThrow();
  });

  test('answers its mirror image, whichever phase that has', () => {
    const first = place(emptyBuild(), 'a', { zone: 'grille', uM: 0.2 });
    const other: Build = {
      ...first,
      placements: first.placements.map((p) => ({
        ...p,
        modules: p.modules.map((m) => ({ ...m, phase: m.phase === 'A' ? ('B' as const) : ('A' as const) })),
      })),
    };
    for (const build of [first, other]) {
      const both = place(build, 'b', { zone: 'grille', uM: -0.2 });
      expect(lamp(both, 'b').modules[0]?.phase).not.toBe(lamp(both, 'a').modules[0]?.phase);
    }
  });

  test('a pair goes in together, one phase each', () => {
    const pair = addPartner(put(emptyBuild(), 'a', { zone: 'corner-rear-left' }), 'a', 'b');
    const joined = assignDefaults(pair, ['a', 'b'], ['stage-3']);
    expect([groupOf(joined, 'a'), groupOf(joined, 'b')]).toEqual([['rear'], ['rear']]);
    expect(new Set(joined.placements.map((p) => p.modules[0]?.phase)).size).toBe(2);
    expect(litIds(joined, 3).toSorted()).toEqual(['a', 'b']);
  });

  test('looked at in Off it stays dark; a scene light and a factory lamp stay by themselves', () => {
    expect(litIds(place(emptyBuild(), 'a', { zone: 'grille' }, 0), 0)).toEqual([]);
    for (const at of [
      { zone: 'tie-head-left', fixture: 'factory-head' },
      { zone: 'dome', fixture: 'cabin-white-red' },
      { zone: 'roof-side-left', fixture: 'scene-flood' },
    ]) {
      const alone = put(emptyBuild(), 'a', at);
      expect(assignDefaults(alone, ['a'], ['stage-2'])).toBe(alone);
    }
  });
});

describe('starting stages', () => {
  test.each(STAGE_PRESETS.filter((s) => s !== 'none' && s !== 'one-key'))(
    '%s: four groups, and lamps placed light as it says',
    (start) => {
      const begun = withStartingStages({ ...emptyBuild(), rulePacks: [demoPack()] }, start);
      expect(begun.timing.groups.map((g) => g.id)).toEqual([...PLACES]);
      const front = place(begun, 'f', { zone: 'grille' });
      const both = place(front, 'r', { zone: 'rear-bumper' });
      const two = setColour(both, [{ placementId: 'f', moduleId: 'm1' }], 2, 'white');
      const lit = [1, 2, 3].map((stage) =>
        drivenIn(two, stateWith({ on: [stageId(stage)] }))
          .map((d) => `${d.placementId}${d.slot}`)
          .toSorted(),
      );
      expect(lit).toEqual(
        start === 'by-colour'
          ? [
              ['f2', 'r2'],
              ['f1', 'r1'],
              ['f1', 'f2', 'r1', 'r2'],
            ]
          : [['r1'], ['f1', 'r1'], ['f1', 'f2', 'r1', 'r2']],
      );
      // All keep one step.
      expect(new Set(drivenIn(two, stateWith({ on: [stageId(3)] })).map((d) => d.clockId)).size).toBe(1);
      // The groups are used as they are: no other is made, and no cue is added.
      expect(both.timing).toEqual(begun.timing);
    },
  );
  test('none leaves all as it was, but for the key that everything asks for', () => {
    const build = emptyBuild();
    const enabledBy = { kind: 'is' as const, input: 'ignition', values: ['on'] };
    expect(withStartingStages(build, 'none')).toEqual({
      ...build,
      controls: { ...build.controls, enabledBy },
    });
  });
});
