import fc from 'fast-check';
import { expect, test } from 'vitest';
import { astray, demoBuild } from '../../test/reference/demo.ts';
import { plainHousings } from '../../test/reference/plainHousings.ts';
import { changePlacement } from '../arrange/lamps.ts';
import type { Placement } from '../design/placement.ts';
import type { Build } from '../design/schema.ts';
import { relativeIntensity } from '../fixture/distribution.ts';
import { directionOf } from '../geometry/direction.ts';
import { anglesInFrame } from '../geometry/frame.ts';
import { transmissionAlong } from '../geometry/ray.ts';
import { lookupOf } from '../resolve/lookup.ts';
import { placeModules } from '../resolve/place.ts';
import { posedSolids, stopsOf } from '../vehicle/vehicle.ts';
import { BEARINGS } from './field.ts';
import { fieldsOf, LampFields } from './lampFields.ts';

/** Bearings that are asked about. */
const ASKED = Array.from({ length: 40 }, (_, i) => 9 * i + 4);

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

test.each(['ks-12', 'tunnel-pumper-3', 'ferry-slip'] as const)(
  'what arrives of a lamp is what a ray past every solid and every other lamp says: %s',
  (name) => {
    const { placements, ...rest } = astray(demoBuild(name));
    const build: Build = {
      ...rest,
      placements: placements.map((p, i) => ({ ...p, lensTransmission: 0.4 + 0.1 * (i % 7) })),
    };
    const lookup = lookupOf(build);
    const { vehicle } = lookup;
    const stops = stopsOf(vehicle).map(({ id }) => id);
    const together = vehicle.parts.slice(0, 3).map(({ stops: [stop] }) => stop.id);
    const fields = fieldsOf(build);
    let hidden = 0;
    for (const open of [[], ...stops.map((id) => [id]), together]) {
      const pose = new Set(open);
      const solids = posedSolids(vehicle, pose);
      const behind = plainHousings(lookup, build.placements, pose);
      const plain = (p: Placement, elevationDeg: number): number[] =>
        placeModules(lookup, p, pose).flatMap(({ module, centre, frame }) =>
          ASKED.map((bearing) => {
            const direction = directionOf(bearing, elevationDeg);
            const { hDeg, vDeg } = anglesInFrame(frame, direction);
            const sent = relativeIntensity(module.distribution, hDeg, vDeg) * p.lensTransmission;
            if (sent === 0 || !behind(p.id, centre, direction))
              return sent * transmissionAlong(solids, centre, direction);
            hidden++;
            return 0;
          }),
        );
      for (const p of build.placements)
        for (const elevationDeg of [0, 10]) {
          const arrives = fields
            .of(p, open, elevationDeg)
            .flatMap(({ share }) => ASKED.map((bearing) => share[bearing] ?? NaN));
          const wrong = plain(p, elevationDeg).findIndex(
            (share, i) => Math.abs(share - (arrives[i] ?? NaN)) > 1e-9,
          );
          expect(wrong, `${p.label}, ${open.join('+')} open, ${elevationDeg}° up`).toBe(-1);
        }
    }
    expect(hidden).toBeGreaterThan(0);
  },
);
