import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { emptyBuild, ofKind, put } from '../../test/reference/places.ts';
import { addOwn, changeSurvey } from '../arrange/vehicleEdits.ts';
import { aimFrame } from '../geometry/frame.ts';
import { boundsOf } from '../geometry/solid.ts';
import { dot, length, sub } from '../geometry/vec.ts';
import { readBuild } from '../rules/document.ts';
import { FACTORY_FUNCTIONS } from '../words/factoryFunction.ts';
import { BODY_TYPES } from './bodies/bodyTypes.ts';
import { FACINGS } from './measures.ts';
import { defaultSpec, type Equipment } from './spec.ts';
import { asFound, EMPTY_SURVEY, type AddedLamp, type SurveyedLamp } from './survey.ts';
import { openingZoneId, tieZoneId } from './tieIn.ts';
import { bodyKeepOuts, vehicleOf } from './vehicle.ts';

const bodies = BODY_TYPES.map(({ id }) => id);
const surveyOf = (bodyType: string, survey: Partial<typeof EMPTY_SURVEY>) =>
  vehicleOf({ ...defaultSpec(bodyType), survey: { ...EMPTY_SURVEY, ...survey } });

test.each(bodies)(
  '%s: a lamp found just where it stands keeps its place, size, aim and its mirror image',
  (body) => {
    const before = vehicleOf(defaultSpec(body));
    const lamps = Object.fromEntries(before.factoryLamps.map((lamp) => [lamp.id, asFound(lamp)]));
    const after = surveyOf(body, { lamps });
    for (const [i, lamp] of before.factoryLamps.entries()) {
      const found = after.factoryLamps[i];
      expect(found?.id).toBe(lamp.id);
      if (found === undefined) continue;
      expect(length(sub(found.aim, lamp.aim))).toBeLessThan(1e-6);
      for (const axis of [0, 1, 2] as const) {
        const middle = (outline: typeof lamp.outline) =>
          outline.reduce((sum, p) => sum + p[axis], 0) / outline.length;
        expect(middle(found.outline)).toBeCloseTo(middle(lamp.outline), 6);
      }
    }
    const zoneIds = (vehicle: typeof before) => vehicle.zones.map(({ id, mirrorId }) => `${id} ${mirrorId}`);
    expect(zoneIds(after)).toEqual(zoneIds(before));
  },
);

const found: fc.Arbitrary<SurveyedLamp> = fc.record({
  does: fc.constantFrom(...FACTORY_FUNCTIONS),
  middle: fc.tuple(
    fc.double({ min: -3, max: 3, noNaN: true }),
    fc.double({ min: -1, max: 1, noNaN: true }),
    fc.double({ min: 0.2, max: 2.5, noNaN: true }),
  ),
  widthM: fc.double({ min: 0.02, max: 1, noNaN: true }),
  heightM: fc.double({ min: 0.02, max: 1, noNaN: true }),
  facing: fc.constantFrom(...FACINGS),
  panDeg: fc.double({ min: -30, max: 30, noNaN: true }),
  tiltDeg: fc.double({ min: -30, max: 30, noNaN: true }),
});

