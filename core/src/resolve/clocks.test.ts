import { addGroup, changeGroup, groupFailure, removeGroup, setCue } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { readBuild } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { addPattern, emptyPattern } from '../design/patternEdits.ts';
import { addToScene, changeInScene, takeFromScene } from '../design/sceneEdits.ts';
import type { Build } from '../design/schema.ts';
import type { State } from '../state/state.ts';
import { channelsNear, illuminanceLx } from '../coverage/near.ts';
import { litChannels } from '../coverage/ring.ts';
import { inVehicle, sceneSeen } from '../coverage/scene.ts';
import { allTogether, lightSeen, piecesBetween, seenFrom } from '../coverage/seen.ts';
import { scale } from '../geometry/vec.ts';
import { directionOf } from '../geometry/direction.ts';
import { mayFollow, timeOf } from '../timing/clock.ts';
import { currentOf, currentOverTime } from './current.ts';
import type { Drive } from './channels.ts';
import { drivenIn } from '../state/driven.ts';
import { commonCycleMs, levelAt } from '../timing/timeline.ts';
import { driftOf, whyFree } from '../timing/step.ts';
import { meanOf } from '../timing/signal.ts';
import { DEMO_BUILDS, demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild, put } from '../../test/reference/places.ts';

const day = (stage: State['stage']): State => ({ stage, open: [], ambient: 'day' });
const cue = (groupId: string, patternId: string) => ({
  groupId,
  patternId,
  nightPatternId: null,
  slot: 1 as const,
  level: 1,
});

/** A head at the grille in a front group, one at the rear in a rear group, both showing a single flash. */
function frontAndRear(): Build {
  const placed = put(put(emptyBuild(), 'f', { zone: 'grille' }), 'r', { zone: 'rear-bumper' });
  const grouped = (['f', 'r'] as const).reduce(
    (b, id) =>
      changeModules(addGroup(b, { id: `g${id}`, name: id }), [{ placementId: id, moduleId: 'm1' }], {
        groupId: `g${id}`,
      }),
    placed,
  );
  return setCue(setCue(grouped, 2, 'gf', 1, cue('gf', 'single')), 2, 'gr', 1, cue('gr', 'single'));
}

