import { describe, expect, test } from 'vitest';
import { newBuild } from '@flarik/core/design/create';
import { addPartner, addPlacement } from '@flarik/core/arrange/lamps';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { drivenIn } from '@flarik/core/state/driven';
import { posedZone, zoneOf } from '@flarik/core/vehicle/vehicle';
import { outlineOf, project } from '@flarik/core/vehicle/picture/views';
import { arrange, VIEWS } from '../src/lib/sheet/arrangement';
import { dimensionsOf, guidesOf, markOf } from '../src/lib/sheet/dimensions';
import { beamsOf, gripOf, panToward, turned, wedgePath } from '../src/lib/sheet/directions';
import { glowKey, glows } from '../src/lib/sheet/glow';
import { lampPictures, openPartPictures, stepOnZone, zonePictures } from '../src/lib/sheet/pictures';
import { demoBuild } from './support';

const build = demoBuild('ks-12');
const lookup = lookupOf(build);
const { vehicle } = lookup;
const shut = new Set<string>();
const hatchUp = new Set(['hatch']);
const lamp = (id: string) => {
  const found = build.placements.find((p) => p.id === id);
  if (found === undefined) throw new Error(`KS-12 has no ${id}`);
  return found;
};
const viewsOf = (id: string, open: ReadonlySet<string> = shut): string[] =>
  lampPictures(lookup, lamp(id), open).map((p) => p.view);

describe('the arrangement of the sheet', () => {
  const { frames, width, height } = arrange(vehicle, shut);

  test('holds five views that do not lie on each other', () => {
    for (const view of VIEWS) {
      const f = frames[view];
      expect(f.left >= 0 && f.top >= 0 && f.left + f.width <= width && f.top + f.height <= height, view).toBe(
        true,
      );
      for (const other of VIEWS.filter((o) => o !== view)) {
        const g = frames[other];
        const apart =
          f.left + f.width <= g.left ||
          g.left + g.width <= f.left ||
          f.top + f.height <= g.top ||
          g.top + g.height <= f.top;
        expect(apart, `${view} and ${other}`).toBe(true);
      }
    }
  });

  test('plan and right side share their stations; the wheels of all elevations stand on their ground', () => {
    expect(frames.plan.x).toBe(frames.right.x);
    for (const view of ['left', 'right', 'front', 'rear'] as const)
      expect(frames[view].y).toBeCloseTo(frames[view].top + frames[view].height, 9);
  });
});

describe('projections', () => {
  test('the front is seen with the left on the viewer’s right, the left side with its front on the left', () => {
    expect(project('front', [2, 0.5, 1])).toEqual([0.5, 1]);
    expect(project('rear', [-2, 0.5, 1])).toEqual([-0.5, 1]);
    expect(project('left', [2, 0.5, 1])).toEqual([-2, 1]);
    expect(project('right', [2, 0.5, 1])).toEqual([2, 1]);
    expect(project('plan', [2, 0.5, 1])).toEqual([2, 0.5]);
  });

  test('an outline keeps the outer points, counter-clockwise', () => {
    const outline = outlineOf([
      [0, 0],
      [2, 0],
      [1, 0.5],
      [2, 1],
      [0, 1],
      [1, 0],
    ]);
    expect(outline).toEqual([
      [0, 0],
      [2, 0],
      [2, 1],
      [0, 1],
    ]);
  });
});

describe('lamps on the sheet', () => {
  test('are drawn where they face, and all of them on the plan', () => {
    expect(viewsOf('grille')).toEqual(['plan', 'front']);
    expect(viewsOf('wing')).toEqual(['left', 'plan']);
    expect(viewsOf('corner-r')).toEqual(['left', 'rear', 'plan']);
    expect(viewsOf('bar')).toEqual([...VIEWS]);
  });

  test('a raised hatch takes its lamps out of the rear view; a shut door hides its marker', () => {
    expect(viewsOf('tail')).toEqual(['rear', 'plan']);
    expect(viewsOf('tail', hatchUp)).toEqual(['plan']);
    expect(viewsOf('marker-f')).toEqual(['plan']);
    expect(viewsOf('marker-f', new Set(['door-front-left']))).toContain('rear');
  });

  test('the keyboard meets each lamp in one view only', () => {
    for (const p of build.placements)
      expect(lampPictures(lookup, p, shut).filter((picture) => picture.primary)).toHaveLength(1);
  });

  test('lie where their zone is, and their lenses within their housing', () => {
    const [picture] = lampPictures(lookup, lamp('grille'), shut).filter((p) => p.view === 'front');
    expect(picture?.at[0]).toBeCloseTo(0.3, 6);
    expect(picture?.half).toEqual([expect.closeTo(0.063, 6), expect.closeTo(0.018, 6)]);
    expect(picture?.lenses).toHaveLength(1);
  });
});

