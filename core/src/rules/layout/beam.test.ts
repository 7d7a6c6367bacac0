import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../../test/reference/demo.ts';
import { emptyBuild, put } from '../../../test/reference/places.ts';
import { relativeIntensity } from '../../fixture/distribution.ts';
import { anglesInFrame } from '../../geometry/frame.ts';
import { transmissionAlong } from '../../geometry/ray.ts';
import { combine, unit } from '../../geometry/vec.ts';
import { placeModules } from '../../resolve/place.ts';
import { motionOf, posedSolids, stopsOf } from '../../vehicle/vehicle.ts';
import { comesBefore, hiddenShares } from './beam.ts';
import { LayoutSubject } from './subject.ts';

const RAD = Math.PI / 180;

describe('the hidden share of a beam', () => {
  test('agrees with counting every ray out against every solid', () => {
    const build = demoBuild('ks-13');
    const subject = new LayoutSubject(build);
    const { vehicle } = subject.lookup;
    for (const open of [[], ['hatch']])
      for (const p of subject.lamps) {
        const solids = posedSolids(vehicle, new Set(open));
        const shares = hiddenShares(subject, p, open);
        for (const [i, { module, centre, frame }] of placeModules(
          subject.lookup,
          p,
          new Set(open),
        ).entries()) {
          let sent = 0;
          let passed = 0;
          for (let h = -60; h <= 60; h += 5)
            for (let v = -15; v <= 15; v += 5) {
              const d = unit(
                combine(
                  [frame.aim, Math.cos(v * RAD) * Math.cos(h * RAD)],
                  [frame.right, Math.cos(v * RAD) * Math.sin(h * RAD)],
                  [frame.up, Math.sin(v * RAD)],
                ),
              );
              const { hDeg, vDeg } = anglesInFrame(frame, d);
              const weight = relativeIntensity(module.distribution, hDeg, vDeg) * Math.cos(v * RAD);
              if (weight < 0.02) continue;
              sent += weight;
              passed += weight * transmissionAlong(solids, centre, d);
            }
          const plain = sent === 0 ? 0 : 1 - passed / sent;
          expect(shares[i], `${p.id} ${module.id} ${open.join()}`).toBeCloseTo(plain, 9);
        }
      }
  });

  test('a part that opens comes before what looks its way, and before what shines all round', () => {
    const subject = new LayoutSubject(
      ['roof', 'grille', 'rear-bumper'].reduce(
        (b, zone) => put(b, zone, { zone, fixture: zone === 'roof' ? 'roof-bar-1200' : 'perimeter-head-2' }),
        put(emptyBuild(), 'round', { zone: 'roof', uM: 0.4, fixture: 'legacy-rotator' }),
      ),
    );
    const before = (stop: string): string[] =>
      subject.lamps.filter((p) => comesBefore(subject, p, stop)).map((p) => p.id);
    expect(before('hatch')).toEqual(['round', 'roof', 'rear-bumper']);
    // Hinged at its rear it rises behind the grille.
    expect(before('bonnet')).toEqual(['round', 'roof']);
    expect(before('door-front-left')).toEqual(['round', 'roof']);
  });

  test('a part that does not come before a lamp hides nothing more of it when it opens', () => {
    for (const name of ['ks-12', 'ferry-slip', 'lift-bridge-crew'] as const) {
      const subject = new LayoutSubject(demoBuild(name));
      for (const p of subject.lamps) {
        const partId = subject.lookup.vehicle.zones.find((z) => z.id === p.zoneId)?.partId ?? null;
        for (const { id } of stopsOf(subject.lookup.vehicle)) {
          const rides = motionOf(subject.lookup.vehicle, partId, new Set([id])) !== null;
          if (rides || comesBefore(subject, p, id)) continue;
          // What opens can uncover a lamp, never hide more of one it does not come before.
          const shut = hiddenShares(subject, p, []);
          for (const [i, share] of hiddenShares(subject, p, [id]).entries())
            expect(share, `${name} ${p.id} ${id}`).toBeLessThanOrEqual((shut[i] ?? 0) + 1e-9);
        }
      }
    }
  });
});
