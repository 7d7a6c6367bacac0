import { describe, expect, test } from 'vitest';
import { mayFollow, timeOf, type Follower } from './clock.ts';
import { speedNumber } from './recipes/speed.ts';

const clock = (id: string, followsId: string | null, speedPercent = 100, offsetMs = 0): Follower => ({
  id,
  followsId,
  speedPercent,
  offsetMs,
});
const at = (groups: readonly Follower[], id: string) => {
  const { rootId, speed, offsetMs } = timeOf(groups, id);
  return [rootId, speedNumber(speed), offsetMs];
};

describe('a group’s own time', () => {
  const chain = [
    clock('a', null, 100, 30),
    clock('b', 'a', 50, 200),
    clock('c', 'b', 80, 7),
    clock('d', null, 20),
  ];
  test('speeds multiply and offsets add, up to the root', () => {
    expect(at(chain, 'a')).toEqual(['a', 1, 30]);
    expect(at(chain, 'b')).toEqual(['a', 0.5, 230]);
    expect(at(chain, 'c')).toEqual(['a', 0.4, 237]);
    expect(at(chain, 'd')).toEqual(['d', 0.2, 0]);
  });
  test('one that is not there runs as it is; so does one whose leader is not there', () => {
    expect(at(chain, 'x')).toEqual(['x', 1, 0]);
    expect(at([clock('b', 'gone', 50, 200)], 'b')).toEqual(['gone', 0.5, 200]);
  });
  test('a chain that bites its tail ends there, each link counted once', () => {
    const ring = [clock('a', 'b', 50, 10), clock('b', 'a', 50, 5)];
    expect(at(ring, 'a')).toEqual(['a', 0.25, 15]);
  });
});

test('a group may follow any that does not run on it', () => {
  const groups = [clock('a', null), clock('b', 'a'), clock('c', 'b')];
  expect(mayFollow(groups, 'a', 'a')).toBe(false);
  expect(mayFollow(groups, 'a', 'c')).toBe(false);
  expect(mayFollow(groups, 'c', 'a')).toBe(true);
  expect(mayFollow(groups, 'd', 'c')).toBe(true);
  // A ring among others leads nowhere.
  expect(mayFollow([clock('x', 'y'), clock('y', 'x')], 'a', 'x')).toBe(false);
});
