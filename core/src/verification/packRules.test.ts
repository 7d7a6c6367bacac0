import { describe, expect, test } from 'vitest';
import { forUse, onSide, shining, withRuledSet } from '../arrange/lampSets.ts';
import type { SetClause } from '../design/lampSets.ts';
import { fieldsOf } from '../coverage/lampFields.ts';
import { mostToward } from '../coverage/sectors.ts';
import { addFunction, withControls } from '../design/controlEdits.ts';
import { darkCue, groupTarget, lightCue, newFunction } from '../design/functions.ts';
import type { Condition } from '../design/condition.ts';
import type { RulePack } from '../design/rulePack.ts';
import type { Build } from '../design/schema.ts';
import { highestCd, type Drive } from '../resolve/channels.ts';
import { requirementKindOf } from '../rules/brief/requirements.ts';
import { checkBuild } from '../rules/check.ts';
import { BRIEF_PACK } from '../rules/heads.ts';
import { judgementsOf } from '../rules/elevations.ts';
import type { Verdict } from '../rules/judgement.ts';
import { conditionOf, kindOf, applicableRules, appliesToService } from '../rules/registry.ts';
import { Situation } from '../rules/situation.ts';
import { drivenIn } from '../state/driven.ts';
import { modeOf, stateWith } from '../state/state.ts';
import { vehicleOf } from '../vehicle/vehicle.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { stageId } from '../../test/reference/places.ts';
import { everyOutputState, type Picture } from '../../test/reference/everyPicture.ts';
import { allPoses } from '../../test/reference/poses.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { packRules, type RuleVerification } from './packRules.ts';
import { Poses } from './poses.ts';
import { verify } from './prove.ts';
import { VerificationSubject } from './subject.ts';

const car = demoBuild('ks-13');
const is = (input: string, ...values: string[]): Condition => ({ kind: 'is', input, values });

/** All that the rules of a build's packs say, whatever is known already. */
function proofs(build: Build): readonly RuleVerification[] {
  const run = packRules(new VerificationSubject(build), applicableRules(build), () => false);
  for (;;) {
    const step = run.next();
    if (step.done === true) return step.value;
  }
}

/** Every combination of open parts that a picture allows, and of what else moves each by itself. */
const allTogether = (build: Build, poses: Poses, { open }: Picture): readonly (readonly string[])[] => [
  ...allPoses(build, poses.stopsOf(open)),
  ...poses.posesWith(open, null, []),
];

/** What somebody says of all pictures: by what it is about, how near to rest; and the least room. */
interface Plain {
  readonly troubles: Map<string, number>;
  margin: number | null;
}

function note(plain: Plain, { depth }: Picture, judgements: readonly Verdict[]): void {
  for (const j of judgements) {
    if (j.margin !== null) plain.margin = Math.min(j.margin, plain.margin ?? Infinity);
    if (j.outcome !== 'holds')
      plain.troubles.set(j.about, Math.min(depth(), plain.troubles.get(j.about) ?? Infinity));
  }
}

/** The same, picture by picture and pose by pose, leaving nothing out. */
function plainly(build: Build): ReadonlyMap<string, Plain> {
  const subject = new VerificationSubject(build);
  const conditions: Condition[] = [];
  const asked = build.rulePacks.flatMap((pack) =>
    pack.rules
      .filter((rule) => kindOf(rule).inStates && appliesToService(rule, build))
      .map((rule) => {
        const when = conditionOf(build, pack, rule);
        return { pack, rule, at: when === null ? -1 : conditions.push(when) - 1 };
      }),
  );
  const { pictures, poses: ways } = everyOutputState(subject, conditions);
  const plain = new Map<string, Plain>();
  const stateIn = ({ on, ambient }: Picture, open: readonly string[]) => stateWith({ on, open, ambient });
  for (const { pack, rule, at } of asked) {
    const mine: Plain = { troubles: new Map(), margin: null };
    plain.set(`${pack.id}|${rule.id}`, mine);
    const kind = kindOf(rule);
    for (const picture of pictures) {
      const { ambient, mode, open, holds } = picture;
      if (!rule.stages.some((s) => s === mode) || !kind.ambients(rule).includes(ambient)) continue;
      if (at >= 0 && holds[at] !== true) continue;
      const poses =
        kind.sees === 'driven'
          ? [open]
          : kind.limits(rule, new Situation(build, stateWith({}), 0)).length > 0
            ? allTogether(build, ways, picture)
            : ways.posesWith(open, kind.poses(rule, vehicleOf(build.vehicle)), []);
      for (const pose of poses)
        note(
          mine,
          picture,
          judgementsOf(rule, new Situation(build, stateIn(picture, pose), pack.upperAboveM)),
        );
    }
  }
  for (const wish of build.brief.constraints) {
    const { check } = requirementKindOf(wish);
    if (!('inState' in check)) continue;
    const mine: Plain = { troubles: new Map(), margin: null };
    plain.set(`${BRIEF_PACK}|${wish.id}`, mine);
    for (const picture of pictures)
      for (const pose of allTogether(build, ways, picture))
        note(mine, picture, check.inState(new Situation(build, stateIn(picture, pose), 0), wish));
  }
  return plain;
}

