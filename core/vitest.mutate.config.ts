import { defineConfig } from 'vitest/config';

/** Light that is worked out in coverage is tested in sight, too; what is on, where it is resolved. */
const TESTED_IN: Readonly<Record<string, string>> = {
  state: '{state,resolve,controls,design}',
  timing: 'timing',
  coverage: '{coverage,sight}',
  rules: 'rules',
};

// For `npm run mutate`: the tests beside what is changed. Those of other rooms run whole builds and take minutes a mutant.
export default defineConfig({
  test: {
    environment: 'node',
    include: [
      `src/${TESTED_IN[process.env.MUTATED_ROOM ?? ''] ?? '{rules,timing,coverage,state}'}/**/*.test.ts`,
    ],
    exclude: ['src/rules/check.test.ts'],
    testTimeout: 120_000,
    // Node's own imports, as in all tests of core (vitest.shared.ts); Stryker wants threads.
    execArgv: ['--import', new URL('test/typesOff.mjs', import.meta.url).href],
    experimental: { viteModuleRunner: false, nodeLoader: false },
  },
});