test('a lamp shines from where it was measured, the way it was measured, and reads back the same', () => {
  fc.assert(
    fc.property(found, (at) => {
      const lamp = surveyOf('mid-suv', { lamps: { 'head-left': at } }).factoryLamps.find(
        ({ id }) => id === 'head-left',
      );
      if (lamp === undefined) throw new Error('the lamp is gone');
      expect(lamp.does).toBe(at.does);
      // The plain way: turned by hand from straight out of the body.
      const straight = {
        front: [1, 0, 0],
        rear: [-1, 0, 0],
        left: [0, 1, 0],
        right: [0, -1, 0],
        top: [0, 0, 1],
        under: [0, 0, -1],
      } as const;
      const up = at.facing === 'top' || at.facing === 'under' ? ([1, 0, 0] as const) : ([0, 0, 1] as const);
      const { right } = aimFrame(straight[at.facing], up);
      const rad = Math.PI / 180;
      expect(dot(lamp.aim, up)).toBeCloseTo(Math.sin(at.tiltDeg * rad), 6);
      expect(dot(lamp.aim, right)).toBeCloseTo(Math.sin(at.panDeg * rad) * Math.cos(at.tiltDeg * rad), 6);
      const [a, b, c] = lamp.outline;
      if (a === undefined || b === undefined || c === undefined) throw new Error('no lens');
      expect(length(sub(b, a))).toBeCloseTo(at.widthM, 6);
      expect(length(sub(c, b))).toBeCloseTo(at.heightM, 6);
      const again = asFound(lamp);
      // Turned far enough, another face is nearer.
      expect(again.facing).toBe(at.facing);
      expect(again.panDeg).toBeCloseTo(at.panDeg, 6);
      expect(again.tiltDeg).toBeCloseTo(at.tiltDeg, 6);
      expect(again.middle.every((v, i) => Math.abs(v - (at.middle[i] ?? 0)) < 1e-9)).toBe(true);
    }),
    { numRuns: 100, seed: 7 },
  );
});

const marker: AddedLamp = {
  id: 'lamp-1',
  name: 'Roof clearance lamp',
  partId: null,
  does: 'marker',
  middle: [1, 0, 1.9],
  widthM: 0.08,
  heightM: 0.03,
  facing: 'front',
  panDeg: 0,
  tiltDeg: 0,
};

describe('a lamp that the body type does not have', () => {
  const build = changeSurvey(emptyBuild(), { addedLamps: [marker] });

  test('can be tied in where somebody allows it, and leaves an opening when it is taken out', () => {
    expect(vehicleOf(build.vehicle).zones.some(({ id }) => id === tieZoneId('lamp-1'))).toBe(false);
    const allowed = changeSurvey(build, { mayTie: { 'lamp-1': true } });
    expect(vehicleOf(allowed.vehicle).zones.find(({ id }) => id === tieZoneId('lamp-1'))?.n).toEqual([
      1, 0, 0,
    ]);
    const out = changeSurvey(build, { removedLamps: ['lamp-1'] });
    expect(vehicleOf(out.vehicle).factoryLamps.some(({ id }) => id === 'lamp-1')).toBe(false);
    expect(vehicleOf(out.vehicle).zones.find(({ id }) => id === openingZoneId('lamp-1'))?.name).toBe(
      'Opening of the roof clearance lamp',
    );
  });

  test('on a part that another body does not have it lies on the body', () => {
    const carried = changeSurvey(emptyBuild(), { addedLamps: [{ ...marker, partId: 'hatch' }] });
    expect(() => readBuild({ ...carried })).not.toThrow();
    const lost = {
      ...carried,
      vehicle: {
        ...carried.vehicle,
        bodyType: 'pickup',
        dimensions: defaultSpec('pickup').dimensions,
        options: [],
      },
    };
    expect(() => readBuild(lost)).toThrow(/survey.addedLamps\[0\].partId: no moving part 'hatch'/);
  });

  test('has a name of its own', () => {
    const twice = changeSurvey(emptyBuild(), { addedLamps: [{ ...marker, id: 'head-left' }] });
    expect(() => readBuild(twice)).toThrow(/addedLamps\[0\].id: 'head-left' is a lamp already/);
  });
});

