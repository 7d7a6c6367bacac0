import { describe, expect, test } from 'vitest';
import { digestOf, documentsOf, DRIVEN } from '../../test/reference/older.ts';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { STAGE_IDS } from './usualControls.ts';

describe.each(Object.entries(DRIVEN))('the demo builds of %s', (schema, builds) => {
  const documents = documentsOf(schema);

  test.each(Object.entries(builds))('%s drives the same in every old state', (name, states) => {
    const build = readBuild(documents[name]);
    const now = Object.fromEntries(
      STAGE_IDS.flatMap((on, stage) =>
        !build.controls.functions.some(({ id }) => id === on)
          ? []
          : (['day', 'night'] as const).map((ambient) => [
              `${stage} ${ambient}`,
              digestOf(drivenIn(build, { on: [on], ambient })),
            ]),
      ),
    );
    expect(now).toEqual(states);
  });
});
