import { defineConfig } from 'vitest/config';

/** How core and command line are tested. */
export default defineConfig({
  test: {
    environment: 'node',
    include: ['src/**/*.test.ts'],
    testTimeout: 120_000,
    // Nothing here keeps a state between calls: read once by a thread, not once by a file.
    pool: 'threads',
    isolate: false,
    maxWorkers: 2,
  },
});
