import { describe, expect, test } from 'vitest';
import { nameOf } from './names';
import { demoBuild } from '@flarik/core/test/reference/demo';

const build = demoBuild('ks-12');

describe('lamps in words', () => {
  test('by name or by number', () => {
    expect(nameOf(build, ['grille'])).toBe('Grille L');
    expect(nameOf(build, ['grille', 'wing'])).toBe('2 lamps');
    expect(nameOf(build, ['gone'])).toBe('lamp');
  });
});
