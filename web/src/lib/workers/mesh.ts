import * as Comlink from 'comlink';
import type { RawTriangles } from './meshLoaders';
import type { MeshApi } from './mesh.worker';

/** A file that is not read by then is given up, ms. */
const LONGEST_MS = 60_000;

/**
 * Reads a mesh file in a worker of its own, which an abort ends at once.
 * @throws {Error} what is wrong with the file; that it was stopped; that it took too long
 */
export async function readMesh(file: File, signal: AbortSignal): Promise<RawTriangles> {
  const worker = new Worker(new URL('./mesh.worker.ts', import.meta.url), { type: 'module' });
  let timer: ReturnType<typeof setTimeout> | undefined;
  const given = new Promise<never>((_, refuse) => {
    signal.addEventListener('abort', () => refuse(new Error(`${file.name}: stopped. Nothing was taken.`)));
    timer = setTimeout(
      () => refuse(new Error(`${file.name}: not read within ${LONGEST_MS / 1000} s. Nothing was taken.`)),
      LONGEST_MS,
    );
  });
  try {
    const bytes = await file.arrayBuffer();
    const api = Comlink.wrap<MeshApi>(worker);
    return await Promise.race([api.read(file.name, Comlink.transfer(bytes, [bytes])), given]);
  } finally {
    clearTimeout(timer);
    worker.terminate();
  }
}
