import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { digestOf, documentsOf, DRIVEN } from '../../test/reference/older.ts';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { STAGE_IDS } from './usualControls.ts';

describe.each(Object.entries(DRIVEN))('the demo builds of %s', (schema, builds) => {
  const documents = documentsOf(schema);

  test.each(Object.entries(builds))('%s drives the same in every old state', (name, states) => {
    const build = readBuild(documents[name]);
    // Before functions a stage was told by its number.
    const now = Object.fromEntries(
      Object.keys(states).map((key) => {
        const [on = '', ambient] = key.split(' ');
        const id = STAGE_IDS[Number(on)] ?? on;
        return [key, digestOf(drivenIn(build, { on: [id], ambient: ambient === 'night' ? 'night' : 'day' }))];
      }),
    );
    const stages = STAGE_IDS.filter((id) => build.controls.functions.some((fn) => fn.id === id));
    expect(Object.keys(now).length).toBeGreaterThanOrEqual(2 * stages.length);
    expect(now).toEqual(states);
  });
});

const LampsOf = z.array(
  z.looseObject({ rules: z.array(z.looseObject({ kind: z.string(), lamps: z.string().optional() })) }),
);
/** What the rules of a kind in the packs of a schema's demo builds say of the lamps that count. */
const lampsSaid = (schema: string, kind: string): Set<string | undefined> =>
  new Set(
    Object.values(documentsOf(schema)).flatMap((data) =>
      LampsOf.parse(readBuild(data).rulePacks).flatMap(({ rules }) =>
        rules.filter((rule) => rule.kind === kind).map(({ lamps }) => lamps),
      ),
    ),
  );

test('a rule of before lamps could be left out counts them all, as it did; later ones as they say', () => {
  for (const schema of ['schema-1', 'schema-2', 'schema-3'])
    for (const kind of ['white-rear', 'colour'])
      expect(lampsSaid(schema, kind), schema).toEqual(new Set(['all']));
  expect(lampsSaid('schema-11', 'white-rear')).not.toEqual(new Set(['all']));
});
