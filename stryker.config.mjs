export default {
  testRunner: 'vitest',
  vitest: { configFile: 'core/vitest.mutate.config.ts', dir: 'core' },
  mutate: [
    'core/src/{rules,timing,coverage,state}/**/*.ts',
    '!core/src/**/*.test.ts',
    '!core/src/timing/library.ts',
  ],
  coverageAnalysis: 'perTest',
  ignoreStatic: true,
  concurrency: 2,
  timeoutMS: 60_000,
  // What was tried before is not tried again until it, or a test of it, changes: the whole takes many hours.
  incremental: true,
  incrementalFile: '.data/mutation-known.json',
  reporters: ['clear-text', 'progress', 'json'],
  jsonReporter: { fileName: '.data/mutation.json' },
  tempDirName: '.data/stryker',
};
