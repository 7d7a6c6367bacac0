import { changeStage } from '../../test/reference/places.ts';
import { describe, expect, test } from 'vitest';
import { addPartner, changePlacement, mirrorBuild, removePlacements } from '../arrange/lamps.ts';
import { changeBrief } from './briefEdits.ts';
import { applyDelta, deltaOf } from './delta.ts';
import { changeBuild } from './moduleEdits.ts';
import { addGroup, removeGroup } from './timingEdits.ts';
import type { Build } from './schema.ts';
import { demoBuild } from '../../test/reference/demo.ts';

const before = demoBuild('ks-12');
const first = before.placements[0]?.id ?? '';
const EDITS: readonly [string, (b: Build) => Build][] = [
  ['nothing', (b) => b],
  ['a name', (b) => changeBuild(b, { name: 'Other' })],
  ['a lamp moved', (b) => changePlacement(b, first, { uM: 0.01 })],
  ['a lamp taken out', (b) => removePlacements(b, new Set([first]))],
  ['all mirrored', mirrorBuild],
  ['a partner', (b) => addPartner(b, b.placements.find((p) => p.partnerId === null)?.id ?? '', 'new-1')],
  ['a group added', (b) => addGroup(b, { id: 'fresh', name: 'Fresh' })],
  ['a group removed', (b) => removeGroup(b, b.timing.groups[0]?.id ?? '')],
  ['a stage', (b) => changeStage(b, 2, { nightLevel: 0.3 })],
  ['the brief', (b) => changeBrief(b, { agency: 'Dunmarrow' })],
  ['lamps in another order', (b) => ({ ...b, placements: b.placements.toReversed() })],
  ['another build', () => demoBuild('ferry-slip')],
];

describe('an edit sent as what changed', () => {
  test.each(EDITS)('%s: comes to the same document, also after a copy', (_, edit) => {
    const after = edit(before);
    const delta = structuredClone(deltaOf(before, after));
    expect(applyDelta(before, delta)).toEqual(after);
  });

  test('what the edit leaves alone is the same object as before', () => {
    const moved = changePlacement(before, first, { uM: 0.01 });
    const here = applyDelta(before, structuredClone(deltaOf(before, moved)));
    expect(here.vehicle).toBe(before.vehicle);
    expect(here.timing).toBe(before.timing);
    expect(here.rulePacks).toBe(before.rulePacks);
    const same = here.placements.filter((p, i) => p === before.placements[i]).length;
    expect(same).toBeGreaterThanOrEqual(before.placements.length - 2);
  });

  test('is small: a moved lamp does not carry the vehicle along', () => {
    const moved = changePlacement(before, first, { uM: 0.01 });
    expect(JSON.stringify(deltaOf(before, moved)).length).toBeLessThan(JSON.stringify(before).length / 10);
    expect(applyDelta(before, deltaOf(before, before))).toBe(before);
  });
});
