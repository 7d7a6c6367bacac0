import { defineConfig } from 'vitest/config';

/** How core and command line are tested. */
export default defineConfig({
  test: {
    environment: 'node',
    include: ['src/**/*.test.ts'],
    // A bound for what never comes, not a measure: a machine may be very busy.
    testTimeout: 600_000,
    // Nothing here keeps a state between calls: read once by a process, not once by a file.
    pool: 'forks',
    isolate: false,
    maxWorkers: 2,
    chaiConfig: { truncateThreshold: 0 },
    // Node's own imports, with types taken off: a call by Vite's goes through a getter, and costs these tests a half more.
    // Most code is tested for a moment only: to make all of it fast early costs more, beside other work, than it saves.
    execArgv: ['--import', 'tsx', '--interrupt-budget=500000'],
    experimental: { viteModuleRunner: false, nodeLoader: false },
  },
});
