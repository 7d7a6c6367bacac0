import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../../test/reference/demo.ts';
import { emptyBuild, ofKind, put } from '../../../test/reference/places.ts';
import { addOwn } from '../../arrange/vehicleEdits.ts';
import { convexOf, overlapDepthM } from '../../geometry/overlap.ts';
import { moveSolid } from '../../geometry/solid.ts';
import { lookupOf } from '../../resolve/lookup.ts';
import { placeFixture } from '../../resolve/place.ts';
import { motionOf, zoneOf } from '../../vehicle/vehicle.ts';
import { keepOutFaults } from './keepOut.ts';
import { TOUCH_M } from '../../resolve/housing.ts';
import { LayoutSubject } from './subject.ts';

describe('keep-outs', () => {
  const beforeGrille = (gapM: number) => {
    const build = put(emptyBuild(), 'a', { zone: 'grille', uM: 0.3 });
    const zone = zoneOf(lookupOf(build).vehicle, 'grille');
    const [x, y, z] = zone.centre;
    // The head is 24 mm deep; the box begins this far before the grille.
    return addOwn(build, 'keepOuts', [
      {
        id: 'own-radar',
        name: 'Distance radar',
        kind: 'radar',
        from: [x + gapM, y + 0.25, z - 0.05],
        to: [x + gapM + 0.4, y + 0.35, z + 0.05],
      },
    ]);
  };
  test('a head that reaches 4 mm into one is found, one that ends before it is not', () => {
    const [finding] = ofKind(beforeGrille(0.02), 'keep-out');
    expect(finding?.figure?.value).toBeCloseTo(4, 6);
    expect(finding?.sentence).toBe('Grille L: 4 mm inside a keep-out: Distance radar (radar).');
    expect(ofKind(beforeGrille(0.025), 'keep-out')).toEqual([]);
  });
  test('a lamp that a hatch carries into one is told in that pose, and one that stands there once', () => {
    const build = put(put(emptyBuild(), 'a', { zone: 'hatch-panel-left' }), 'b', { zone: 'grille' });
    const where = (pose: readonly string[], id: string) => {
      const p = build.placements.find((one) => one.id === id);
      if (p === undefined) throw new Error(id);
      return placeFixture(lookupOf(build), p, new Set(pose)).base;
    };
    const round = (id: string, [x, y, z]: readonly [number, number, number]) => ({
      id,
      name: id,
      kind: 'other' as const,
      from: [x - 0.1, y - 0.1, z - 0.1] as [number, number, number],
      to: [x + 0.1, y + 0.1, z + 0.1] as [number, number, number],
    });
    const kept = addOwn(build, 'keepOuts', [
      round('own-rail', where(['hatch'], 'a')),
      round('own-radar', where([], 'b')),
    ]);
    expect(
      ofKind(kept, 'keep-out').map(
        ({ sentence, evidence }) => `${sentence} ${evidence.state?.open.join() ?? 'always'}`,
      ),
    ).toEqual([
      'Grille: 100 mm inside a keep-out: own-radar. always',
      'Hatch panel L: 102 mm inside a keep-out: own-rail. hatch',
    ]);
  });
  test('what is found is what trying every lamp in every pose finds', () => {
    const build = addOwn(demoBuild('ks-12'), 'keepOuts', [
      { id: 'own-1', name: 'Behind', kind: 'other', from: [-3.2, -0.5, 0.9], to: [-2.2, 0.5, 2.2] },
      { id: 'own-2', name: 'Beside', kind: 'other', from: [-0.5, 0.9, 0.2], to: [1.2, 1.9, 1.3] },
    ]);
    const subject = new LayoutSubject(build);
    const { vehicle } = subject.lookup;
    const plain = new Set<string>();
    for (const open of subject.poses)
      for (const k of vehicle.keepOuts) {
        const there = convexOf(moveSolid(k.solid, motionOf(vehicle, k.solid.partId, new Set(open))));
        for (const p of subject.lamps)
          if (overlapDepthM(subject.stand(p, open).housing, there) > TOUCH_M)
            plain.add(`${k.name}|${p.label}`);
      }
    const found = keepOutFaults(subject).map((f) => {
      const label = /^(.+?): /.exec(f.sentence)?.[1] ?? '';
      const name = /keep-out: (.+?)( \(|\.)/.exec(f.sentence)?.[1] ?? '';
      return `${name}|${label}`;
    });
    expect(new Set(found)).toEqual(plain);
    expect(plain.size).toBeGreaterThan(2);
    expect(found).toHaveLength(plain.size);
  });
});