describe('what is left out says nothing new', () => {
  test.each(['lift-bridge-crew', 'line-marking', 'coast-watch', 'ferry-slip'] as const)('%s', (name) => {
    const build = demoBuild(name);
    const plain = plainly(build);
    for (const { outcome, troubles } of proofs(build)) {
      const there = plain.get(`${outcome.packId}|${outcome.ruleId}`);
      const near = troubles.filter((t) => t.which === 'reached');
      expect(new Map(near.map((t) => [t.trouble.about, t.where.events.length])), outcome.ruleId).toEqual(
        there?.troubles,
      );
      if (there?.margin === null) expect(outcome.margin).toBeNull();
      else expect(outcome.margin, outcome.ruleId).toBeCloseTo(there?.margin ?? NaN, 9);
    }
  });
});

test('several functions that take light one by one: the shortest way to the limit, and the worst there is', () => {
  // Each of two conditions takes one side's lamps ahead; one is enough to break the floor, both are worse.
  const [left, right] = (['left', 'right'] as const).map((side) => [
    forUse('warning', 'factory'),
    shining('front'),
    onSide(side),
  ]);
  const cutBy = (build: Build, id: string, these: SetClause[] | undefined, when: Condition): Build => {
    const { build: withSet } = withRuledSet(build, id, id, these ?? []);
    return addFunction(
      withSet,
      newFunction(id, id, 'cut', { way: 'while', condition: when, afterMs: 0, staysMs: 0 }, [
        darkCue({ kind: 'set', setId: id }),
      ]),
      0,
    );
  };
  const floor = (minCdsPerMin: number): RulePack =>
    packOf({
      kind: 'power-floor',
      ...common,
      faces: ['front'],
      level: 'any',
      ambient: 'day',
      minCdsPerMin,
      poses: ['shut'],
    });
  const programme = cutBy(
    cutBy(car, 'cut-left', left, is('fog', 'on')),
    'cut-right',
    right,
    is('generator', 'on'),
  );
  const alone = checkBuild({ ...programme, rulePacks: [floor(1)] }).outcomes.find((o) => o.packId === 'test');
  // A hair below what the stage shows by itself, so that one cut is too much.
  const build: Build = {
    ...programme,
    brief: { ...programme.brief, constraints: [] },
    rulePacks: [floor(((alone?.margin ?? NaN) + 1) * 0.999)],
  };
  const proof = verify(build);
  const found = proof.findings.filter((f) => f.packId === 'test');
  expect(found.map((f) => f.id)).toEqual(['test|r|reached|front', 'test|r|worst|front']);
  const [near, worst] = found;
  expect(near?.evidence.steps).toHaveLength(3);
  expect(worst?.evidence.steps.length).toBeGreaterThanOrEqual(4);
  expect(worst?.figure?.value ?? NaN).toBeLessThan(near?.figure?.value ?? NaN);
  const plain = plainly(build).get('test|r');
  expect(near?.evidence.steps).toHaveLength(plain?.troubles.get('front') ?? NaN);
  expect(proof.outcomes.find((o) => o.packId === 'test')?.margin).toBeCloseTo(plain?.margin ?? NaN, 9);
});

