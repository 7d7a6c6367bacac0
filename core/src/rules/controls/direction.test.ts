import { expect, test } from 'vitest';
import { addOwn } from '../../arrange/vehicleEdits.ts';
import { emptyBuild, ofKind, ownZone, put } from '../../../test/reference/places.ts';
import { changeEffect } from '../../design/controlEdits.ts';
import { groupTarget, lightCue } from '../../design/functions.ts';
import { changeModules } from '../../design/moduleEdits.ts';
import { addPattern } from '../../design/patternEdits.ts';
import type { Build } from '../../design/schema.ts';
import { addGroup } from '../../design/timingEdits.ts';
import type { Pattern } from '../../timing/pattern.ts';

/** Five single heads in a row on the rear bumper, numbered from the left, in a group that shows a pattern. */
function row(patternId: string, orders: readonly number[], more: readonly Pattern[] = []): Build {
  const placed = orders.reduce<Build>(
    (b, _, i) => put(b, `h${i}`, { zone: 'rear-bumper', uM: -0.5 + 0.25 * i }),
    more.reduce(addPattern, emptyBuild()),
  );
  const lamps = placed.placements;
  const grouped = orders.reduce<Build>(
    (b, order, i) =>
      changeModules(
        b,
        (lamps[i]?.modules ?? []).map((m) => ({ placementId: `h${i}`, moduleId: m.id })),
        { groupId: 'g', order },
      ),
    addGroup(placed, { id: 'g', name: 'G' }),
  );
  return changeEffect(grouped, 'stage-2', { cues: [lightCue(groupTarget('g'), 1, patternId)] });
}
const said = (build: Build): string[] => ofKind(build, 'direction').map((f) => f.sentence);

/** Which way u grows on that zone, seen from behind, is the zone's own affair: one of the two orders is right. */
const up = [1, 2, 3, 4, 5];
const down = up.toReversed();

test('a row numbered from the left sweeps as declared, either way; one numbered from the right does not', () => {
  const right = [up, down].map((orders) => said(row('sweep', orders)).length);
  expect(right.toSorted((a, b) => a - b)).toEqual([0, 1]);
  expect([up, down].map((orders) => said(row('sweep-back', orders)).length)).toEqual(right);
});

test('from the middle needs a row of its own length: a pattern for eight heads on five is told', () => {
  expect(said(row('centre-out', up))).toEqual([
    'Stage 2: “Centre-out” must move centre-out, seen from behind. On a row of 5 lamps it does not.',
  ]);
  const five: Pattern = {
    kind: 'row',
    id: 'five',
    name: 'Five',
    direction: 'from the middle',
    move: 'middle-out',
    heads: 5,
    stepMs: 100,
    show: 'hold',
    holdMs: 100,
    restMs: 100,
  };
  expect(said(row('five', up, [five]))).toEqual([]);
  // Beside the middle of the vehicle it is the middle of the row that counts.
  const aside = row('five', up, [five]);
  const placements = aside.placements.map((p) => ({ ...p, uM: p.uM / 3 + 0.3 }));
  expect(said({ ...aside, placements })).toEqual([]);
  expect(said(row('five', [1, 1, 1, 1, 1], [five]))).toEqual([
    'Stage 2: “Five” must move centre-out, seen from behind. On a row of 5 lamps it lights everywhere at once.',
  ]);
});

test('a pattern that declares no way is never judged', () =>
  expect(said(row('every-other', down))).toEqual([]));

test('a pattern shown at night alone is looked at too, and told once', () => {
  const night = changeEffect(row('every-other', up), 'stage-2', {
    cues: [lightCue(groupTarget('g'), 1, 'every-other', { nightPatternId: 'centre-out' })],
  });
  const found = ofKind(night, 'direction');
  expect(found.map((f) => f.evidence.state?.ambient)).toEqual(['night']);
  expect(ofKind(row('centre-out', up), 'direction').map((f) => f.evidence.state?.ambient)).toEqual(['day']);
});

test('a lamp of several heads is a row by itself, and is named', () => {
  const stick = put(emptyBuild(), 'stick', { fixture: 'stick-6', zone: 'rear-bumper' });
  const heads = stick.placements.flatMap((p) => p.modules);
  const turned = (orders: readonly number[]): Build =>
    heads.reduce<Build>(
      (b, { id }, i) =>
        changeModules(b, [{ placementId: 'stick', moduleId: id }], { groupId: 'g', order: orders[i] ?? 1 }),
      addGroup(stick, { id: 'g', name: 'G' }),
    );
  const sweep = (orders: readonly number[]): string[] =>
    said(changeEffect(turned(orders), 'stage-2', { cues: [lightCue(groupTarget('g'), 1, 'sweep')] }));
  const all = heads.map((_, i) => i + 1);
  expect([...sweep(all), ...sweep(all.toReversed())]).toEqual([
    'Stage 2: “Sweep to the right” must move to the right, seen from behind. On "Rear bumper" it does not.',
  ]);
});

test('a row more along than across the vehicle has no left and right', () => {
  const across = ownZone({ id: 'own', face: 'rear', facing: 'rear', centre: [-2.4, 0, 0.8], widthM: 1.4 });
  const told = (panDeg: number): number => {
    const built = addOwn(emptyBuild(), 'zones', [{ ...across, panDeg }]);
    const { placements, timing, controls } = row('sweep', up);
    const on = placements.map((p) => ({ ...p, zoneId: 'own' }));
    const numbered = (orders: readonly number[]) =>
      on.map((p, i) => ({ ...p, modules: p.modules.map((m) => ({ ...m, order: orders[i] ?? 1 })) }));
    return [up, down].flatMap((orders) => said({ ...built, timing, controls, placements: numbered(orders) }))
      .length;
  };
  expect([0, 40, 50].map(told)).toEqual([1, 1, 0]);
});

test('heads a finger apart across the vehicle stand in one place of the row', () => {
  // The second and third change places by so much; by more than 20 mm the row runs back between them.
  const swapped = (byM: number): Build => {
    const built = row('sweep', up);
    const at = [-0.5, -0.25, -0.25 - byM, 0.25, 0.5];
    return { ...built, placements: built.placements.map((p, i) => ({ ...p, uM: at[i] ?? 0 })) };
  };
  const orders = said(row('sweep', up)).length === 0 ? up : down;
  const told = (byM: number): number =>
    said({
      ...swapped(byM),
      placements: swapped(byM).placements.map((p, i) => ({
        ...p,
        modules: p.modules.map((m) => ({ ...m, order: orders[i] ?? 1 })),
      })),
    }).length;
  expect([0, 0.015, 0.025].map(told)).toEqual([0, 0, 1]);
});

test('heads one above another have no left and right', () => {
  const pillar = (spreadM: number): number =>
    [up, down].flatMap((orders) => {
      const built = row('sweep', orders);
      const placements = built.placements.map((p, i) => ({ ...p, uM: (spreadM * (i - 2)) / 4, vM: i / 100 }));
      return said({ ...built, placements });
    }).length;
  expect([0.019, 0.1].map(pillar)).toEqual([0, 1]);
});

test('a single head has no way to run', () =>
  expect([said(row('sweep', [1])), said(row('sweep-back', [1]))]).toEqual([[], []]));
