import { expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { ruleSentence } from './registry.ts';

const build = demoBuild('ks-12');

test('a rule as a sentence', () => {
  const [pack] = build.rulePacks;
  const sentence = (id: string) => pack?.rules.filter((r) => r.id === id).map(ruleSentence)[0];
  expect(sentence('flash-rate')).toBe('Between 60 and 120 flashes a minute, in stage 1, 2, 3.');
  expect(sentence('white-rear')).toBe(
    'No white above 40 cd in all to the rear from warning lamps except reversing lamps that burn steadily, whatever stands open, in stage 1, 2, 3.',
  );
  expect(sentence('white-rear-at-speed')).toMatch(
    /from lamps of any kind .*, in stage 1, 2, 3, when speed is fast and gear is drive\.$/,
  );
  expect(sentence('floor-rear-open')).toBe(
    'At least 15000 cd·s/min from warning lamps at every bearing to the rear by night, with everything shut, the hatch open, in stage 1, 2, 3.',
  );
  const [rate] = pack?.rules.filter((r) => r.id === 'flash-rate') ?? [];
  expect(rate && ruleSentence({ ...rate, services: ['fire', 'ems'] })).toBe(
    'Between 60 and 120 flashes a minute, in stage 1, 2, 3 (Fire, EMS).',
  );
});
