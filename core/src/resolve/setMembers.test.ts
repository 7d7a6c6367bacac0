import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';
import { likeButOutside, ruleLike } from '../arrange/likeSet.ts';
import { changePlacement, removePlacements, setColour } from '../arrange/lamps.ts';
import {
  besideFactory,
  carriedBy,
  forUse,
  inColour,
  onSide,
  shining,
  shiningOpen,
  tiedTo,
} from '../arrange/lampSets.ts';
import { putSet } from '../design/controlEdits.ts';
import { fixedSet, ruledSet, type SetClause } from '../design/lampSets.ts';
import type { Build } from '../design/schema.ts';
import { readBuild } from '../rules/document.ts';
import { lookupOf } from './lookup.ts';
import { placeModules, type PlacedModule } from './place.ts';
import { chosenBy, membersOfSet } from './setMembers.ts';
import { ruleText, setText } from './setText.ts';

const keys = (build: Build, clauses: SetClause[]): string[] =>
  chosenBy(build, { clauses, pick: 'all' }).map((m) => `${m.placementId}/${m.moduleId}`);

/** Every module with its lamp, where it is with some parts open. */
function modulesOf(build: Build, open: string[] = []): (PlacedModule & { key: string; colours: string[] })[] {
  const lookup = lookupOf(build);
  return build.placements
    .filter((p) => p.status !== 'removed' && p.status !== 'planned')
    .flatMap((p) =>
      placeModules(lookup, p, new Set(open)).map((m, i) => ({
        ...m,
        key: `${p.id}/${p.modules[i]?.id}`,
        colours: (p.modules[i]?.colours ?? []).filter((c) => p.modules[i]?.disabled.includes(c) === false),
      })),
    );
}

const hatchOf = (build: Build): string =>
  lookupOf(build).vehicle.parts.find((p) => p.kind === 'hatch' || p.kind === 'tailgate' || p.kind === 'door')
    ?.stops[0].id ?? '';

describe.each(['ks-12', 'ks-13', 'shore-medic-7', 'incident-command'] as const)(
  'conditions on %s',
  (name) => {
    const build = demoBuild(name);
    const rear = hatchOf(build);
    test.each([
      [
        'colour',
        inColour('white', 'amber'),
        (m: (typeof all)[number]) => m.colours.some((c) => c === 'white' || c === 'amber'),
      ],
      ['to the left', shining('left'), (m: (typeof all)[number]) => m.frame.aim[1] > 0.7],
      ['on the right', onSide('right'), (m: (typeof all)[number]) => m.centre[1] < -0.15],
      ['in the middle', onSide('middle'), (m: (typeof all)[number]) => Math.abs(m.centre[1]) <= 0.15],
    ] as const)('%s', (_, clause, is) => {
      const expected = modulesOf(build)
        .filter(is)
        .map(({ key }) => key);
      expect(keys(build, [clause])).toEqual(expected);
      const others = modulesOf(build)
        .filter((m) => !is(m))
        .map(({ key }) => key);
      expect(keys(build, [{ ...clause, not: true }])).toEqual(others);
    });
    const all = modulesOf(build);
    test('to the rear with the hatch open is asked of the lamps where they then are', () => {
      const open = modulesOf(build, [rear])
        .filter((m) => m.frame.aim[0] < -0.7)
        .map(({ key }) => key);
      expect(keys(build, [shiningOpen('rear', [rear])])).toEqual(open);
      const either = all.filter((m, i) => m.frame.aim[0] < -0.7 || open.includes(all[i]?.key ?? ''));
      expect(keys(build, [shiningOpen('rear', [rear], true)])).toEqual(either.map(({ key }) => key));
    });
    test('a stop that the vehicle does not have never applies', () => {
      expect(keys(build, [shiningOpen('rear', ['no-such-part'])])).toEqual([]);
    });
    test('all conditions must apply', () => {
      const both = [forUse('warning'), shining('front')];
      const first = new Set(keys(build, [forUse('warning')]));
      expect(keys(build, both)).toEqual(keys(build, [shining('front')]).filter((key) => first.has(key)));
    });
  },
);

test('what a lamp is fitted for, what carries it, what it is tied into and what it is beside', () => {
  const lampsOf = [
    ['head', { zone: 'grille' }],
    ['tail', { zone: 'tie-tail-left', fixture: 'factory-tail' }],
    ['dome', { zone: 'dome', fixture: 'cabin-white-red' }],
  ] as const;
  const placed = lampsOf.reduce((b, [id, at]) => put(b, id, at), emptyBuild());
  const lamps = (clauses: SetClause[]) => [...new Set(keys(placed, clauses).map((key) => key.split('/')[0]))];
  expect(lamps([forUse('warning')])).toEqual(['head']);
  expect(lamps([forUse('factory')])).toEqual(['tail']);
  expect(lamps([forUse('light', 'warning')])).toEqual(['head', 'dome']);
  expect(lamps([tiedTo('tail')])).toEqual(['tail']);
  expect(lamps([tiedTo('head')])).toEqual([]);
  expect(lamps([besideFactory('tail')])).toEqual(['tail']);
  expect(lamps([carriedBy('hatch', false)])).toEqual([]);
  expect(lamps([{ about: 'zone', not: false, of: ['grille', 'gone'] }])).toEqual(['head']);
  expect(lamps([{ about: 'group', not: true, of: [null] }])).toEqual([]);
  const planned = changePlacement(placed, 'head', { status: 'planned' });
  expect(keys(planned, [forUse('warning')])).toEqual([]);
});

