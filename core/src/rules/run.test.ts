import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { frontAndRear } from '../../test/reference/places.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { mirrorBuild } from '../arrange/lamps.ts';
import type { Build } from '../design/schema.ts';
import { checkBuild } from './check.ts';
import { fails, holds } from './judgement.ts';
import { LayoutSubject } from './layout/subject.ts';
import type { Rule, RuleOf } from './registry.ts';
import { runTasks, type Task } from './run.ts';
import { about } from './subject.ts';

const said = (build: Build, rule: Rule): string[] =>
  checkBuild({ ...build, rulePacks: [packOf(rule)] })
    .findings.filter(({ packId }) => packId === 'test')
    .map(({ sentence }) => sentence);

describe('of states that show the same fault', () => {
  const ship = demoBuild('coast-watch');
  const eye = (station: 'left-side' | 'right-side', maxLx: number): RuleOf<'eye'> => ({
    ...common,
    kind: 'eye',
    stages: [1],
    station,
    ambient: 'night',
    maxLx,
  });

  test('the first is told, and one that is much worse besides: whichever door is tried first', () => {
    expect(said(ship, eye('left-side', 1))).toEqual([
      'Illuminance at the eye, a person at the left side, facing it: 8.3 lx (limit 1 lx).',
    ]);
    expect(said(mirrorBuild(ship), eye('right-side', 1))).toEqual([
      'Illuminance at the eye, a person at the right side, facing it: 1.47 lx (limit 1 lx).',
      'Illuminance at the eye, a person at the right side, facing it: 8.3 lx (limit 1 lx).',
    ]);
  });

  /** What a check that says this of each door, and nothing of all else, comes to: sentences in order. */
  function told(
    margins: Readonly<Record<string, readonly [news: number[], margin: number | null]>>,
  ): string[] {
    const build = frontAndRear();
    const task: Task = {
      packId: 'test',
      packName: 'Test',
      ruleId: 'r',
      kind: 'test',
      home: 'layout',
      severity: 'warns',
      clause: '1',
      once: false,
      listed: false,
      sees: 'light',
      upperAboveM: 1.5,
      speaks: ({ on, ambient }) => on.includes('stage-2') && ambient === 'day',
      limits: () => [],
      check: ({ state }) => {
        const open = state.open.join('+');
        const said = margins[open === '' ? 'shut' : open];
        return said === undefined
          ? [holds()]
          : [
              fails({
                subjects: [about('lamp', 'a')],
                sentence: open === '' ? 'shut' : open,
                news: said[0],
                margin: said[1],
              }),
            ];
      },
    };
    const { findings, outcomes } = runTasks(build, new LayoutSubject(build), [task], null);
    expect(outcomes).toEqual([]);
    return findings.map(({ sentence }) => sentence.toLowerCase());
  }

  test('much worse is by a tenth of the limit, and of what was told', () => {
    expect(told({ shut: [[], -0.5], hatch: [[], -0.59] })).toEqual(['shut']);
    expect(told({ shut: [[], -0.5], hatch: [[], -0.61] })).toEqual(['shut', 'hatch']);
    expect(told({ shut: [[], -10], hatch: [[], -10.9] })).toEqual(['shut']);
    expect(told({ shut: [[], -10], hatch: [[], -11.1] })).toEqual(['shut', 'hatch']);
    expect(told({ shut: [[], -10], hatch: [[], -3] })).toEqual(['shut']);
    expect(told({ shut: [[], -10], hatch: [[], null], bonnet: [[], -90] })).toEqual(['shut', 'hatch']);
    expect(told({ shut: [[], null], hatch: [[], null], bonnet: [[], -1] })).toEqual(['shut']);
    // The third is held against the second, which was worse than the first.
    expect(told({ shut: [[], -1], hatch: [[], -2], bonnet: [[], -2.1] })).toEqual(['shut', 'hatch']);
  });

  test('worse in a part of what was told is worse', () => {
    expect(told({ shut: [[1, 2, 3], -0.1], hatch: [[2, 3], -0.9] })).toEqual(['shut', 'hatch']);
    expect(told({ shut: [[1, 2], -0.1], hatch: [[2], -0.1], bonnet: [[1], -0.15] })).toEqual(['shut']);
    expect(told({ shut: [[1], -0.1], hatch: [[2], -0.9], bonnet: [[1, 2], -0.5] })).toEqual([
      'shut',
      'hatch',
      'bonnet',
    ]);
    expect(told({ shut: [[1, 2], -0.1], hatch: [[2, 3], -0.1] })).toEqual(['shut', 'hatch']);
  });
});