describe('clocks of sync groups', () => {
  const both = frontAndRear();
  const spans = (b: Build, id: string) =>
    drivenIn(b, { stage: 2, ambient: 'day' })
      .filter((d) => d.placementId === id)
      .map((d) => [d.cycleMs, d.spans[0]?.fromMs, d.spans[0]?.toMs, d.clockId]);

  test('by themselves they drift; the rear at half the front’s speed, 200 ms later, keeps step', () => {
    expect(new Set(drivenIn(both, { stage: 2, ambient: 'day' }).map((d) => d.clockId)).size).toBe(2);
    const nested = changeGroup(both, 'gr', { followsId: 'gf', speedPercent: 50, offsetMs: 200 });
    expect(spans(nested, 'f')).toEqual([[800, 0, 220, 'gf']]);
    expect(spans(nested, 'r')).toEqual([[1600, 200, 640, 'gf']]);
    expect(readBuild(JSON.parse(JSON.stringify(nested)))).toEqual(nested);
  });

  test('speeds multiply and offsets add along a chain; what is left behind runs by itself', () => {
    const third = addGroup(both, { id: 'third', name: 'Third' });
    const chain = changeGroup(
      changeGroup(third, 'gr', { followsId: 'gf', speedPercent: 50, offsetMs: 100 }),
      'third',
      { followsId: 'gr', speedPercent: 50, offsetMs: 30 },
    );
    expect(timeOf(chain.timing.groups, 'third')).toEqual({
      rootId: 'gf',
      speed: { over: 1n, under: 4n },
      offsetMs: 130,
    });
    expect(mayFollow(chain.timing.groups, 'gf', 'third')).toBe(false);
    expect(changeGroup(chain, 'gf', { followsId: 'third' })).toBe(chain);
    const without = removeGroup(chain, 'gr');
    expect(without.timing.groups.find((g) => g.id === 'third')?.followsId).toBeNull();
  });

  test('a circle in a file is refused, and a speed at which a pattern does not run', () => {
    const circle = {
      ...both,
      timing: {
        ...both.timing,
        groups: both.timing.groups.map((g) => ({ ...g, followsId: g.id === 'gf' ? 'gr' : 'gf' })),
      },
    };
    expect(() => readBuild(circle)).toThrow(
      /groups\[0\]\.followsId: following 'gr', 'gf' would follow itself/,
    );
    const long = setCue(both, 2, 'gf', 1, cue('gf', 'chance'));
    expect(changeGroup(long, 'gf', { speedPercent: 10 })).toBe(long);
    const forced = {
      ...long,
      timing: {
        ...long.timing,
        groups: long.timing.groups.map((g) => ({ ...g, speedPercent: 10 })),
      },
    };
    expect(groupFailure(forced, 'gf')).toMatch(/64000 ms/);
    expect(() => readBuild(forced)).toThrow(/cues\[1\]\.patternId: at 10 % speed/);
  });

  test('a module can show its line later than its group', () => {
    const later = changeModules(both, [{ placementId: 'f', moduleId: 'm1' }], { offsetMs: 700 });
    // 700 to 920 of 800: the last 120 ms come in again at the beginning.
    expect(drivenIn(later, { stage: 2, ambient: 'day' }).find((d) => d.placementId === 'f')?.spans).toEqual([
      { fromMs: 0, toMs: 120, level: 1 },
      { fromMs: 700, toMs: 800, level: 1 },
    ]);
  });

  test('colours inside one pattern light the slots it names', () => {
    const two = changeModules(both, [{ placementId: 'f', moduleId: 'm1' }], { colours: ['red', 'white'] });
    const cued = setCue(two, 2, 'gf', 1, cue('gf', 'two-and-one'));
    expect(
      drivenIn(cued, { stage: 2, ambient: 'day' })
        .filter((d) => d.placementId === 'f')
        .map((d) => [d.colour, d.spans.length]),
    ).toEqual([
      ['red', 2],
      ['white', 1],
    ]);
    // Both slots are taken: another cue on the second gives way to it, and in a file it is an error.
    const clash = {
      ...cued,
      timing: {
        ...cued.timing,
        stages: cued.timing.stages.map((s, i) =>
          i === 2 ? { ...s, cues: [...s.cues, { ...cue('gf', 'single'), slot: 2 }] } : s,
        ),
      },
    };
    expect(() => readBuild(clash)).toThrow(/colour slot 2 of the same group is cued twice/);
  });
});

describe('heads that cannot keep step', () => {
  const clock = { lines: ['pulse wire' as const], volts: 12 as const };
  test.each([
    [{ flasher: null }, null],
    [{ flasher: { line: 'pulse wire' as const, tolerancePercent: 1 } }, null],
    [{ flasher: { line: 'data pair' as const, tolerancePercent: 1 } }, /kept in step by a data pair/],
    [{ flasher: { line: null, tolerancePercent: 5 } }, /no sync line/],
  ])('%o', (fixture, why) => {
    const said = whyFree(fixture, clock);
    if (why === null) expect(said).toBeNull();
    else expect(said).toMatch(why);
  });

  test('drift by hand: 1 % of 800 ms is 8 ms a cycle, all the way round in 100 cycles', () => {
    expect(driftOf(800, 1)).toEqual({ msPerCycle: 8, roundS: 80 });
  });

  test('the old beacons of the ferry slip run free in their group, each on its own clock', () => {
    const free = drivenIn(demoBuild('ferry-slip'), { stage: 2, ambient: 'day' }).filter(
      (d) => d.freeBecause !== null,
    );
    expect(free.length).toBeGreaterThan(0);
    for (const d of free) expect(d.clockId).toBe(`free:${d.placementId}`);
  });
});

describe('current', () => {
  test('worst is every clock’s highest together; the mean does not depend on phases', () => {
    const drives = drivenIn(frontAndRear(), { stage: 2, ambient: 'day' });
    const sum = drives.reduce((a, d) => a + d.currentA, 0);
    const { worstA, meanA } = currentOf(drives);
    expect(worstA.value).toBeCloseTo(sum, 9);
    expect(meanA).toBeCloseTo((sum * 220) / 800, 9);
    expect(meanOf(allTogether(currentOverTime(drives)))).toBeCloseTo(meanA, 9);
  });

  test('halves that alternate draw half at a time', () => {
    const both = frontAndRear();
    const one = changeModules(
      both,
      ['f', 'r'].map((placementId) => ({ placementId, moduleId: 'm1' })),
      { groupId: 'gf' },
    );
    const halves = changeModules(one, [{ placementId: 'r', moduleId: 'm1' }], { phase: 'B' });
    expect(currentOf(drivenIn(one, { stage: 2, ambient: 'day' })).worstA.value).toBeCloseTo(
      2 * currentOf(drivenIn(halves, { stage: 2, ambient: 'day' })).worstA.value,
      9,
    );
  });
});

