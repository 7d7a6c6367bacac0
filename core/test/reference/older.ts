import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { gunzipSync } from 'node:zlib';
import { z } from 'zod';
import type { Drive } from '../../src/resolve/channels.ts';

const older = (file: string): Buffer => readFileSync(new URL(`./older/${file}`, import.meta.url));

/** What the code of before functions drove: a digest for each schema, demo build of it, stage and light around. */
export const DRIVEN = z
  .record(z.string(), z.record(z.string(), z.record(z.string(), z.string())))
  .parse(JSON.parse(older('driven.json').toString()));

/** The demo builds as they were written in a schema, by name. */
export const documentsOf = (schema: string): Readonly<Record<string, unknown>> =>
  z.record(z.string(), z.unknown()).parse(JSON.parse(gunzipSync(older(`${schema}.json.gz`)).toString()));

/** Everything about what is driven but the function that drives it, which is new. */
export const digestOf = (drives: readonly Drive[]): string =>
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
