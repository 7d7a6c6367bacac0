import { z } from 'zod';

/** How many triangles a mesh file holds at least, counted in one pass before it is read whole. */
export function countTriangles(kind: string, bytes: ArrayBuffer): number {
  switch (kind) {
    case 'stl':
      return isBinaryStl(bytes) ? facetsOf(bytes) : countWord(bytes, 'endfacet');
    case 'obj':
      return countObj(bytes);
    case 'gltf':
      return countGltf(new TextDecoder().decode(bytes));
    default:
      return countGltf(jsonOf(bytes));
  }
}

const HEADER_BYTES = 84;
const FACET_BYTES = 50;
const facetsOf = (bytes: ArrayBuffer): number => new DataView(bytes).getUint32(80, true);

/** A binary STL says how many facets it has, and is as long as they are. */
export const isBinaryStl = (bytes: ArrayBuffer): boolean =>
  bytes.byteLength >= HEADER_BYTES && bytes.byteLength === HEADER_BYTES + FACET_BYTES * facetsOf(bytes);

/** Words of a text file that stand by themselves. */
export function countWord(bytes: ArrayBuffer, word: string): number {
  const text = new Uint8Array(bytes);
  const letters = new TextEncoder().encode(word);
  const blank = (i: number): boolean => i < 0 || i >= text.length || (text[i] ?? 0) <= 32;
  let count = 0;
  for (let i = 0; i <= text.length - letters.length; i++) {
    if (text[i] !== letters[0] || !blank(i - 1) || !blank(i + letters.length)) continue;
    if (letters.every((letter, k) => text[i + k] === letter)) count++;
  }
  return count;
}

/** Each face of n corners is cut into n − 2 triangles. */
function countObj(bytes: ArrayBuffer): number {
  const text = new Uint8Array(bytes);
  let count = 0;
  let [lineStart, isFace, corners, inWord] = [true, false, 0, false];
  for (let i = 0; i <= text.length; i++) {
    const c = i < text.length ? (text[i] ?? 0) : 10;
    if (c === 10 || c === 13) {
      if (isFace) count += Math.max(0, corners - 2);
      [lineStart, isFace, corners, inWord] = [true, false, 0, false];
    } else if (c <= 32) inWord = false;
    else {
      if (lineStart) isFace = c === 102 && (text[i + 1] ?? 0) <= 32;
      else if (!inWord && isFace) corners++;
      lineStart = false;
      inWord = true;
    }
  }
  return count;
}

const MAGIC = 0x46546c67;

/** The JSON part of a binary glTF; empty when there is none. */
function jsonOf(bytes: ArrayBuffer): string {
  const view = new DataView(bytes);
  if (bytes.byteLength < 20 || view.getUint32(0, true) !== MAGIC) return '';
  const length = Math.min(view.getUint32(12, true), bytes.byteLength - 20);
  return new TextDecoder().decode(new Uint8Array(bytes, 20, length));
}

const Counted = z.looseObject({
  accessors: z.array(z.looseObject({ count: z.number() })).default([]),
  meshes: z
    .array(
      z.looseObject({
        primitives: z.array(
          z.looseObject({
            indices: z.number().optional(),
            attributes: z.looseObject({ POSITION: z.number().optional() }).default({}),
          }),
        ),
      }),
    )
    .default([]),
  nodes: z.array(z.looseObject({ mesh: z.number().optional() })).default([]),
});

/** A mesh counts once for each node that shows it; 0 where the file cannot be understood, which reading it will tell. */
function countGltf(text: string): number {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return 0;
  }
  const read = Counted.safeParse(json);
  if (!read.success) return 0;
  const { accessors, meshes, nodes } = read.data;
  const perMesh = meshes.map(({ primitives }) =>
    primitives.reduce((sum, { indices, attributes }) => {
      const accessor = accessors[indices ?? attributes.POSITION ?? -1];
      return sum + Math.floor((accessor?.count ?? 0) / 3);
    }, 0),
  );
  return nodes.reduce((sum, { mesh }) => sum + (mesh === undefined ? 0 : (perMesh[mesh] ?? 0)), 0);
}
