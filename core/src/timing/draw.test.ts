import { groupTarget } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import { readBuild } from '../rules/document.ts';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  addPattern,
  changePattern,
  cueAt,
  drawAt,
  emptyPattern,
  freshName,
  importPatterns,
  patternIdAt,
  removePattern,
  showPattern,
  usesOf,
  variantAtSpeed,
  writePatterns,
  type CuePlace,
} from '../design/patternEdits.ts';
import type { Build } from '../design/schema.ts';
import { bookOf, LIBRARY } from './book.ts';
import {
  addBar,
  changeBar,
  firstRoom,
  moveBar,
  pasteLine,
  removeBar,
  resizeBar,
  setBy,
  setCycle,
  setLineCount,
  splitBar,
  tapLine,
  type Drawn,
} from './draw.ts';
import { Pattern } from './pattern.ts';
import { demoBuild } from '../../test/reference/demo.ts';
import { emptyBuild } from '../../test/reference/places.ts';

const empty = emptyPattern('p', 'Mine');
const times = (p: Drawn, line = 0) => p.lines[line]?.map((s) => [s.fromMs, s.toMs]);

describe('drawing bars', () => {
  const two = addBar(addBar(empty, 0, 100, 100), 0, 400, 200);

  test('a bar goes where the line is free, and is cut to the gap', () => {
    expect(times(two)).toEqual([
      [100, 200],
      [400, 600],
    ]);
    expect(times(addBar(two, 0, 350, 200))).toEqual([
      [100, 200],
      [350, 400],
      [400, 600],
    ]);
    expect(addBar(two, 0, 150, 50)).toBe(two);
    expect(times(addBar(two, 0, 950, 200))?.at(-1)).toEqual([950, 1000]);
  });

  test('moving and resizing stop at the neighbours', () => {
    expect(times(moveBar(two, 0, 0, 350))?.[0]).toEqual([300, 400]);
    expect(times(moveBar(two, 0, 1, 50))?.[1]).toEqual([200, 400]);
    expect(times(moveBar(two, 0, 1, 5000))?.[1]).toEqual([800, 1000]);
    expect(times(resizeBar(two, 0, 0, 'to', 900))?.[0]).toEqual([100, 400]);
    expect(times(resizeBar(two, 0, 1, 'from', 598))?.[1]).toEqual([595, 600]);
  });

  test('splitting leaves a dark time; levels become ramps and back', () => {
    expect(times(splitBar(two, 0, 1))).toEqual([
      [100, 200],
      [400, 480],
      [520, 600],
    ]);
    const ramp = changeBar(two, 0, 0, { level: 0, endLevel: 1 });
    expect(ramp.lines[0]?.[0]).toMatchObject({ level: 0, endLevel: 1 });
    expect(splitBar(ramp, 0, 0).lines[0]?.[0]).toMatchObject({ level: 0, endLevel: 0.4 });
    expect(changeBar(ramp, 0, 0, { level: 1, endLevel: 1 }).lines[0]?.[0]).toEqual({
      fromMs: 100,
      toMs: 200,
      level: 1,
    });
    expect(changeBar(two, 0, 0, { level: 0 })).toBe(two);
    expect(changeBar(two, 0, 0, { slot: 2 }).lines[0]?.[0]?.slot).toBe(2);
  });

  test('a line pasted half a cycle later answers; over the end it comes in again', () => {
    expect(times(pasteLine(two, 1, two.lines[0] ?? [], 500), 1)).toEqual([
      [0, 100],
      [600, 700],
      [900, 1000],
    ]);
    expect(times(pasteLine(setCycle(two, 500), 1, two.lines[0] ?? []), 1)).toEqual([
      [100, 200],
      [400, 500],
    ]);
  });

  test('tapped: the first press is the beginning, edges snap, what is over the end goes on at the beginning', () => {
    const tapped = tapLine(empty, 0, [
      { downMs: 5003, upMs: 5098 },
      { downMs: 5204, upMs: 5301 },
      { downMs: 5951, upMs: 6048 },
    ]);
    expect(times(tapped)).toEqual([
      [0, 100],
      [200, 300],
      [950, 1000],
    ]);
    expect(tapLine(empty, 0, [])).toBe(empty);
  });

  test('times are whole milliseconds within the cycle, and no bar is shorter than 5', () => {
    expect(times(addBar(empty, 0, 10.6, 20.4))).toEqual([[11, 31]]);
    expect(times(addBar(empty, 0, -40, 20))).toEqual([[0, 20]]);
    expect(times(addBar(empty, 0, 5000, 20))).toEqual([[995, 1000]]);
    expect(addBar(empty, 0, 100, 4)).toBe(empty);
    expect(times(addBar(empty, 0, 100, 5))).toEqual([[100, 105]]);
    expect(times(addBar(two, 0, 200, 50))?.[1]).toEqual([200, 250]);
    expect(addBar(two, 0, 396, 50)).toBe(two);
    expect(times(addBar(two, 0, 395, 50))?.[1]).toEqual([395, 400]);
    expect(times(moveBar(two, 0, 0, 150.6))?.[0]).toEqual([151, 251]);
    expect(times(moveBar(two, 0, 0, -50))?.[0]).toEqual([0, 100]);
    expect(times(resizeBar(two, 0, 0, 'to', 250.4))?.[0]).toEqual([100, 250]);
    expect(times(resizeBar(two, 0, 0, 'to', 0))?.[0]).toEqual([100, 105]);
    expect(times(resizeBar(two, 0, 0, 'from', -9))?.[0]).toEqual([0, 200]);
    expect(times(resizeBar(two, 0, 1, 'from', 150))?.[1]).toEqual([200, 600]);
  });

  test('a bar that is not there is left as it is', () => {
    expect(moveBar(two, 0, 9, 0)).toBe(two);
    expect(resizeBar(two, 0, 9, 'to', 0)).toBe(two);
    expect(changeBar(two, 0, 9, { level: 0.5 })).toBe(two);
    expect(splitBar(two, 0, 9)).toBe(two);
  });

  test('the first room for a bar stands apart from others where it can', () => {
    expect([100, 150, 250, 350, 450].map((ms) => firstRoom(two, 0, ms))).toEqual([0, 660, 660, 600, null]);
    expect(firstRoom(empty, 0, 1000)).toBe(0);
    expect(firstRoom(empty, 0, 1001)).toBeNull();
  });

  test('one bar of a line goes, or is split; what is too short to split stays whole', () => {
    expect(times(removeBar(two, 0, 0))).toEqual([[400, 600]]);
    expect(times(splitBar(addBar(empty, 0, 0, 20), 0, 0))).toEqual([
      [0, 7],
      [12, 20],
    ]);
    const short = addBar(empty, 0, 0, 14);
    expect(splitBar(short, 0, 0)).toBe(short);
    expect(times(splitBar(addBar(empty, 0, 0, 15), 0, 0))).toEqual([
      [0, 5],
      [10, 15],
    ]);
    expect(times(splitBar(addBar(empty, 0, 0, 500), 0, 0))).toEqual([
      [0, 220],
      [280, 500],
    ]);
  });

  test('tapped shortly, over each other, and longer than the cycle', () => {
    expect(times(tapLine(empty, 0, [{ downMs: 7, upMs: 9 }]))).toEqual([[0, 10]]);
    expect(
      times(
        tapLine(empty, 0, [
          { downMs: 0, upMs: 100 },
          { downMs: 90, upMs: 200 },
        ]),
      ),
    ).toEqual([[0, 200]]);
    expect(times(tapLine(empty, 0, [{ downMs: 0, upMs: 5000 }]))).toEqual([[0, 1000]]);
    const coarse = tapLine(
      empty,
      0,
      [
        { downMs: 0, upMs: 120 },
        { downMs: 230, upMs: 280 },
      ],
      50,
    );
    expect(times(coarse)).toEqual([
      [0, 100],
      [250, 300],
    ]);
  });

  test('other lengths and numbers of lines', () => {
    expect(times(setCycle(two, 450))).toEqual([
      [100, 200],
      [400, 450],
    ]);
    expect(setLineCount(two, 5).lines).toHaveLength(5);
    expect(setLineCount(two, 40).lines).toHaveLength(8);
    expect(setBy(setLineCount(setBy(two, 'order'), 20), 'phase').lines).toHaveLength(8);
    expect(firstRoom(two, 0, 100)).toBe(0);
    expect(firstRoom(two, 0, 140)).toBe(260);
    expect(firstRoom(two, 0, 390)).toBe(600);
    expect(firstRoom(two, 0, 900)).toBeNull();
  });

  test('whatever is drawn is a pattern', () => {
    const n = fc.integer({ min: -200, max: 2200 });
    const index = fc.integer({ min: 0, max: 3 });
    const step = fc.oneof(
      fc.tuple(index, n, n).map(
        ([line, a, b]) =>
          (p: Drawn) =>
            addBar(p, line, a, b),
      ),
      fc.tuple(index, index, n).map(
        ([line, i, ms]) =>
          (p: Drawn) =>
            moveBar(p, line, i, ms),
      ),
      fc.tuple(index, index, fc.constantFrom('from' as const, 'to' as const), n).map(
        ([line, i, edge, ms]) =>
          (p: Drawn) =>
            resizeBar(p, line, i, edge, ms),
      ),
      fc.tuple(index, index).map(
        ([line, i]) =>
          (p: Drawn) =>
            splitBar(p, line, i),
      ),
      fc.tuple(index, index).map(
        ([line, i]) =>
          (p: Drawn) =>
            removeBar(p, line, i),
      ),
      fc
        .tuple(
          index,
          index,
          fc.double({ min: 0, max: 1, noNaN: true }),
          fc.double({ min: 0, max: 1, noNaN: true }),
        )
        .map(
          ([line, i, level, endLevel]) =>
            (p: Drawn) =>
              changeBar(p, line, i, { level, endLevel }),
        ),
      fc.tuple(index, index, n).map(
        ([line, from, by]) =>
          (p: Drawn) =>
            pasteLine(p, line, p.lines[from] ?? [], by),
      ),
      fc.integer({ min: 20, max: 3000 }).map((ms) => (p: Drawn) => setCycle(p, ms)),
      fc.integer({ min: 1, max: 10 }).map((count) => (p: Drawn) => setLineCount(p, count)),
    );
    fc.assert(
      fc.property(fc.array(step, { maxLength: 30 }), (drawing) => {
        const p = drawing.reduce((drawn, change) => change(drawn), empty);
        expect(Pattern.safeParse(p).error?.issues[0]?.message).toBeUndefined();
      }),
      { numRuns: 300, seed: 47 },
    );
  });
});