/** Every clock's highest together, millisecond by millisecond. */
function highestOf(seen: readonly { drive: Drive; cd: number }[]): number {
  const steady = seen.filter((s) => s.drive.steady).reduce((sum, s) => sum + s.cd, 0);
  const flashing = seen.filter((s) => !s.drive.steady);
  return [...new Set(flashing.map((s) => s.drive.clockId))].reduce((sum, clockId) => {
    const mine = flashing.filter((s) => s.drive.clockId === clockId);
    const cycle = commonCycleMs(mine.map((s) => s.drive.cycleMs));
    let most = 0;
    for (let ms = 0; ms < cycle; ms++)
      most = Math.max(
        most,
        mine.reduce((cd, s) => cd + s.cd * levelAt(s.drive, ms), 0),
      );
    return sum + most;
  }, steady);
}

describe('what is seen from a direction', () => {
  test('agrees with the ring’s shares at every thirtieth bearing', () => {
    const build = demoBuild('ks-12');
    const lit = litChannels(build, day(3), {
      elevationDeg: 0,
      colour: null,
      level: 'any',
      upperAboveM: 1.5,
    });
    for (let b = 0; b < 360; b += 30) {
      const seen = seenFrom(build, day(3), { bearingDeg: b, elevationDeg: 0 }, 40);
      const clocks = new Set(
        lit
          .filter(({ drive, share }) => !drive.steady && (share[b] ?? 0) > 0)
          .map(({ drive }) => drive.clockId),
      );
      expect(seen.clocks.map((c) => c.clockId).toSorted()).toEqual([...clocks].toSorted());
      expect(seen.worst.highestCd.value).toBeCloseTo(
        highestOf(lit.map(({ drive, share }) => ({ drive, cd: drive.peakCd * (share[b] ?? 0) }))),
        6,
      );
    }
  });

  test('colours add up to the whole, piece by piece', () => {
    const { whole, colours } = lightSeen(demoBuild('ks-13'), day(3), { bearingDeg: 30, elevationDeg: 0 });
    const at = (light: typeof whole, ms: number): number =>
      piecesBetween(light, ms, ms + 1).reduce((sum, p) => sum + p.start, 0);
    for (let ms = 0; ms < 2000; ms += 37)
      expect(colours.reduce((sum, c) => sum + at(c.light, ms), 0)).toBeCloseTo(at(whole, ms), 6);
  });

  test('every demo build has light in each of its stages, and its figures are finite', () => {
    for (const name of DEMO_BUILDS)
      for (const stage of [1, 2, 3] as const) {
        const build = demoBuild(name);
        const drives = drivenIn(build, { stage, ambient: 'day' });
        expect(drives.filter((d) => d.spans.length > 0).length, `${name} ${stage}`).toBeGreaterThan(0);
        const seen = seenFrom(build, day(stage), { bearingDeg: 200, elevationDeg: 0 }, 40);
        expect(seen.powerCdsPerMin, `${name} ${stage}`).toBeGreaterThan(0);
        expect(seen.worst.effective.value).toBeLessThanOrEqual(seen.worst.highestCd.value + 1e-9);
      }
  });
});

describe('close by', () => {
  test('far away it is the ring; near, each lamp has its own direction', () => {
    const build = demoBuild('ks-13');
    const bearing = 37;
    const ring = new Map(
      litChannels(build, day(2), {
        // Not level: along the roof a hair's breadth decides what is hidden.
        elevationDeg: 3,
        colour: null,
        level: 'any',
        upperAboveM: 1.5,
      }).map(({ drive, share }) => [drive.channelId, drive.peakCd * (share[bearing] ?? 0)]),
    );
    const far = channelsNear(build, day(2), scale(directionOf(bearing, 3), 200_000));
    for (const { drive, cd } of far) expect(Math.abs(cd - (ring.get(drive.channelId) ?? 0))).toBeLessThan(1);
  });

  test('illuminance by hand: 1000 cd at 10 m in clear air is 10 lx less 1.5 ‰', () => {
    expect(illuminanceLx(1000, 10, 20_000)).toBeCloseTo(10 * 0.05 ** (10 / 20_000), 12);
    expect(illuminanceLx(1000, 100, 100)).toBeCloseTo(0.1 * 0.05, 12);
  });
});

