import { InputError } from '@flarik/core/words/errors';
import { MAX_TRIANGLES } from '@flarik/core/geometry/mesh';
import { countTriangles, countWord, isBinaryStl } from './countTriangles';
import type { RawTriangles } from './meshLoaders';

/** No mesh file is larger, bytes. */
export const MAX_MESH_BYTES = 25 * 1024 * 1024;

/**
 * Reads the triangles of a mesh file.
 * @throws {InputError} the file's name and what is wrong with it
 */
export async function readMeshFile(name: string, bytes: ArrayBuffer): Promise<RawTriangles> {
  const kind = /\.(obj|stl|gltf|glb)$/i.exec(name)?.[1]?.toLowerCase();
  if (kind === undefined) throw new InputError(name, 'must be an .obj, .stl, .gltf or .glb file');
  if (bytes.byteLength > MAX_MESH_BYTES)
    throw new InputError(
      name,
      `is too large: ${(bytes.byteLength / 1048576).toFixed(1)} MB, at most ${MAX_MESH_BYTES / 1048576} MB`,
    );
  const told = countTriangles(kind, bytes);
  if (told > MAX_TRIANGLES) throw tooMany(name, told);
  if (kind === 'stl' && !isBinaryStl(bytes)) {
    // The loader looks for the end of each of these from its beginning: without their ends, for ever.
    for (const word of ['solid', 'facet'])
      if (countWord(bytes, word) > countWord(bytes, `end${word}`))
        throw new InputError(name, `contains a '${word}' without its 'end${word}'`);
  }
  const { trianglesOf } = await import('./meshLoaders');
  let triangles: RawTriangles;
  try {
    triangles = await trianglesOf(kind, bytes);
  } catch (error) {
    const why = error instanceof Error ? error.message : String(error);
    throw new InputError(name, `cannot be read as ${kind.toUpperCase()}: ${why}`);
  }
  const count = triangles.length / 9;
  if (count === 0) throw new InputError(name, 'contains no triangles');
  if (!triangles.every(Number.isFinite)) throw new InputError(name, 'contains a corner that is not a number');
  if (count > MAX_TRIANGLES) throw tooMany(name, count);
  return triangles;
}

const tooMany = (name: string, count: number): InputError =>
  new InputError(
    name,
    `has ${count} triangles, at most ${MAX_TRIANGLES}: reduce it in the program it comes from`,
  );