describe('patterns of a build’s own', () => {
  const car = demoBuild('ks-13');
  const front: CuePlace = {
    on: 'stage-2',
    target: groupTarget('front'),
    ink: 1,
    ambient: 'day',
  };
  const readsBack = (b: Build) => expect(readBuild(JSON.parse(JSON.stringify(b)))).toEqual(b);

  test('drawing on a library pattern makes a copy for that place alone; drawing on it again changes the copy', () => {
    const drawn = drawAt(car, front, 'new', (p) => addBar(p, 0, 500, 100));
    expect(patternIdAt(drawn, front)).toBe('new');
    expect(patternIdAt(drawn, { ...front, target: groupTarget('bar') })).toBe('double');
    expect(bookOf(drawn).pattern('new').name).toBe('Double flash 2');
    const again = drawAt(drawn, front, 'other', (p) => removeBar(p, 0, 0));
    expect(again.timing.patterns).toHaveLength(1);
    expect(drawAt(car, front, 'new', (p) => p)).toBe(car);
    expect(drawAt(car, { ...front, target: groupTarget('nobody') }, 'new', (p) => setCycle(p, 500))).toBe(
      car,
    );
    readsBack(again);
  });

  test('another pattern at night, at a quarter of the speed', () => {
    const quarter = variantAtSpeed(bookOf(car), 'triple', 25, 'quarter');
    expect(quarter.cycleMs).toBe(3600);
    const cue = cueAt(car, front);
    if (cue === undefined) throw new Error('the front is cued');
    const night = setCue(addPattern(car, quarter), 'stage-2', groupTarget('front'), 1, {
      ...cue,
      nightPatternId: 'quarter',
    });
    expect(patternIdAt(night, front)).toBe('double');
    expect(patternIdAt(night, { ...front, ambient: 'night' })).toBe('quarter');
    const shown = showPattern(night, { ...front, ambient: 'night' }, 'single');
    expect([cueAt(shown, front)?.patternId, cueAt(shown, front)?.nightPatternId]).toEqual([
      'double',
      'single',
    ]);
    expect(usesOf(night, 'quarter')).toEqual(['Stage 2: Front and sides, at night']);
    expect(removePattern(night, 'quarter')).toBe(night);
    expect(() => variantAtSpeed(LIBRARY, 'chance', 10, 'x')).toThrow(/64000 ms/);
    readsBack(night);
  });

  test('what would leave the limits at a group’s speed changes nothing', () => {
    const fast = {
      ...car,
      timing: {
        ...car.timing,
        groups: car.timing.groups.map((g) => (g.id === 'front' ? { ...g, speedPercent: 10 } : g)),
      },
    };
    const own = showPattern(addPattern(fast, emptyPattern('p', 'Mine')), front, 'p');
    expect(changePattern(own, setCycle(empty, 7000))).toBe(own);
    expect(changePattern(own, setCycle(empty, 5000))).not.toBe(own);
  });

  test('carried to another build as a file, sequences with their parts; ids that are taken get new ones', () => {
    const mine = [
      addBar(emptyPattern('a', 'A'), 0, 0, 100),
      { kind: 'sequence' as const, id: 's', name: 'S', parts: [{ patternId: 'a', times: 2 }] },
    ].reduce<Build>((b, p) => addPattern(b, p), emptyBuild());
    const text = writePatterns(mine, ['s']);
    let n = 0;
    const fresh = () => `fresh${++n}`;
    const there = importPatterns(addPattern(emptyBuild(), emptyPattern('a', 'Other')), text, fresh);
    expect(there.timing.patterns.map((p) => p.id)).toEqual(['a', 'fresh1', 's']);
    expect(bookOf(there).cycle('s').cycleMs).toBe(2000);
    readsBack(there);
  });

  test.each([
    ['{', /pattern file is not valid JSON/],
    ['{"format":"else"}', /format: must be 'flarik-patterns'/],
    [
      JSON.stringify({ format: 'flarik-patterns', schemaVersion: 1, patterns: [{ ...empty, cycleMs: 5 }] }),
      /patterns\[0\]\.cycleMs: must be at least 20 ms/,
    ],
    [
      JSON.stringify({
        format: 'flarik-patterns',
        schemaVersion: 1,
        patterns: [{ kind: 'sequence', id: 's', name: 'S', parts: [{ patternId: 'gone', times: 1 }] }],
      }),
      /patterns: no pattern 'gone'/,
    ],
    [
      JSON.stringify({ format: 'flarik-patterns', schemaVersion: 1, patterns: [empty, empty] }),
      /'p' is used twice/,
    ],
  ])('a bad file is refused whole: %s', (text, reason) => {
    const b = emptyBuild();
    expect(() => importPatterns(b, text, () => 'x')).toThrow(reason);
    expect(b.timing.patterns).toEqual([]);
  });

  test('names that are free', () => {
    expect(freshName(LIBRARY, 'Pattern', 1)).toBe('Pattern 1');
    expect(freshName(bookOf(addPattern(emptyBuild(), { ...empty, name: 'Pattern 1' })), 'Pattern', 1)).toBe(
      'Pattern 2',
    );
  });
});
