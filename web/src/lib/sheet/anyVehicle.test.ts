import { describe, expect, test } from 'vitest';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { arrange, VIEWS } from './arrangement';
import { rememberedPictures, lampPictures } from './pictures';
import { BODY_TYPES } from '@flarik/core/vehicle/bodies/bodyTypes';
import { stopsOf, vehicleOf } from '@flarik/core/vehicle/vehicle';
import { defaultSpec } from '@flarik/core/vehicle/spec';
import { demoBuild } from '@flarik/core/test/reference/demo';

describe('the sheet of any vehicle', () => {
  test('views lie apart in every pose of every body, and hold what they show', () => {
    for (const body of BODY_TYPES) {
      const made = vehicleOf({ ...defaultSpec(body.id), options: [...body.options] });
      for (const open of [[], ...stopsOf(made).map((s) => [s.id])]) {
        const { frames, width, height } = arrange(made, new Set(open));
        const all = VIEWS.map((view) => frames[view]);
        for (const [i, f] of all.entries()) {
          const where = `${body.id} ${open.join()} ${VIEWS[i] ?? ''}`;
          expect(f.left >= 0 && f.top >= 0 && f.left + f.width <= width + 1e-9, where).toBe(true);
          expect(f.top + f.height, where).toBeLessThanOrEqual(height + 1e-9);
          for (const g of all.slice(i + 1)) {
            const apart =
              f.left + f.width <= g.left + 1e-9 ||
              g.left + g.width <= f.left + 1e-9 ||
              f.top + f.height <= g.top + 1e-9 ||
              g.top + g.height <= f.top + 1e-9;
            expect(apart, where).toBe(true);
          }
        }
      }
    }
  });

  test('remembered pictures of lamps are those made afresh, in each pose', () => {
    const build = demoBuild('ks-13');
    const lookup = lookupOf(build);
    for (const open of [new Set<string>(), new Set(['hatch'])])
      for (const p of build.placements) {
        const first = rememberedPictures(lookup, p, open);
        expect(rememberedPictures(lookup, p, open)).toBe(first);
        expect(first).toEqual(lampPictures(lookup, p, open));
      }
  });
});
