import type { Build } from '@flarik/core/design/schema';
import { lookupOf } from '@flarik/core/resolve/lookup';
import { VehicleSpec } from '@flarik/core/vehicle/spec';
import { Colour } from '@flarik/core/words/colour';
import { z } from 'zod';
import { lampPictures } from '../sheet/pictures';

/** The left side of a build, small, as the list of builds shows it. */
export const BuildPicture = z.strictObject({
  vehicle: VehicleSpec,
  /** Each lens as a path in the view's metres, and its first colour. */
  lenses: z.array(z.strictObject({ path: z.string(), colour: Colour })),
});
export type BuildPicture = z.infer<typeof BuildPicture>;

const SHUT: ReadonlySet<string> = new Set();

/** The picture of a build; a mesh of its vehicle is left out. */
export function pictureOf(build: Build): BuildPicture {
  const lookup = lookupOf(build);
  const lenses = build.placements
    .filter((p) => p.status !== 'removed')
    .flatMap((p) =>
      lampPictures(lookup, p, SHUT)
        .filter((picture) => picture.view === 'left')
        .flatMap(({ lenses: seen }) =>
          seen.flatMap(({ moduleId, path }) => {
            const colour = p.modules.find((m) => m.id === moduleId)?.colours[0];
            return colour === undefined ? [] : [{ path: toMm(path), colour }];
          }),
        ),
    );
  return { vehicle: { ...build.vehicle, mesh: null }, lenses };
}

/** A path with its figures in metres to the millimetre. */
const toMm = (path: string): string =>
  path.replaceAll(/-?\d+(?:\.\d+)?(?:e-?\d+)?/g, (figure) =>
    String(Math.round(Number(figure) * 1000) / 1000),
  );
