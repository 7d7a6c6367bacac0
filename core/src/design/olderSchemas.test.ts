import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { STAGE_IDS } from './usualControls.ts';

const older = (file: string): Buffer =>
  readFileSync(new URL(`../../test/reference/older/${file}`, import.meta.url));

/** What the code of before functions drove: a digest for each demo build of each schema, stage and light around. */
const DRIVEN = z
  .record(z.string(), z.record(z.string(), z.record(z.string(), z.string())))
  .parse(JSON.parse(older('driven.json').toString()));

/** Everything about what is driven but the function that drives it, which is new. */
const digest = (drives: ReturnType<typeof drivenIn>): string =>
  createHash('sha256')
    .update(
      JSON.stringify(
        drives.map((d) => [
          d.channelId,
          d.colour,
          d.clockId,
          d.patternId,
          d.cycleMs,
          d.spans.map((s) => [s.fromMs, s.toMs, s.level, s.endLevel ?? null]),
          d.peakCd.toPrecision(10),
          d.currentA.toPrecision(10),
        ]),
      ),
    )
    .digest('hex')
    .slice(0, 16);

describe.each(Object.entries(DRIVEN))('the demo builds of %s', (schema, builds) => {
  const documents = z
    .record(z.string(), z.unknown())
    .parse(JSON.parse(gunzipSync(older(`${schema}.json.gz`)).toString()));

  test.each(Object.entries(builds))('%s drives the same in every old state', (name, states) => {
    const build = readBuild(documents[name]);
    const now = Object.fromEntries(
      STAGE_IDS.flatMap((on, stage) =>
        (['day', 'night'] as const).map((ambient) => [
          `${stage} ${ambient}`,
          digest(drivenIn(build, { on: [on], ambient })),
        ]),
      ),
    );
    expect(now).toEqual(states);
  });
});
