import type { Build } from '@flarik/core/design/schema';
import type { Proof } from '@flarik/core/proof/prove';
import type { CheckResult } from '@flarik/core/rules/finding';
import * as Comlink from 'comlink';
import { startProof } from '$lib/workers/proof';

/** The proof of a build that is not the open one, by a worker of its own. @param checked - what is known of its functions */
export async function provedApart(build: Build, checked: CheckResult): Promise<Proof | null> {
  const worker = startProof();
  try {
    void worker.api.take(build);
    return await worker.api.prove(
      checked,
      Comlink.proxy(() => undefined),
    );
  } finally {
    worker.end();
  }
}
