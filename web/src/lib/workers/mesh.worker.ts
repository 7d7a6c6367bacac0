import '../withoutEval';
import * as Comlink from 'comlink';
import { readMeshFile } from './meshFile';

const api = {
  /** @throws the reasons of `readMeshFile` */
  read: async (name: string, bytes: ArrayBuffer): Promise<Float64Array> => {
    const triangles = await readMeshFile(name, bytes);
    return Comlink.transfer(triangles, [triangles.buffer]);
  },
};
export type MeshApi = typeof api;

Comlink.expose(api);