describe('what only several functions together bring about is found', () => {
  const cut = newFunction(
    'calm-front',
    'Calm front',
    'cut',
    { way: 'while', condition: is('gear', 'park'), afterMs: 0, staysMs: 0 },
    car.timing.groups.map((g) => darkCue(groupTarget(g.id))),
  );
  const floor = packOf({
    kind: 'power-floor',
    ...common,
    stages: [2],
    faces: ['front'],
    level: 'any',
    ambient: 'day',
    minCdsPerMin: 1000,
    poses: ['shut'],
  });
  const cutIn = { ...addFunction(car, cut, 0), rulePacks: [floor] };
  const told = (build: Build) =>
    verify(build)
      .findings.filter((f) => f.packId === 'test')
      .map((f) => f.sentence);

  test('a cut that takes the front in park breaks a floor that each function by itself keeps', () => {
    expect(checkBuild(cutIn).findings.filter((f) => f.packId === 'test')).toEqual([]);
    expect(told(cutIn)).toEqual([
      expect.stringMatching(
        /^Optical power to the front: 0 cd·s\/min at 315° \(minimum 1,000 cd·s\/min\)\. Gap: 315°–45°\./,
      ),
    ]);
    expect(told({ ...car, rulePacks: [floor] })).toEqual([]);
  });

  test('with the shortest way there', () => {
    const [found] = verify(cutIn).findings.filter((f) => f.packId === 'test');
    expect(found?.evidence.steps.map((s) => (s.kind === 'event' ? s.event : s))).toEqual([
      { kind: 'arrives', input: 'ignition', value: 'on' },
      { kind: 'arrives', input: 'slide', value: '2' },
    ]);
  });

  test('a rule that asks for a condition speaks only where it holds', () => {
    const only = (when: Condition) => ({
      ...cutIn,
      rulePacks: [{ ...floor, rules: floor.rules.map((rule) => ({ ...rule, when })) }],
    });
    expect(told(only(is('gear', 'drive')))).toEqual([]);
    expect(told(only(is('gear', 'park')))).toHaveLength(1);
    expect(checkBuild(only(is('gear', 'park'))).outcomes.some((o) => o.packId === 'test')).toBe(false);
    const never = verify(only({ kind: 'on', functionId: 'nothing' })).outcomes;
    expect(never.find((o) => o.packId === 'test')?.verdict).toBe('silent');
  });

  test('a cut that says no warning is on is not asked for light', () => {
    const dark = { ...addFunction(car, { ...cut, mode: 0 }, 0), rulePacks: [floor] };
    expect(modeOf(dark, ['stage-2', 'calm-front'])).toBe(0);
    expect(told(dark)).toEqual([]);
  });

  test('a pack of another jurisdiction is silent; one that holds in some speaks only there where the controls ask', () => {
    const region = newFunction(
      'there',
      'Over there',
      'cut',
      { way: 'while', condition: is('region', 'B'), afterMs: 0, staysMs: 0 },
      car.timing.groups.map((g) => darkCue(groupTarget(g.id))),
    );
    const at = (jurisdictions: string[]): Build => ({
      ...addFunction(
        { ...withControls(car, {}), brief: { ...car.brief, jurisdictions: ['A', 'B'] } },
        region,
        0,
      ),
      rulePacks: [{ ...floor, jurisdictions }],
    });
    expect(told(at(['C']))).toEqual([]);
    expect(checkBuild(at(['C'])).outcomes.find((o) => o.packId === 'test')?.verdict).toBe('silent');
    expect(told(at(['A']))).toEqual([]);
    expect(told(at(['B']))).toHaveLength(1);
    expect(told(at([]))).toHaveLength(1);
  });

  test('light that two functions make together is summed', () => {
    const lamp = car.timing.groups[0]?.id ?? '';
    const more = newFunction(
      'more',
      'More',
      'warning',
      { way: 'while', condition: is('gear', 'park'), afterMs: 0, staysMs: 0 },
      [lightCue(groupTarget(lamp), 1, 'steady', { adds: true })],
    );
    const ceiling = (maxCdsPerMin: number): Build => ({
      ...addFunction(car, more, 0),
      rulePacks: [
        packOf({
          kind: 'power-ceiling',
          ...common,
          faces: ['front'],
          ambient: 'day',
          maxCdsPerMin,
          stages: [2],
        }),
      ],
    });
    const marginOf = (build: Build): number =>
      verify(build).outcomes.find((o) => o.packId === 'test')?.margin ?? NaN;
    const alone = checkBuild(ceiling(1e6)).outcomes.find((o) => o.packId === 'test')?.margin ?? NaN;
    expect(marginOf(ceiling(1e6))).toBeLessThan(alone);
  });
});

test('seen from a range of elevations, a rule is told of each thing once, from where it is worst', () => {
  const at = (elevationsDeg: number[]): Build => ({
    ...car,
    rulePacks: [
      packOf({
        kind: 'power-floor',
        ...common,
        elevationsDeg,
        faces: ['front'],
        level: 'any',
        ambient: 'day',
        minCdsPerMin: 40_000,
        poses: ['shut'],
      }),
    ],
  });
  const found = (build: Build) => checkBuild(build).findings.filter((f) => f.packId === 'test');
  expect(found(at([0]))).toEqual([]);
  const high = found(at([0, 25]));
  expect(high.map((f) => f.id)).toEqual([expect.stringMatching(/\|front$/)]);
  expect(high[0]?.sentence).toContain('Elevation: 25°');
  // Farther up there is less light still.
  const range = found(at([0, 20, 25, 30, 28]));
  expect(range).toHaveLength(1);
  expect(range[0]?.sentence).toContain('Elevation: 30°');
  expect(range[0]?.figure?.value ?? Infinity).toBeLessThan(high[0]?.figure?.value ?? 0);
});

