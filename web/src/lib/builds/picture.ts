import type { Build } from '@flarik/core/design/schema';
import { lookupOf } from '@flarik/core/resolve/lookup';
import type { BuildPicture } from '../api';
import { lampPictures } from '../sheet/pictures';

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
