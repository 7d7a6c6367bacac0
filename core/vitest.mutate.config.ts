import { defineConfig } from 'vitest/config';

// For `npm run mutate`: the tests beside what is changed. Those of other rooms run whole builds and take minutes a mutant.
export default defineConfig({
  test: {
    environment: 'node',
    include: ['src/{rules,timing,coverage,state}/**/*.test.ts'],
    exclude: ['src/rules/check.test.ts'],
    testTimeout: 120_000,
  },
});
