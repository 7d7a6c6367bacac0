import { describe, expect, test } from 'vitest';
import { z } from 'zod';
import { digestOf, documentsOf, DRIVEN } from '../../test/reference/older.ts';
import { readBuild } from '../rules/document.ts';
import { drivenIn } from '../state/driven.ts';
import { migrate } from './migrate.ts';
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

test('ids of findings that were accepted keep what they are about apart', () => {
  const rules = [
    { id: 'a', kind: 'colour' },
    { id: 'b', kind: 'work-light' },
  ];
  const idsAfter = (...ids: string[]): unknown =>
    z
      .looseObject({ accepted: z.array(z.object({ id: z.string() })) })
      .parse(migrate({ rulePacks: [{ id: 'p', rules }], accepted: ids.map((id) => ({ id })) }, 14))
      .accepted.map(({ id }) => id);
  expect(
    idsAfter(
      'p|a|stage-1|hatch|day|rear/blue',
      'p|a|stage-1||day|left out: rear/blue',
      'p|b|always|left mean',
      'layout|overlap|always|x+y',
      'controls|labels|reached|left/right',
      'controls|left-on|reached|alley+scene',
      'layout|hole|always|x',
    ),
  ).toEqual([
    'p|a|stage-1|hatch|day|rear|blue',
    'p|a|stage-1||day|rear|blue|left out',
    'p|b|always|left|mean',
    'layout|overlap|always|x|y',
    'controls|labels|reached|left/right',
    'controls|left-on|reached|alley|scene',
    'layout|hole|always|x',
  ]);
});
