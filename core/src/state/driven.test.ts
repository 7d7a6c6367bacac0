import { expect, test } from 'vitest';
import { demoBuild, DEMO_BUILDS } from '../../test/reference/demo.ts';
import { stagesOf } from '../design/controls.ts';
import { drivenIn } from './driven.ts';

test('what is driven does not depend on having been asked before', () => {
  for (const name of DEMO_BUILDS.slice(0, 4)) {
    const build = demoBuild(name);
    const copy = structuredClone(build);
    for (const { id } of stagesOf(build))
      for (const ambient of ['day', 'night'] as const) {
        const first = drivenIn(build, { on: [id], ambient });
        expect(drivenIn(build, { on: [id], ambient })).toBe(first);
        expect(drivenIn(copy, { on: [id], ambient })).toEqual(first);
      }
  }
});