describe('a set by rule', () => {
  const rule = ruledSet('white', 'White', [forUse('warning'), inColour('white')]);
  const white = (build: Build, id: string): Build =>
    setColour(
      put(build, id, { zone: id, fixture: 'perimeter-head-3' }),
      [{ placementId: id, moduleId: 'm1' }],
      1,
      'white',
    );
  const build = putSet(white(emptyBuild(), 'grille'), rule);
  const members = (b: Build): string[] => {
    const [set] = b.controls.sets;
    return set === undefined ? [] : membersOfSet(b, set).map(({ placementId }) => placementId);
  };

  test('takes later lamps, and leaves those whose colours change', () => {
    expect(members(build)).toEqual(['grille']);
    const more = white(build, 'front-bumper');
    expect(members(more)).toEqual(['grille', 'front-bumper']);
    const red = setColour(more, [{ placementId: 'grille', moduleId: 'm1' }], 1, 'red');
    expect(members(red)).toEqual(['front-bumper']);
    expect(members(build)).toEqual(['grille']);
  });

  test('has exceptions by hand, which go with their lamps', () => {
    const more = put(white(build, 'front-bumper'), 'dome', { zone: 'dome', fixture: 'cabin-white-red' });
    const by = (id: string) => [{ placementId: id, moduleId: 'm1' }];
    const set = { ...rule, modules: by('dome'), without: by('grille') };
    const excepted = putSet(more, set);
    expect(members(excepted)).toEqual(['front-bumper', 'dome']);
    expect(setText(excepted, set)).toBe(
      'Warning lamps that can show white; 1 added by hand; 1 excluded by hand',
    );
    const gone = removePlacements(excepted, new Set(['grille', 'dome']));
    expect(gone.controls.sets[0]).toEqual(rule);
    expect(readBuild(gone)).toEqual(gone);
  });

  test('a file must name lamps that are there, and a pose', () => {
    const ghost = [{ placementId: 'ghost', moduleId: 'm1' }];
    expect(() => readBuild(putSet(build, { ...rule, without: ghost }))).toThrow(
      "controls.sets[0].without[0]: no module 'm1' of a lamp 'ghost'",
    );
    const posed = ruledSet('white', 'White', [{ ...shiningOpen('rear', []), not: true }]);
    expect(() => readBuild(putSet(build, posed))).toThrow(
      /controls.sets\[0\].rule.clauses\[0\]: names no pose/,
    );
  });
});

describe('a fixed list', () => {
  test('says which lamps like its own are outside', () => {
    const build = ['grille', 'front-bumper'].reduce((b, zone) => put(b, zone, { zone }), emptyBuild());
    const list = fixedSet('f', 'F', [{ placementId: 'grille', moduleId: 'm1' }]);
    expect(likeButOutside(build, list)).toEqual([{ placementId: 'front-bumper', moduleId: 'm1' }]);
    const white = setColour(build, [{ placementId: 'grille', moduleId: 'm1' }], 1, 'amber');
    expect(likeButOutside(white, list)).toEqual([]);
    expect(likeButOutside(build, ruledSet('r', 'R', []))).toEqual([]);
    expect(likeButOutside(build, fixedSet('e', 'E', []))).toEqual([]);
  });
  test.each(['ks-12', 'tunnel-pumper-3'] as const)(
    'what its lamps have in common takes all of them: %s',
    (name) => {
      const build = demoBuild(name);
      for (const group of build.timing.groups) {
        const mine = build.placements.flatMap((p) =>
          p.modules.filter((m) => m.groupId === group.id).map((m) => ({ placementId: p.id, moduleId: m.id })),
        );
        const rule = ruleLike(build, mine);
        if (rule === null) continue;
        const taken = new Set(chosenBy(build, rule).map((m) => `${m.placementId}/${m.moduleId}`));
        for (const m of mine) expect(taken).toContain(`${m.placementId}/${m.moduleId}`);
      }
    },
  );
});

test('a rule reads as a sentence', () => {
  const build = demoBuild('ks-12');
  const text = (clauses: SetClause[], pick: 'all' | 'inner' = 'all') => ruleText(build, { clauses, pick });
  expect(text([])).toBe('All lamps');
  expect(text([forUse('warning'), inColour('white')])).toBe('Warning lamps that can show white');
  expect(text([forUse('warning', 'light')])).toBe('Warning lamps and scene, work and cabin lights');
  expect(text([shining('front'), { ...onSide('left'), not: true }], 'inner')).toBe(
    'Lamps that shine to the front and are not on the left; of these the inner half of the highest',
  );
  expect(text([forUse('warning'), shiningOpen('rear', [hatchOf(build)], true)])).toMatch(
    /^Warning lamps that shine to the rear with everything closed or .+ open$/,
  );
  const group = build.timing.groups[0];
  expect(text([{ about: 'group', not: false, of: [group?.id ?? '', 'gone'] }])).toBe(
    `Lamps that are in sync group ${group?.name} or a deleted group`,
  );
});