describe('keep-outs', () => {
  // A lamp in the way of each keep-out of the body, on a zone of one's own in its middle.
  const [keepOut] = bodyKeepOuts(defaultSpec('mid-suv'));
  const bounds = boundsOf(keepOut === undefined ? [] : [keepOut.solid]);
  if (keepOut === undefined || bounds === null) throw new Error('no keep-out');
  const { low, high } = bounds;
  const middle: [number, number, number] = [
    (low[0] + high[0]) / 2,
    (low[1] + high[1]) / 2,
    (low[2] + high[2]) / 2,
  ];
  const zoned = addOwn(emptyBuild(), 'zones', [
    {
      id: 'own-1',
      name: 'In the way',
      face: 'front',
      facing: 'front',
      panDeg: 0,
      tiltDeg: 0,
      partId: null,
      mount: 'panel',
      fixings: ['bracket'],
      centre: middle,
      widthM: 0.2,
      heightM: 0.1,
      singleWall: false,
      behind: 'Test',
      behindM: null,
      outM: null,
    },
  ]);
  const inTheWay = put(zoned, 'a', { zone: 'own-1' });
  const kept = (build: typeof inTheWay) => ofKind(build, 'keep-out').length;
  const noted = (build: typeof inTheWay) => ofKind(build, 'lifted').map(({ sentence }) => sentence);

  test('one that is lifted or moved away stops nobody, and is told with its reason', () => {
    expect(kept(inTheWay)).toBe(1);
    expect(noted(inTheWay)).toEqual([]);
    const lifted = changeSurvey(inTheWay, {
      keepOuts: { [keepOut.id]: { box: null, reason: 'Not fitted on this vehicle.' } },
    });
    expect(kept(lifted)).toBe(0);
    expect(noted(lifted)).toEqual([
      expect.stringMatching(
        /^Keep-out Hatch latch \(latch\), lifted in the survey: Not fitted on this vehicle\./,
      ),
    ]);
    const away = changeSurvey(inTheWay, {
      keepOuts: { [keepOut.id]: { box: { from: [9, 0, 0], to: [9.1, 0.1, 0.1] }, reason: 'Moved' } },
    });
    expect(kept(away)).toBe(0);
    expect(noted(away)).toEqual([
      expect.stringMatching(/^Keep-out Hatch latch \(latch\), moved or cut in the survey: Moved\./),
    ]);
    expect(readBuild({ ...lifted }).vehicle).toEqual(lifted.vehicle);
  });

  test('no lifting without a reason', () => {
    const unsaid = changeSurvey(inTheWay, { keepOuts: { [keepOut.id]: { box: null, reason: '' } } });
    expect(() => readBuild(unsaid)).toThrow(/survey\.keepOuts\..*\.reason: must not be empty/);
  });

  test('what is found of a body is listed whole, whatever is lifted', () => {
    const lifted = changeSurvey(inTheWay, { keepOuts: { [keepOut.id]: { box: null, reason: 'Not there' } } });
    expect(bodyKeepOuts(lifted.vehicle)).toEqual(bodyKeepOuts(inTheWay.vehicle));
  });
});

test('equipment keeps lamps out of its place and hides light behind it', () => {
  const speaker: Equipment = {
    id: 'own-9',
    name: 'Siren speaker',
    kind: 'siren speaker',
    from: [0, -0.2, 0],
    to: [0, 0.2, 0],
    loadA: 8,
    transmission: 0,
  };
  const lamp = put(emptyBuild(), 'a', { zone: 'grille' });
  const zone = vehicleOf(lamp.vehicle).zones.find(({ id }) => id === 'grille');
  if (zone === undefined) throw new Error('no grille');
  const [x, y, z] = zone.centre;
  const over = addOwn(lamp, 'equipment', [
    { ...speaker, from: [x - 0.05, y - 0.1, z - 0.1], to: [x + 0.02, y + 0.1, z + 0.1] },
  ]);
  expect(ofKind(over, 'keep-out')[0]?.sentence).toContain('keep-out: Siren speaker');
  const before = addOwn(lamp, 'equipment', [
    { ...speaker, from: [x + 0.15, y - 0.4, z - 0.4], to: [x + 0.3, y + 0.4, z + 0.4] },
  ]);
  expect(ofKind(lamp, 'blocked')).toEqual([]);
  expect(ofKind(before, 'blocked')).toHaveLength(1);
});
