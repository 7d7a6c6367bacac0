import { changeEffect, nightLevelOf, setCue } from '../design/controlEdits.ts';
import { effectsOf, stagesOf } from '../design/controls.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { addGroup, changeGroup, groupFailure, removeGroup } from '../design/timingEdits.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { readBuild } from '../rules/document.ts';
import { describe, expect, test } from 'vitest';
import { addPattern, emptyPattern } from '../design/patternEdits.ts';
import type { Build } from '../design/schema.ts';
import { allTogether } from '../coverage/seen.ts';
import { mayFollow, timeOf } from '../timing/clock.ts';
import { currentOf, currentOverTime } from './current.ts';
import { drivenIn } from '../state/driven.ts';
import { driftOf, freeRunReason } from '../timing/step.ts';
import { meanOf } from '../timing/signal.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { cueOf, emptyBuild, frontAndRear } from '../../test/reference/places.ts';

describe('clocks of sync groups', () => {
  const both = frontAndRear();
  const spans = (b: Build, id: string) =>
    drivenIn(b, { on: ['stage-2'], ambient: 'day' })
      .filter((d) => d.placementId === id)
      .map((d) => [d.cycleMs, d.spans[0]?.fromMs, d.spans[0]?.toMs, d.clockId]);

  test('by themselves they drift; the rear at half the front’s speed, 200 ms later, keeps step', () => {
    expect(new Set(drivenIn(both, { on: ['stage-2'], ambient: 'day' }).map((d) => d.clockId)).size).toBe(2);
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
    const long = setCue(both, 'stage-2', groupTarget('gf'), 1, cueOf('gf', 'chance'));
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
    expect(
      drivenIn(later, { on: ['stage-2'], ambient: 'day' }).find((d) => d.placementId === 'f')?.spans,
    ).toEqual([
      { fromMs: 0, toMs: 120, level: 1 },
      { fromMs: 700, toMs: 800, level: 1 },
    ]);
  });

  test('colours inside one pattern light the slots it names', () => {
    const two = changeModules(both, [{ placementId: 'f', moduleId: 'm1' }], { colours: ['red', 'white'] });
    const cued = setCue(two, 'stage-2', groupTarget('gf'), 1, cueOf('gf', 'two-and-one'));
    expect(
      drivenIn(cued, { on: ['stage-2'], ambient: 'day' })
        .filter((d) => d.placementId === 'f')
        .map((d) => [d.colour, d.spans.length]),
    ).toEqual([
      ['red', 2],
      ['white', 1],
    ]);
    // Both slots are taken: another cue on the second gives way to it; where a file holds both, the later one lights.
    const clash = changeEffect(cued, 'stage-2', {
      cues: [...effectsOf(cued, 'stage-2').cues, { ...lightCue(groupTarget('gf'), 2, 'single') }],
    });
    const slots = drivenIn(clash, { on: ['stage-2'], ambient: 'day' }).map((d) => [d.slot, d.patternId]);
    expect(slots).toContainEqual([2, 'single']);
  });
});

describe('heads that cannot keep step', () => {
  const clock = { lines: ['pulse wire' as const], volts: 12 as const };
  test.each([
    [{ flasher: null }, null],
    [{ flasher: { line: 'pulse wire' as const, tolerancePercent: 1 } }, null],
    [
      { flasher: { line: 'data pair' as const, tolerancePercent: 1 } },
      /^synchronises by a data pair, which the group's clock does not have/,
    ],
    [{ flasher: { line: null, tolerancePercent: 5 } }, /^has its own flasher without a sync line/],
  ])('%o', (fixture, why) => {
    const said = freeRunReason(fixture, clock);
    if (why === null) expect(said).toBeNull();
    else expect(said).toMatch(why);
  });

  test('drift by hand: 1 % of 800 ms is 8 ms a cycle, all the way round in 100 cycles', () => {
    expect(driftOf(800, 1)).toEqual({ msPerCycle: 8, roundS: 80 });
  });

  test('the old beacons of the ferry slip run free in their group, each on its own clock', () => {
    const free = drivenIn(demoBuild('ferry-slip'), { on: ['stage-2'], ambient: 'day' }).filter(
      (d) => d.freeBecause !== null,
    );
    expect(free.length).toBeGreaterThan(0);
    for (const d of free) expect(d.clockId).toBe(`free:${d.placementId}`);
  });
});

describe('current', () => {
  test('worst is every clock’s highest together; the mean does not depend on phases', () => {
    const drives = drivenIn(frontAndRear(), { on: ['stage-2'], ambient: 'day' });
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
    expect(currentOf(drivenIn(one, { on: ['stage-2'], ambient: 'day' })).worstA.value).toBeCloseTo(
      2 * currentOf(drivenIn(halves, { on: ['stage-2'], ambient: 'day' })).worstA.value,
      9,
    );
  });
});

describe('builds of schema 2', () => {
  test('read as before: clocks of their own, the same by night, flashed by outputs', () => {
    const demo = demoBuild('tunnel-pumper-3');
    const now = {
      ...demo,
      placements: demo.placements.map((p) => ({
        ...p,
        modules: p.modules.map((m) => ({ ...m, disabled: [] })),
      })),
    };
    const drop = (item: object, ...keys: string[]) =>
      Object.fromEntries(Object.entries(item).filter(([key]) => !keys.includes(key)));
    const old = {
      ...drop(now, 'scene', 'controls'),
      schemaVersion: 2,
      placements: now.placements.map((p) => ({
        ...p,
        modules: p.modules.map((m) => drop(m, 'offsetMs')),
      })),
      timing: {
        groups: now.timing.groups.map(({ id, name }) => ({ id, name })),
        stages: stagesOf(now).map(({ name, id }) => ({
          name,
          nightLevel: nightLevelOf(now, id) ?? 1,
          cues: effectsOf(now, id).cues.flatMap((cue) =>
            cue.show === 'light' && cue.target.kind !== 'set'
              ? [
                  {
                    groupId: cue.target.kind === 'group' ? cue.target.groupId : null,
                    patternId: cue.patternId,
                    slot: cue.ink,
                    level: cue.level,
                  },
                ]
              : [],
          ),
        })),
      },
    };
    const read = readBuild(JSON.parse(JSON.stringify(old)));
    // What came later than schema 2 begins as every build does.
    const vehicle = { ...now.vehicle, reflectors: [] };
    // Before lamps could be left out rules counted them all, and go on doing so.
    const { rulePacks } = read;
    const kinds = (of: Build) => of.rulePacks.map(({ rules }) => rules.map(({ kind, id }) => [kind, id]));
    expect(kinds(read)).toEqual(kinds(now));
    expect(read).toEqual({ ...now, vehicle, controls: read.controls, rulePacks, workPlaces: [], eyes: [] });
    for (const { id } of stagesOf(now))
      for (const ambient of ['day', 'night'] as const)
        expect(drivenIn(read, { on: [id], ambient })).toEqual(drivenIn(now, { on: [id], ambient }));
  });

  test('an own pattern that takes a library name is refused', () => {
    const taken = addPattern(emptyBuild(), { ...emptyPattern('double', 'Mine') });
    expect(() => readBuild(taken)).toThrow(/patterns\[0\]\.id: 'double' is a pattern of the library/);
  });
});
