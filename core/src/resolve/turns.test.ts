import { drivenIn } from '../state/driven.ts';
import { groupTarget, lightCue } from '../design/functions.ts';
import { setCue } from '../design/controlEdits.ts';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isSteady, levelAtTime, type Span } from '../timing/span.ts';
import type { ScheduledPattern } from '../timing/timeline.ts';
import { setColour } from '../arrange/lamps.ts';
import { changeModules } from '../design/moduleEdits.ts';
import { addGroup } from '../design/timingEdits.ts';
import { put, emptyBuild } from '../../test/reference/places.ts';
import { currentOf } from './current.ts';
import { burnTogether, alternates } from './turns.ts';

const played = (channelId: string, cycleMs: number, spans: readonly Span[]): ScheduledPattern => ({
  channelId,
  clockId: 'c',
  cycleMs,
  spans,
  steady: isSteady(spans, cycleMs),
});

/** Spans apart and in order within a cycle of up to 60 ms. */
const anyPlayed = (id: string) =>
  fc
    .tuple(fc.constantFrom(20, 24, 30, 36, 60), fc.array(fc.integer({ min: 1, max: 12 }), { maxLength: 6 }))
    .map(([cycleMs, steps]) => {
      const spans: Span[] = [];
      let at = 0;
      for (let i = 0; i + 1 < steps.length; i += 2) {
        const fromMs = at + (steps[i] ?? 1);
        const toMs = fromMs + (steps[i + 1] ?? 1);
        if (toMs > cycleMs) break;
        spans.push({ fromMs, toMs, level: 1 });
        at = toMs;
      }
      return played(id, cycleMs, spans);
    });

describe('colours of one module take turns', () => {
  test('agrees with asking every millisecond who ranks high enough', () => {
    fc.assert(
      fc.property(
        anyPlayed('1'),
        anyPlayed('2'),
        anyPlayed('3'),
        fc.integer({ min: 1, max: 3 }),
        (a, b, c, atOnce) => {
          const drives = [a, b, c];
          const out = alternates(drives, atOnce);
          expect(out.some((d) => d.loose === true)).toBe(false);
          const most = Array.from(
            { length: 400 },
            (_, t) => drives.filter((d) => levelAtTime(d.spans, d.cycleMs, t) > 0).length,
          ).reduce((a, b) => Math.max(a, b));
          expect(burnTogether(drives, atOnce)).toBe(most > atOnce ? 'sometimes' : 'never');
          for (let t = 0; t < 400; t++) {
            const lit = drives.map((d) => levelAtTime(d.spans, d.cycleMs, t) > 0);
            for (const [i, d] of out.entries()) {
              const stronger = lit.slice(i + 1).filter(Boolean).length;
              const wanted = lit[i] === true && stronger < atOnce;
              expect(levelAtTime(d.spans, d.cycleMs, t) > 0, `${i} at ${t}`).toBe(wanted);
            }
          }
        },
      ),
      { seed: 5, numRuns: 60 },
    );
  });

  test('colours whose common cycle is too long to lay out are left as they are, and marked', () => {
    const a = played('1', 59_999, [{ fromMs: 0, toMs: 100, level: 1 }]);
    const b = played('2', 59_998, [{ fromMs: 0, toMs: 100, level: 1 }]);
    expect(alternates([a, b], 1).map((d) => d.loose)).toEqual([true, true]);
    expect(burnTogether([a, b], 1)).toBe('unknown');
    expect(burnTogether([a, b], 2)).toBe('never');
  });

  test('a two-colour head shows one at a time: neither light nor current add up', () => {
    const ref = [{ placementId: 'a', moduleId: 'm1' }];
    const two = setColour(
      setColour(put(emptyBuild(), 'a', { zone: 'grille' }), ref, 1, 'red'),
      ref,
      2,
      'blue',
    );
    const grouped = changeModules(addGroup(two, { id: 'g', name: 'G' }), ref, { groupId: 'g' });
    const cue = lightCue(groupTarget('g'), 1, 'steady');
    const red = setCue(grouped, 'stage-2', groupTarget('g'), 1, { ...cue, ink: 1 });
    const blue = setCue(grouped, 'stage-2', groupTarget('g'), 2, { ...cue, ink: 2 });
    const both = setCue(red, 'stage-2', groupTarget('g'), 2, { ...cue, ink: 2 });
    const lit = drivenIn(both, { on: ['stage-2'], ambient: 'day' }).filter((d) => d.spans.length > 0);
    expect(lit.map((d) => d.colour)).toEqual(['blue']);
    const amps = (build: typeof both) =>
      currentOf(drivenIn(build, { on: ['stage-2'], ambient: 'day' })).worstA.value;
    expect(amps(both)).toBeCloseTo(amps(blue), 9);
  });
});

describe('a lamp planned for later, and a lens by colour', () => {
  const ref = [{ placementId: 'a', moduleId: 'm1' }];
  const lamp = put(emptyBuild(), 'a', { zone: 'grille' });
  const lit = (build: typeof lamp) =>
    drivenIn(setCue(build, 'stage-2', groupTarget(null), 1, lightCue(groupTarget(null), 1, 'steady')), {
      on: ['stage-2'],
      ambient: 'day',
    });
  test('planned is dark; its place stays taken', () => {
    expect(lit(lamp)).toHaveLength(1);
    expect(lit(put(emptyBuild(), 'a', { zone: 'grille', status: 'planned' }))).toEqual([]);
  });
  test('a lens passes its own share of each colour', () => {
    const red = setColour(
      put(emptyBuild(), 'a', { zone: 'grille', lensByColour: { red: 0.5 } }),
      ref,
      1,
      'red',
    );
    const plain = setColour(lamp, ref, 1, 'red');
    expect(lit(red)[0]?.peakCd).toBeCloseTo((lit(plain)[0]?.peakCd ?? 0) / 2, 9);
    const blue = setColour(red, ref, 1, 'blue');
    expect(lit(blue)[0]?.peakCd).toBeCloseTo(lit(setColour(lamp, ref, 1, 'blue'))[0]?.peakCd ?? 0, 9);
  });
});
