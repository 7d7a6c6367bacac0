import { expect, test } from 'vitest';
import { demoBuild } from '../../../test/reference/demo.ts';
import { ofKind } from '../../../test/reference/places.ts';
import { changeFunction } from '../../design/controlEdits.ts';

test('a trial that comes out otherwise is found, by the functions that differ', () => {
  const car = demoBuild('ks-13');
  expect(ofKind(car, 'trial')).toEqual([]);
  const changed = changeFunction(car, 'fog', { when: { way: 'always' } });
  const found = ofKind(changed, 'trial');
  expect(found.map((f) => [f.home, f.severity, f.sentence])).toEqual([
    ['controls', 'warns', 'Test “The slide brings its stage” fails: Fog cancel is also on.'],
    ['controls', 'warns', 'Test “The hatch supplement stays 5 s” fails: Fog cancel is also on.'],
  ]);
});
