import { describe, expect, test } from 'vitest';
import { demoBuild } from '../../test/reference/demo.ts';
import { common, packOf } from '../../test/reference/rules.ts';
import { mirrorY } from '../geometry/vec.ts';
import { checkBuild } from '../rules/check.ts';
import { stateWith } from '../state/state.ts';
import { glareAt } from './glare.ts';
import { lightsIn } from './source.ts';
import { stationsOf, type Station } from './stations.ts';

const pumper = demoBuild('tunnel-pumper-3');
const medic = demoBuild('shore-medic-7');
const ids = (name: Parameters<typeof demoBuild>[0]): string[] =>
  stationsOf(demoBuild(name)).map(({ id }) => id);
const at = (build: typeof pumper, id: string): Station => {
  const station = stationsOf(build).find((one) => one.id === id);
  if (station === undefined) throw new Error(id);
  return station;
};

describe('where people are at a vehicle', () => {
  test('each body has the places of what is done at it', () => {
    expect(ids('ks-12')).toEqual([
      'driver',
      'rear-loading',
      'left-side',
      'right-side',
      'roadside',
      'at-the-hatch',
    ]);
    expect(ids('tunnel-pumper-3')).toEqual(
      expect.arrayContaining(['pump-panel-left', 'pump-panel-right', 'at-the-hatch']),
    );
    // Its hose bed has no roof.
    expect(ids('tunnel-pumper-3')).not.toContain('inside');
    expect(ids('shore-medic-7')).toContain('inside');
    // What opens at the sides alone has nobody reaching in behind.
    expect(ids('line-marking')).not.toContain('at-the-hatch');
  });

  test('both pump panels are alike in a mirrored build, looked at squarely from 0.6 m', () => {
    const lights = lightsIn(pumper, stateWith({ on: ['scene-light'] }));
    const [left, right] = [at(pumper, 'pump-panel-left'), at(pumper, 'pump-panel-right')];
    for (const [axis, v] of mirrorY(left.eye).entries()) expect(right.eye[axis]).toBeCloseTo(v, 9);
    expect(left.view[1]).toBeCloseTo(-1, 9);
    expect(glareAt(lights, left).highest).toBeCloseTo(glareAt(lights, right).highest, 6);
    expect(glareAt(lights, left).eyeLx).toBeGreaterThan(0);
  });

  test('one seated inside is out of the light of the outside lamps, but for what comes through glass', () => {
    const lights = lightsIn(medic, stateWith({ on: ['stage-3'] }));
    const inside = glareAt(lights, at(medic, 'inside')).eyeLx;
    expect(inside).toBeLessThan(0.05 * glareAt(lights, at(medic, 'rear-loading')).eyeLx);
  });

  test('a rule about such an eye speaks where the body has the place, and has nothing to say elsewhere', () => {
    const told = (build: typeof pumper) =>
      checkBuild({
        ...build,
        rulePacks: [
          packOf({
            ...common,
            kind: 'eye',
            id: 'pump',
            station: 'pump-panel-left',
            ambient: 'any',
            maxLx: 0.001,
          }),
        ],
      });
    const ofPack = ({ findings }: ReturnType<typeof told>) => findings.filter((f) => f.packId === 'test');
    expect(ofPack(told(pumper)).length).toBeGreaterThan(0);
    expect(ofPack(told(pumper))[0]?.sentence).toMatch(
      /^Illuminance at the eye, one at the left pump panel: 0\.0769 lx \(limit 0\.001 lx\)\./,
    );
    expect(ofPack(told(demoBuild('ks-13')))).toEqual([]);
  });
});
