import { Mesh, type BufferGeometry, type Object3D } from 'three';
import { GLTFLoader } from 'three/addons/loaders/GLTFLoader.js';
import { OBJLoader } from 'three/addons/loaders/OBJLoader.js';
import { STLLoader } from 'three/addons/loaders/STLLoader.js';
import { z } from 'zod';

/** Triangles as a file has them: nine numbers each, in the file's own unit and axes. */
export type RawTriangles = Float64Array;

/** The triangles of a file of this kind; loaded only when a mesh is read, since the loaders are large. */
export async function trianglesOf(kind: string, bytes: ArrayBuffer): Promise<RawTriangles> {
  switch (kind) {
    case 'obj':
      return ofScene(new OBJLoader().parse(textOf(bytes)));
    case 'stl':
      return flat([ofGeometry(new STLLoader().parse(bytes))]);
    case 'gltf': {
      const text = textOf(bytes);
      refuseOutside(text);
      return ofScene((await new GLTFLoader().parseAsync(text, '')).scene);
    }
    default:
      return ofScene((await new GLTFLoader().parseAsync(bytes, '')).scene);
  }
}

const textOf = (bytes: ArrayBuffer): string => new TextDecoder().decode(bytes);

const Gltf = z.looseObject({ buffers: z.array(z.looseObject({ uri: z.string().optional() })).optional() });

/** A .gltf that points to another file cannot be read from one file alone. */
function refuseOutside(text: string): void {
  const { buffers } = Gltf.parse(JSON.parse(text));
  const outside = buffers?.find(({ uri }) => uri !== undefined && !uri.startsWith('data:'));
  if (outside?.uri !== undefined)
    throw new Error(`its shape is in another file, ${outside.uri}: save it as one .glb`);
}

/** All meshes of a scene where they stand in it. */
function ofScene(scene: Object3D): RawTriangles {
  scene.updateMatrixWorld(true);
  const parts: Float64Array[] = [];
  scene.traverse((object) => {
    if (isMesh(object)) parts.push(ofGeometry(object.geometry.clone().applyMatrix4(object.matrixWorld)));
  });
  return flat(parts);
}

const isMesh = (object: Object3D): object is Mesh => object instanceof Mesh;

function ofGeometry(geometry: BufferGeometry): Float64Array {
  const position = geometry.getAttribute('position');
  const corners = geometry.index === null ? null : Array.from(geometry.index.array);
  const count = corners?.length ?? position.count;
  const whole = count - (count % 3);
  return Float64Array.from({ length: 3 * whole }, (_, n) => {
    const corner = Math.floor(n / 3);
    return position.getComponent(corners?.[corner] ?? corner, n % 3);
  });
}

function flat(parts: readonly Float64Array[]): Float64Array {
  const all = new Float64Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}
