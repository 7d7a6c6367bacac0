import { describe, expect, test } from 'vitest';
import { addPlacement, changePlacement, removePlacements } from '@flarik/core/arrange/lamps';
import { removeFunction } from '@flarik/core/design/controlEdits';
import type { Build } from '@flarik/core/design/schema';
import type { Finding } from '@flarik/core/rules/finding';
import { demoBuild } from '@flarik/core/test/reference/demo';
import { editing, OPENED } from './editing.testing';

const open = editing();
const { build, savedAt } = OPENED;

const [first, second] = build.placements;
if (first === undefined || second === undefined) throw new Error('the car has lamps');
const turn =
  (panDeg: number) =>
  (b: Build): Build =>
    changePlacement(b, first.id, { panDeg });
const panOf = (b: Build): number | undefined => b.placements.find((p) => p.id === first.id)?.panDeg;

test('what is known is pending until the build as it is now is checked and verified', () => {
  const { editor } = open;
  const known = (of: Build) => ({ build: of, findings: [], outcomes: [] });
  const counts = { raw: '1', reachable: '1', pictures: '1', whole: true };
  expect(editor.pending).toBe('checking …');
  editor.check.answer = known(build);
  expect(editor.pending).toBe('verifying …');
  editor.proving.stopped = true;
  expect(editor.pending).toBe('not verified');
  editor.proving.stopped = false;
  editor.proving.answer = { ...known(build), counts };
  expect(editor.pending).toBeNull();
  editor.check.running = true;
  expect(editor.pending).toBe('checking …');
  editor.check.running = false;
  editor.edit('Turn it', turn(5));
  expect(editor.pending).toBe('checking …');
  editor.check.answer = known(editor.build);
  expect(editor.pending).toBe('verifying …');
  editor.check.error = new Error('no memory');
  expect(editor.pending).toBe('check failed');
});

test('the ring is known once it is that of what is looked at', () => {
  const { editor } = open;
  expect(editor.isRingKnown).toBe(false);
  const dark = new Float64Array(360);
  editor.ring.answer = { ring: { effectiveCd: dark, powerCdsPerMin: dark }, floor: dark, byBearing: [] };
  expect(editor.isRingKnown).toBe(true);
  editor.ring.running = true;
  expect(editor.isRingKnown).toBe(false);
  editor.ring.running = false;
  editor.dragging = true;
  expect(editor.isRingKnown).toBe(false);
  editor.dragging = false;
  editor.ring.error = new Error('no memory');
  expect(editor.isRingKnown).toBe(false);
});

describe('edits', () => {
  test('each is one step, and undo goes back to the very document', () => {
    const { editor } = open;
    editor.edit('Turn it', turn(5));
    const turned = editor.build;
    expect(panOf(turned)).toBe(5);
    expect([editor.undoLabel, editor.redoLabel]).toEqual(['Turn it', null]);
    editor.undo();
    expect(editor.build).toBe(build);
    expect([editor.undoLabel, editor.redoLabel]).toEqual([null, 'Turn it']);
    editor.redo();
    expect(editor.build).toBe(turned);
  });

  test('one that changes nothing leaves no step', () => {
    const { editor } = open;
    editor.edit('Nothing', (b) => b);
    expect(editor.undoLabel).toBeNull();
    expect(editor.build).toBe(build);
  });

  test('one lamp more than a build can have is refused, and nothing is changed', () => {
    const { editor } = open;
    const fill = (count: number) => (b: Build) => ({
      ...b,
      placements: Array.from({ length: count }, (_, i) => ({ ...first, id: `lamp-${i}` })),
    });
    editor.edit('Fill', fill(200));
    expect(editor.refusal).toBeNull();
    const full = editor.build;
    editor.edit('Add', fill(201));
    expect(editor.refusal).toBe('A build can have at most 200 lamps; this would make 201.');
    expect(editor.build).toBe(full);
    expect(editor.undoLabel).toBe('Fill');
    editor.edit('Remove', fill(199));
    expect(editor.refusal).toBeNull();
  });

  test('those of one key that follow each other are one step', () => {
    const { editor } = open;
    for (const panDeg of [1, 2, 3]) editor.edit('Turn it', turn(panDeg), 'turn');
    expect(panOf(editor.build)).toBe(3);
    editor.undo();
    expect(editor.build).toBe(build);
  });

  test('a lamp that is removed is not selected any more; those that stay are', () => {
    const { editor } = open;
    editor.select([first.id, second.id]);
    editor.edit('Remove', (b) => removePlacements(b, new Set([first.id])));
    expect([...editor.selection]).toEqual([second.id]);
    expect(editor.selected.map(({ id }) => id)).toEqual([second.id]);
    // What did not touch the selection leaves the one module that is edited alone.
    editor.select([second.id], 'm1');
    editor.edit('Turn it', (b) => changePlacement(b, second.id, { panDeg: 5 }));
    expect(editor.moduleId).toBe('m1');
  });

  test('what is on or open and is no more, is not looked at any more', () => {
    const { editor } = open;
    editor.setState({ on: ['stage-2', 'fog'], open: ['hatch'] });
    editor.edit('Remove', (b) => removeFunction(b, 'fog'));
    expect(editor.state.on).toEqual(['stage-2']);
    editor.edit('Another body', (b) => ({ ...b, vehicle: demoBuild('tunnel-pumper-3').vehicle }));
    expect(editor.state.open).toEqual([]);
    editor.undo();
    expect(editor.state.open).toEqual([]);
  });
});

