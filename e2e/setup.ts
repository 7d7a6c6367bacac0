import type { FullConfig } from '@playwright/test';
import { loadDemo } from '../scripts/lib/app.mjs';

/** Loads the demo scenario into the test database, by the same routes a user's import takes. */
export default async function setup(config: FullConfig): Promise<void> {
  const address = config.projects[0]?.use.baseURL;
  if (address === undefined) throw new Error('the tests need a base URL');
  await loadDemo(address);
}