describe('a scene of several vehicles', () => {
  const here = frontAndRear();
  const there = frontAndRear();
  const vehicle = {
    id: 'v1',
    buildId: '77777777-7777-4777-8777-777777777777',
    name: 'Other',
    aheadM: 0,
    leftM: 0,
    turnedDeg: 0,
    stage: 2,
    inStep: [],
  };
  const behind = { aheadM: -60, leftM: 0, heightM: 1.2 };

  test('a point of the scene in a vehicle’s own axes', () => {
    const [x, y] = inVehicle({ ...vehicle, aheadM: 10, leftM: 0, turnedDeg: 90 }, [10, 5, 1]);
    expect([x, y].map((v) => Math.round(v * 1e9) / 1e9)).toEqual([5, 0]);
  });

  test('two alike in one place give twice the light; they drift until they are tied', () => {
    const one = sceneSeen(here, day(2), [], behind, 1);
    const two = sceneSeen(here, day(2), [{ vehicle, build: there }], behind, 1);
    expect(two.powerCdsPerMin).toBeCloseTo(2 * one.powerCdsPerMin, 6);
    expect(two.worst.highestCd.value).toBeCloseTo(2 * one.worst.highestCd.value, 6);
    expect([one.clocks, two.clocks]).toEqual([1, 2]);
    const tied = sceneSeen(
      here,
      day(2),
      [{ vehicle: { ...vehicle, inStep: [{ here: 'gr', there: 'gr' }] }, build: there }],
      behind,
      1,
    );
    expect(tied.clocks).toBe(1);
    expect(tied.rhythms).toBe(one.rhythms);
    expect(tied.worst.effective.value).toBeCloseTo(2 * one.worst.effective.value, 6);
  });

  test('further away it counts less, by the square of the distance', () => {
    const alone = sceneSeen(here, day(2), [], behind, 1).powerCdsPerMin;
    const far = { ...vehicle, aheadM: 60, turnedDeg: 0 };
    const both = sceneSeen(here, day(2), [{ vehicle: far, build: there }], behind, 1).powerCdsPerMin;
    expect(both / alone).toBeGreaterThan(1.23);
    expect(both / alone).toBeLessThan(1.27);
  });

  test('brought, moved and taken away; a tie goes with its group', () => {
    const buildId = vehicle.buildId;
    const brought = addToScene(here, { id: 'v1', buildId, name: 'Other' });
    const moved = changeInScene(brought, 'v1', { aheadM: -20, inStep: [{ here: 'gf', there: 'gf' }] });
    expect(readBuild(JSON.parse(JSON.stringify(moved)))).toEqual(moved);
    expect(removeGroup(moved, 'gf').scene[0]?.inStep).toEqual([]);
    expect(takeFromScene(moved, 'v1').scene).toEqual([]);
    expect(() => readBuild(changeInScene(moved, 'v1', { inStep: [{ here: 'nobody', there: 'x' }] }))).toThrow(
      /scene\[0\]\.inStep\[0\]\.here: no sync group 'nobody'/,
    );
  });
});

describe('builds of schema 2', () => {
  test('read as before: clocks of their own, the same by night, flashed by outputs', () => {
    const now = demoBuild('tunnel-pumper-3');
    const drop = (item: object, ...keys: string[]) =>
      Object.fromEntries(Object.entries(item).filter(([key]) => !keys.includes(key)));
    const old = {
      ...drop(now, 'scene'),
      schemaVersion: 2,
      placements: now.placements.map((p) => ({
        ...p,
        modules: p.modules.map((m) => drop(m, 'offsetMs')),
      })),
      timing: {
        groups: now.timing.groups.map(({ id, name }) => ({ id, name })),
        stages: now.timing.stages.map((s) => ({
          ...s,
          cues: s.cues.map((c) => drop(c, 'nightPatternId')),
        })),
      },
    };
    expect(readBuild(JSON.parse(JSON.stringify(old)))).toEqual(now);
  });

  test('an own pattern that takes a library name is refused', () => {
    const taken = addPattern(emptyBuild(), { ...emptyPattern('double', 'Mine') });
    expect(() => readBuild(taken)).toThrow(/patterns\[0\]\.id: 'double' is a pattern of the library/);
  });
});
