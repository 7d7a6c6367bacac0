import type { Build } from '@flarik/core/design/schema';
import type { Proof } from '@flarik/core/proof/prove';
import type { CheckResult } from '@flarik/core/rules/finding';
import * as Comlink from 'comlink';
import { startProof } from '$lib/workers/proof';

/**
 * The proof of a build that is not the open one, by a worker of its own.
 * @param checked - what is known of its functions
 * @throws {Error} it was given up
 */
export async function provedApart(build: Build, checked: CheckResult): Promise<Proof> {
  const worker = startProof();
  try {
    void worker.api.take(build);
    const proof = await worker.api.prove(
      checked,
      Comlink.proxy(() => undefined),
    );
    if (proof === null) throw new Error('the verification was stopped');
    return proof;
  } finally {
    worker.end();
  }
}
