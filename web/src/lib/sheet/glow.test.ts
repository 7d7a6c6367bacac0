import { describe, expect, test } from 'vitest';
import { drivenIn } from '@flarik/core/state/driven';
import { glowKey, glows } from './glow';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

describe('what lamps look like', () => {
  test('without a moment, all that the stage drives; at a moment, what is on then', () => {
    const drives = drivenIn(build, { on: ['stage-2'], ambient: 'day' });
    const all = glows(build, drives, null);
    expect(all.get(glowKey('grille', 'm1'))).toEqual({ colour: 'red', level: 1, driven: true, text: '' });
    expect(all.get(glowKey('scene', 'm1'))).toEqual({ colour: 'white', level: 0, driven: false, text: '' });
    // Double flash: phase A is on from 0 to 110 ms, phase B from 400 to 510.
    const at = (ms: number, id: string) => glows(build, drives, ms).get(glowKey(id, 'm1'))?.level;
    expect([at(50, 'grille'), at(50, 'grille-x'), at(450, 'grille'), at(450, 'grille-x')]).toEqual([
      1, 0, 0, 1,
    ]);
  });

  test('of two colours at once the stronger shows', () => {
    const drives = drivenIn(build, { on: ['stage-3'], ambient: 'day' });
    // The bar flashes white from 0 to 220 ms; red pulses end at 55.
    expect(glows(build, drives, 70).get(glowKey('bar', 'm1'))).toEqual({
      colour: 'white',
      level: 1,
      driven: true,
      text: '',
    });
  });
});
