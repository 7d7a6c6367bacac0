import { stagesOf } from '../design/controls.ts';
import { readBuild } from '../rules/document.ts';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { changePlacement } from '../arrange/lamps.ts';
import { addOwn } from '../arrange/vehicleEdits.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';
import { BEARINGS } from './field.ts';
import { fieldsOf, LampFields } from './lampFields.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { anglesInFrame } from '../geometry/frame.ts';
import { convexOf, overlapDepthM } from '../geometry/overlap.ts';
import { transmissionAlong } from '../geometry/ray.ts';
import { moveSolid } from '../geometry/solid.ts';
import { combine, unit } from '../geometry/vec.ts';
import { checkBuild } from '../rules/check.ts';
import { comesBefore, hiddenShares } from '../rules/layout/beam.ts';
import { keepOutFaults } from '../rules/layout/keepOut.ts';
import { LayoutSubject, TOUCH_M } from '../rules/layout/subject.ts';
import { drivenIn } from '../state/driven.ts';
import { motionOf, posedSolids, stopsOf } from '../vehicle/vehicle.ts';
import { demoBuild, DEMO_BUILDS } from '../../test/reference/demo.ts';

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

describe('keep-outs', () => {
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
      const label = /^"(.+?)" stands/.exec(f.sentence)?.[1] ?? '';
      const name = /keep-out: (.+?)( \(|\.)/.exec(f.sentence)?.[1] ?? '';
      return `${name}|${label}`;
    });
    expect(new Set(found)).toEqual(plain);
    expect(plain.size).toBeGreaterThan(2);
    expect(found).toHaveLength(plain.size);
  });
});

describe('what is remembered', () => {
  test('fields of a lamp are the same afresh, from memory, and after it moved away and back', () => {
    const build = demoBuild('ks-13');
    const lookup = lookupOf(build);
    fc.assert(
      fc.property(
        fc.constantFrom(...build.placements),
        fc.constantFrom<string[]>([], ['hatch'], ['door-front-left']),
        fc.constantFrom(0, 5),
        (p, open, elevation) => {
          const remembered = fieldsOf(build).of(p, open, elevation);
          const afresh = new LampFields(lookup, build.placements).of(p, open, elevation);
          for (const [i, field] of remembered.entries())
            for (let b = 0; b < BEARINGS; b += 7) expect(field.share[b]).toBe(afresh[i]?.share[b]);
          const there = changePlacement(build, p.id, { panDeg: p.panDeg + 20 });
          const back = changePlacement(there, p.id, { panDeg: p.panDeg });
          const again = back.placements.find((q) => q.id === p.id);
          if (again === undefined) throw new Error('the lamp is still there');
          expect(fieldsOf(back).of(again, open, elevation)).toEqual(remembered);
        },
      ),
      { numRuns: 25, seed: 43 },
    );
  });

  test('what is driven does not depend on having been asked before', () => {
    for (const name of DEMO_BUILDS.slice(0, 4)) {
      const build = demoBuild(name);
      const copy = readBuild(structuredClone(build));
      for (const { id } of stagesOf(build))
        for (const ambient of ['day', 'night'] as const) {
          const first = drivenIn(build, { on: [id], ambient });
          expect(drivenIn(build, { on: [id], ambient })).toBe(first);
          expect(drivenIn(copy, { on: [id], ambient })).toEqual(first);
        }
    }
  });

  test('findings of a build are those of its copy, and of the build read from a file', () => {
    for (const name of ['ks-12', 'line-marking'] as const) {
      const build = demoBuild(name);
      const afresh = checkBuild(readBuild(JSON.parse(JSON.stringify(build))));
      checkBuild(changePlacement(build, build.placements[0]?.id ?? '', { tiltDeg: 3 }));
      expect(checkBuild(build)).toEqual(afresh);
    }
  });
});