describe('a drag', () => {
  test('is shown and not made; cancelled, nothing was', () => {
    const { editor } = open;
    editor.drag(turn(10));
    expect(panOf(editor.build)).toBe(10);
    expect(editor.dragging).toBe(true);
    editor.drag(turn(12));
    expect(panOf(editor.build)).toBe(12);
    editor.cancelDrag();
    expect(editor.build).toBe(build);
    expect(editor.dragging).toBe(false);
    expect(editor.undoLabel).toBeNull();
  });

  test('is one step from where it began', () => {
    const { editor } = open;
    editor.drag(turn(10));
    editor.drag(turn(12));
    editor.edit('Turn it', turn(15));
    expect(panOf(editor.build)).toBe(15);
    expect(editor.dragging).toBe(false);
    editor.undo();
    expect(editor.build).toBe(build);
  });

  test('that ends where it began leaves no step', () => {
    const { editor } = open;
    editor.drag(turn(10));
    editor.edit('Turn it', (b) => b);
    expect(editor.build).toBe(build);
    expect(editor.undoLabel).toBeNull();
  });
});

describe('an earlier revision', () => {
  const earlier = { build: turn(45)(build), version: 1, savedAt };

  test('is looked at, and nothing can be changed meanwhile', () => {
    const { editor } = open;
    editor.edit('Turn it', turn(5));
    const mine = editor.build;
    editor.lookAt(earlier);
    expect(panOf(editor.build)).toBe(45);
    expect(editor.current).toBe(mine);
    editor.edit('Turn it', turn(7));
    editor.drag(turn(8));
    editor.undo();
    expect(panOf(editor.build)).toBe(45);
    editor.backToNow();
    expect(editor.build).toBe(mine);
    expect(editor.past).toBeNull();
    editor.undo();
    expect(editor.build).toBe(build);
  });

  test('is restored as an edit that can be undone', () => {
    const { editor } = open;
    editor.lookAt(earlier);
    editor.lookAt({ ...earlier, version: 2 });
    editor.restorePast();
    expect(editor.build).toBe(earlier.build);
    expect(editor.undoLabel).toBe('Restore revision 2');
    editor.undo();
    expect(editor.build).toBe(build);
    // Where none is looked at there is none to restore.
    editor.restorePast();
    expect(editor.undoLabel).toBeNull();
  });
});

describe('what is looked at', () => {
  test('what stands open is one set as long as it is the same', () => {
    const { editor } = open;
    editor.setState({ open: ['hatch'] });
    const before = editor.open;
    editor.setState({ open: ['hatch'], ambient: 'night' });
    expect(editor.open).toBe(before);
    editor.setState({ open: [] });
    expect(editor.open).not.toBe(before);
    expect([...editor.open]).toEqual([]);
  });

  test('a part goes from stop to stop and back to shut', () => {
    const { editor } = open;
    const [part] = editor.vehicle.parts;
    if (part === undefined) throw new Error('the car has doors');
    for (const stop of part.stops) {
      editor.moveOn(part.id);
      expect(editor.state.open).toEqual([stop.id]);
    }
    editor.moveOn(part.id);
    expect(editor.state.open).toEqual([]);
  });

  test('functions come beside others; stages by number are looked at alone', () => {
    const { editor } = open;
    editor.lookAtFunction('stage-2');
    editor.toggleOn('fog');
    expect(editor.state.on).toEqual(['stage-2', 'fog']);
    expect([editor.stageOn, editor.looked]).toEqual(['stage-2', 'stage-2']);
    editor.toggleOn('stage-2');
    expect(editor.state.on).toEqual(['fog']);
    expect([editor.stageOn, editor.looked]).toEqual([null, 'fog']);
    expect(() => editor.lookAtFunction('no-such')).toThrow(RangeError);
    editor.setAmbient('night');
    expect(editor.state.ambient).toBe('night');
  });

  test('a finding: its lamps, its state, the middle of its bearings, also round straight ahead', () => {
    const { editor } = open;
    const finding: Finding = {
      outcome: 'fails',
      subjects: [],
      id: 'p|r|front',
      packId: 'p',
      packName: 'P',
      ruleId: 'r',
      kind: 'power-floor',
      home: 'timing',
      severity: 'warns',
      clause: '1',
      sentence: 'Too little.',
      figure: null,
      limits: [],
      evidence: {
        state: { on: ['stage-3'], open: ['hatch'], ambient: 'night' },
        channels: [
          { placementId: first.id, moduleId: 'a', slot: 1 },
          { placementId: first.id, moduleId: 'b', slot: 1 },
        ],
        sectors: [{ fromDeg: 350, toDeg: 20 }],
        steps: [],
      },
    };
    editor.show(finding);
    expect([...editor.selection]).toEqual([first.id]);
    expect(editor.state).toEqual({ on: ['stage-3'], open: ['hatch'], ambient: 'night' });
    expect([editor.bearing, editor.shownFindingId]).toEqual([5, 'p|r|front']);
    editor.clearShown();
    expect([editor.marked, editor.shownFindingId]).toEqual([[], null]);
  });

  test('before and after: what is only planned was not there before', () => {
    const { editor } = open;
    expect(editor.isBefore).toBe(false);
    editor.edit('What was there', (b) =>
      changePlacement(
        addPlacement(b, { id: 'new', fixtureId: first.fixtureId, zoneId: first.zoneId, uM: 0, vM: 0 }),
        second.id,
        { status: 'removed' },
      ),
    );
    editor.when = 'before';
    expect(editor.isBefore).toBe(true);
    const statusOf = (b: Build, id: string) => b.placements.find((p) => p.id === id)?.status;
    expect(statusOf(editor.seen, second.id)).not.toBe('removed');
    expect(editor.current).toBe(editor.build);
  });
});
