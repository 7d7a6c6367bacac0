import fc from 'fast-check';
import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { changePlacement } from '../arrange/lamps.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { BEARINGS } from './field.ts';
import { fieldsOf, LampFields } from './lampFields.ts';

test('fields of a lamp are the same afresh, from memory, and after it moved away and back', () => {
  const build = demoBuild('ks-13');
  const lookup = lookupOf(build);
  fc.assert(
    fc.property(
      fc.constantFrom(...build.placements),
      fc.constantFrom<string[]>([], ['hatch'], ['door-front-left']),
      fc.constantFrom(0, 5),
      (p, open, elevation) => {
        const remembered = fieldsOf(build).of(p, open, elevation);
        const afresh = new LampFields(lookup, build.placements).of(p, open, elevation);
        for (const [i, field] of remembered.entries())
          for (let b = 0; b < BEARINGS; b += 7) expect(field.share[b]).toBe(afresh[i]?.share[b]);
        const there = changePlacement(build, p.id, { panDeg: p.panDeg + 20 });
        const back = changePlacement(there, p.id, { panDeg: p.panDeg });
        const again = back.placements.find((q) => q.id === p.id);
        if (again === undefined) throw new Error('the lamp is still there');
        expect(fieldsOf(back).of(again, open, elevation)).toEqual(remembered);
      },
    ),
    { numRuns: 25, seed: 43 },
  );
});
