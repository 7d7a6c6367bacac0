import type { Build } from '@flarik/core/design/schema';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { InputError } from '@flarik/core/words/errors';
import { CATALOGUE } from '@flarik/core/fixture/catalogue/catalogue';
import { BODY_TYPES } from '@flarik/core/vehicle/bodies/bodyTypes';
import { DIMENSIONS } from '@flarik/core/vehicle/body/dimension';
import { bookOf, LIBRARY } from '@flarik/core/timing/book';
import { familyOf, PATTERNS } from '@flarik/core/timing/library';
import { patternFigures } from '@flarik/core/timing/patternFigures';
import { findOption } from '@flarik/core/vehicle/options/options';
import type { Output } from './output.ts';

export const LISTS = ['bodies', 'fixtures', 'zones', 'patterns'] as const;

/**
 * Lists what can be built with: body types; fixtures, with a build's own; the zones of a build's vehicle.
 * @param build - null when no file was named
 * @throws {InputError} an unknown list, or zones without a file
 */
export function list(what: string, build: Build | null, json: boolean): Output {
  const { data, lines } = listOf(what, build);
  return { exitCode: 0, text: json ? JSON.stringify(data, null, 2) : lines.join('\n') };
}

function listOf(what: string, build: Build | null): { data: unknown; lines: string[] } {
  switch (what) {
    case 'bodies':
      return {
        data: BODY_TYPES.map((b) => ({
          id: b.id,
          name: b.name,
          what: b.what,
          dimensions: Object.entries(b.ranges).map(([key, [min, max, usual]]) => ({
            key,
            ...textOf(key),
            min,
            max,
            usual,
          })),
          options: b.options.map((id) => ({ id, name: findOption(id)?.name ?? id })),
        })),
        lines: BODY_TYPES.map((b) => `${b.id.padEnd(18)} ${b.name}: ${b.what}`),
      };
    case 'fixtures': {
      const fixtures = build === null ? CATALOGUE : lookupOf(build).fixtures;
      return {
        data: fixtures,
        lines: fixtures.map((f) => `${f.id.padEnd(26)} ${f.kind.padEnd(13)} ${f.name}`),
      };
    }
    case 'zones': {
      if (build === null) throw new InputError('list', 'zones belong to a vehicle: name a build file');
      const zones = lookupOf(build).vehicle.zones.map((z) => ({
        id: z.id,
        name: z.name,
        face: z.face,
        mount: z.mount,
        partId: z.partId,
        mirrorId: z.mirrorId,
        centreM: z.centre,
        normal: z.n,
        widthM: z.widthM,
        heightM: z.heightM,
        fixings: z.fixings,
        singleWall: z.singleWall,
        reach: z.reach,
        behind: z.behind,
        lamps: build.placements.filter((p) => p.zoneId === z.id).map((p) => p.label),
      }));
      return {
        data: zones,
        lines: zones.map(
          (z) =>
            `${z.id.padEnd(26)} ${Math.round(z.widthM * 1000)} × ${Math.round(z.heightM * 1000)} mm  ${z.name}`,
        ),
      };
    }
    case 'patterns': {
      const book = build === null ? LIBRARY : bookOf(build);
      const patterns = [...PATTERNS, ...book.own].map((p) => {
        const { by, cycleMs, lines } = book.cycle(p.id);
        return {
          ...p,
          family: familyOf(p.id) ?? 'own',
          by,
          cycleMs,
          lines,
          figures: patternFigures(book.cycle(p.id)),
        };
      });
      return {
        data: patterns,
        lines: patterns.map(
          ({ id, name, figures: f }) =>
            `${id.padEnd(20)} ${f.cyclesPerMinute.toFixed(0).padStart(4)} a minute, lit ${String(Math.round(f.onShare * 100)).padStart(3)} %  ${name}`,
        ),
      };
    }
    default:
      throw new InputError('list', `must be one of ${LISTS.join(', ')}, not '${what}'`);
  }
}

const textOf = (key: string): { name: string; measured: string } => {
  const known = Object.entries(DIMENSIONS).find(([k]) => k === key);
  return known === undefined ? { name: key, measured: '' } : known[1];
};