test('of a build in which nothing lights yet nothing is judged', () => {
  const floor = packOf({
    kind: 'power-floor',
    ...common,
    faces: ['front'],
    level: 'any',
    ambient: 'day',
    minCdsPerMin: 1,
    poses: ['shut'],
  });
  const counts = (build: Build) =>
    proofs({ ...build, rulePacks: [floor] }).map(({ outcome }) => [outcome.verdict, outcome.statesChecked]);
  const empty = { ...car, placements: [], controls: { ...car.controls, sets: [] }, scene: [] };
  expect(counts(empty)[0]).toEqual(['silent', 0]);
  const [verdict, states] = counts(car)[0] ?? [];
  expect(verdict).toBe('holds');
  expect(states).toBeGreaterThan(40);
});

test('a limit that only several parts open together pass, in light that only several functions make', () => {
  const pumper = demoBuild('tunnel-pumper-3');
  const at = (aboveCd: number) => {
    const build: Build = {
      ...pumper,
      rulePacks: [packOf({ kind: 'white-rear', ...common, lamps: 'all', of: 'sum', aboveCd })],
    };
    const checked = checkBuild(build);
    expect(checked.findings.filter((f) => f.packId === 'test')).toEqual([]);
    return verify(build, checked).findings.filter((f) => f.packId === 'test');
  };
  const [found, ...more] = at(13_350);
  expect(more).toEqual([]);
  expect(found?.evidence.state?.open).toHaveLength(2);
  expect(found?.figure?.value).toBeGreaterThan(13_350);
  // The way there switches the functions on, and opens both.
  const steps = found?.evidence.steps ?? [];
  const opens = steps.filter(
    (s) => s.kind === 'event' && s.event.kind === 'arrives' && s.event.input.startsWith('part.'),
  );
  expect(opens).toHaveLength(2);
  expect(found?.evidence.state?.on.length).toBeGreaterThan(1);
  expect(at(13_450)).toEqual([]);
});

test('a lamp that can be raised is looked at raised, too', () => {
  const [first] = car.placements;
  const raised = {
    ...car,
    placements: car.placements.map((p) =>
      p.id === first?.id ? { ...p, heights: [{ id: 'up', name: 'raised', poleM: 0.5 }] } : p,
    ),
  };
  const poses = (build: Build): string[] => new Poses(build, []).posesWith([], null, []).flat();
  expect(poses(raised)).toContain(`height.${first?.id ?? ''}=up`);
  expect(poses(car)).not.toContain(`height.${first?.id ?? ''}=up`);
});

test('a side that no door darkens, and two together do', () => {
  const pumper = demoBuild('tunnel-pumper-3');
  const doors = ['door-front-left', 'door-front-right'];
  const toRear = (drive: Drive, open: readonly string[]): number =>
    pumper.placements
      .filter(({ id }) => id === drive.placementId)
      .flatMap((p) => fieldsOf(pumper).of(p, open, 0))
      .filter(({ moduleId }) => moduleId === drive.moduleId)
      .reduce((most, { share }) => Math.max(most, highestCd(drive) * mostToward(share, 'rear')), 0);
  // Left are the lamps that light the rear and do not with both front doors open.
  const hidden = drivenIn(pumper, { on: [stageId(2)], ambient: 'day' }).filter(
    (drive) => drive.warns && toRear(drive, []) > 10 && toRear(drive, doors) <= 10,
  );
  const kept = pumper.placements.filter(({ id }) => hidden.some(({ placementId }) => placementId === id));
  expect(kept.length).toBeGreaterThan(1);
  const build: Build = {
    ...withControls(pumper, {
      functions: pumper.controls.functions.filter(({ kind }) => kind === 'stage'),
      sets: [],
      trials: [],
    }),
    placements: pumper.placements.map((p) => (kept.includes(p) ? p : { ...p, status: 'planned' as const })),
    rulePacks: [packOf({ kind: 'stays-lit', ...common, aboveCd: 10 })],
  };
  const dark = proofs(build).flatMap(({ troubles }) =>
    troubles.filter(({ trouble }) => trouble.about === 'rear').map(({ state }) => state.open),
  );
  expect(dark.map((open) => [...open].sort())).toEqual([doors]);
});
