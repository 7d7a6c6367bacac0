import { expect, test, vi } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { checkBuild } from '../rules/check.ts';
import { verify } from './prove.ts';
import { ReachableSet, type Nearest } from './reachable.ts';

const car = demoBuild('ks-13');

test.each<[string, Nearest]>([
  ['does not happen', { depth: 1, events: [{ kind: 'arrives', input: 'gear', value: 'sideways' }] }],
  ['leads elsewhere', { depth: 0, events: [] }],
])('a counterexample that %s leaves its own question open, and no other', (_, wrong) => {
  const checked = checkBuild(car);
  const sound = verify(car, checked);
  const nearest = vi.spyOn(ReachableSet.prototype, 'nearest').mockReturnValueOnce(wrong);
  const { counts, outcomes } = verify(car, checked);
  nearest.mockRestore();
  expect(counts).toEqual(sound.counts);
  expect(outcomes).toHaveLength(sound.outcomes.length);
  const changed = outcomes.filter((one, i) => JSON.stringify(one) !== JSON.stringify(sound.outcomes[i]));
  expect(changed).toMatchObject([{ verdict: 'cannot tell', statesChecked: 0 }]);
  expect(changed[0]?.why).toContain(`could not be replayed`);
  expect(changed[0]?.why).toContain(JSON.stringify(wrong.events));
});
