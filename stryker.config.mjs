export default {
  testRunner: 'vitest',
  vitest: { configFile: 'core/vitest.mutate.config.ts', dir: 'core' },
  coverageAnalysis: 'perTest',
  // As in all tests of core (vitest.shared.ts).
  testRunnerNodeArgs: ['--interrupt-budget=500000'],
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 10_000,
  // Every statement is counted in the first run, of code that is run very often.
  dryRunTimeoutMinutes: 60,
  // What was tried before is not tried again until it, or a test of it, changes: the whole takes many hours.
  incremental: true,
  incrementalFile: '.data/mutation-known.json',
  reporters: ['clear-text', 'progress', 'json'],
  jsonReporter: { fileName: '.data/mutation.json' },
  tempDirName: '.data/stryker',
};
