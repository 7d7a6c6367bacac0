import type { Build } from '@flarik/core/design/schema';
import type { Verification } from '@flarik/core/verification/prove';
import type { CheckResult } from '@flarik/core/rules/finding';
import * as Comlink from 'comlink';
import { DesignWorker } from '$lib/workers/designWorker';
import { startVerification } from '$lib/workers/verification';

/**
 * The proof of a build that is not the open one, by a worker of its own.
 * @param checked - what is known of its functions
 * @throws {Error} it was given up
 */
export async function provedApart(build: Build, checked: CheckResult): Promise<Verification> {
  const worker = new DesignWorker(startVerification);
  try {
    const proof = await worker.ask(build, (api, heard) => api.prove(checked, Comlink.proxy(heard)));
    if (proof === null) throw new Error('the verification was stopped');
    return proof;
  } finally {
    worker.end();
  }
}
