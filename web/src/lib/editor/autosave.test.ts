import { expect, test } from 'vitest';
import { changesText } from './autosave.svelte';

test('what changed in one line: each kind of change once, and no longer than is stored', () => {
  expect(changesText(['Move Grille L', 'Move Grille L', 'Delete Roof'])).toBe('Move Grille L; Delete Roof');
  const many = changesText(Array.from({ length: 60 }, (_, i) => `Move lamp ${i}`));
  expect(many).toHaveLength(200);
  expect(many).toMatch(/^Move lamp 0; Move lamp 1;.*…$/);
});