describe('zones and moving parts', () => {
  test('zones are drawn where they face; the under-hatch zone only when the hatch is up', () => {
    const rear = (open: ReadonlySet<string>) => zonePictures(vehicle, 'rear', open).map((z) => z.zone.id);
    expect(rear(shut)).toContain('rear-bumper');
    expect(rear(shut)).not.toContain('hatch-lip');
    expect(rear(hatchUp)).toContain('hatch-lip');
    expect(rear(hatchUp)).not.toContain('hatch-panel-left');
  });

  test('only open parts are drawn apart, near ones over the body, far ones behind it', () => {
    expect(openPartPictures(vehicle, 'left', shut)).toEqual([]);
    const door = new Set(['door-front-left']);
    expect(openPartPictures(vehicle, 'left', door).every((p) => p.front)).toBe(true);
    expect(openPartPictures(vehicle, 'right', door).some((p) => p.front)).toBe(false);
    expect(openPartPictures(vehicle, 'left', door).filter((p) => p.glass)).toHaveLength(1);
  });
});

describe('a step on a view, on the zone', () => {
  const step = (view: (typeof VIEWS)[number], zoneId: string, a: number, b: number) =>
    stepOnZone(view, zoneOf(vehicle, zoneId), [a, b]);

  test('right and up, as seen from outside', () => {
    expect(step('front', 'grille', 0.1, 0.02).du).toBeCloseTo(0.1, 3);
    expect(step('front', 'grille', 0.1, 0.02).dv).toBeCloseTo(0.02, 3);
    expect(step('left', 'wing-left', 0.1, 0).du).toBeCloseTo(0.1, 3);
    expect(step('plan', 'roof', 0, 0.1).du).toBeCloseTo(-0.1, 3);
    expect(step('plan', 'roof', 0.1, 0).dv).toBeCloseTo(0.1, 3);
  });

  test('what the view cannot show stays', () => {
    const across = step('plan', 'grille', 0, 0.1);
    expect(across.du).toBeCloseTo(0.1, 3);
    expect(across.dv).toBeCloseTo(0, 9);
    expect(Math.abs(step('left', 'grille', 0.1, 0).du)).toBeLessThan(1e-6);
  });

  test('follows a zone that its part has carried away', () => {
    const lip = posedZone(vehicle, zoneOf(vehicle, 'hatch-lip'), hatchUp);
    expect(Math.abs(stepOnZone('rear', lip, [0.1, 0]).du)).toBeCloseTo(0.1, 2);
  });
});

describe('what lamps look like', () => {
  test('without a moment, all that the stage drives; at a moment, what is on then', () => {
    const drives = drivenIn(build, { stage: 2, ambient: 'day' });
    const all = glows(build, drives, null);
    expect(all.get(glowKey('grille', 'm1'))).toEqual({ colour: 'red', level: 1, driven: true });
    expect(all.get(glowKey('scene', 'm1'))).toEqual({ colour: 'white', level: 0, driven: false });
    // Double flash: phase A is on from 0 to 110 ms, phase B from 400 to 510.
    const at = (ms: number, id: string) => glows(build, drives, ms).get(glowKey(id, 'm1'))?.level;
    expect([at(50, 'grille'), at(50, 'grille-x'), at(450, 'grille'), at(450, 'grille-x')]).toEqual([
      1, 0, 0, 1,
    ]);
  });

  test('of two colours at once the stronger shows', () => {
    const drives = drivenIn(build, { stage: 3, ambient: 'day' });
    // The bar flashes white from 0 to 220 ms; red pulses end at 55.
    expect(glows(build, drives, 70).get(glowKey('bar', 'm1'))).toEqual({
      colour: 'white',
      level: 1,
      driven: true,
    });
  });
});

