import { describe, expect, test } from 'vitest';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { posedZone, zoneOf } from '@flarik/core/vehicle/vehicle';
import { VIEWS } from './arrangement';
import { lampPictures, openPartPictures, stepOnZone, zonePictures } from './pictures';
import { demoBuild } from '@flarik/core/test/reference/demo';

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