describe('directions on the plan', () => {
  test('a wedge begins in the middle and reaches beyond the vehicle', () => {
    const points = wedgePath(vehicle, { fromDeg: 170, toDeg: 190 })
      .slice(1, -1)
      .split('L')
      .map((p) => p.split(',').map(Number));
    expect(points[0]).toEqual([0, 0]);
    expect(points).toHaveLength(22);
    for (const [x = 0] of points.slice(1)) expect(x).toBeCloseTo(-(vehicle.lengthM / 2 + 0.36), 6);
  });

  test('a beam for each module; a beacon’s is round', () => {
    expect(beamsOf(lookup, [lamp('bar')], shut)).toHaveLength(16);
    const beacon = addPlacement(newBuild(build.id, 'x', 'police', []), {
      id: 'b',
      fixtureId: 'beacon-low',
      zoneId: 'roof',
      uM: 0,
      vM: 0,
    });
    expect(beamsOf(lookup, addPartner(beacon, 'b', 'c').placements, shut)[0]?.path).toMatch(/a1\.3,1\.3/);
  });
});

describe('aiming by the beam', () => {
  test('its end lies where the lamp aims; toward a point is so many degrees further', () => {
    const grip = gripOf(lookup, lamp('wing'), shut);
    if (grip === null) throw new Error('a wing lamp has a beam');
    // The left wing looks to the left: bearing 270, y up on the plan.
    expect(grip.at[1] - grip.from[1]).toBeCloseTo(1.3, 6);
    expect(panToward(grip, [grip.from[0] + 1, grip.from[1] + 1], 5)).toBe(45);
    expect(panToward(grip, [grip.from[0] - 0.05, grip.from[1] + 1], 5)).toBe(-5);
    expect(panToward(grip, [grip.from[0] - 0.05, grip.from[1] + 1], 1)).toBe(-3);
  });
  test('pans stay within half a turn', () => {
    expect([turned(175, 10), turned(-175, -10), turned(0, 360), turned(10, 5)]).toEqual([-175, 175, 0, 15]);
  });
});

describe('distances and guides', () => {
  test('to the neighbours, the edges, and up from the ground', () => {
    const all = dimensionsOf(lookup, build.placements, lamp('grille'), 'front', shut);
    const up = all.find((d) => d.id === 'height');
    expect(up?.text).toMatch(/^\d+ up$/);
    expect(up?.from[1]).toBe(0);
    const left = all.find((d) => d.id === 'left');
    expect(Number(left?.text)).toBe(Math.round(1000 * ((left?.to[0] ?? 0) - (left?.from[0] ?? 0))));
  });
  test('every dimension of the vehicle has its mark, with its figure and what it means', () => {
    for (const key of Object.keys(build.vehicle.dimensions)) {
      const mark = markOf(build.vehicle, vehicle, key);
      expect(mark?.text, key).toMatch(/^[A-Z][a-z ]+: [\d.]+(°| mm)$/);
      expect(mark?.measured.length).toBeGreaterThan(5);
    }
    expect(markOf(build.vehicle, vehicle, 'wheelbaseM')?.text).toBe('Wheelbase: 2900 mm');
    expect(markOf(build.vehicle, vehicle, 'deckHeightM')).toBeNull();
    expect(markOf(build.vehicle, vehicle, 'charm')).toBeNull();
  });
  test('a guide crosses its zone', () => {
    const [guide] = guidesOf(lookup, [{ axis: 'u', atM: 0.1, why: 'edge' }], 'grille', 'front', shut);
    const zone = zoneOf(vehicle, 'grille');
    expect(guide?.from[0]).toBeCloseTo(0.1, 9);
    expect((guide?.to[1] ?? 0) - (guide?.from[1] ?? 0)).toBeCloseTo(zone.heightM, 9);
  });
});
