import { sveltekit } from '@sveltejs/kit/vite';
import { optimizeCss } from 'carbon-preprocess-svelte';
import type { Plugin } from 'vite';
import { defineConfig } from 'vitest/config';

/** Carbon's CSS names fonts on a remote host; ours ship with the app. */
function localFonts(): Plugin {
  return {
    name: 'carbon-local-fonts',
    enforce: 'pre',
    transform: {
      filter: { id: /carbon-components-svelte\/css\/\w+\.css/ },
      handler: (code) => ({ code: code.replace(/@font-face\s*\{[^}]*\}/g, ''), map: null }),
    },
  };
}

export default defineConfig({
  plugins: [localFonts(), sveltekit(), optimizeCss()],
  optimizeDeps: { include: ['comlink', 'gifenc', 'three', 'zod'] },
  worker: { format: 'es' },
  build: {
    target: 'es2023',
    chunkSizeWarningLimit: 900,
    rolldownOptions: { checks: { bundlerTimings: false } },
  },
  test: {
    environment: 'node',
    include: ['src/**/*.test.ts'],
    // Bounds for what never comes, not measures: a machine may be very busy.
    testTimeout: 300_000,
    hookTimeout: 300_000,
    fileParallelism: false,
    // What is tested here keeps no state between files, and to read all of it anew for each takes longer than the tests.
    isolate: false,
    setupFiles: ['../core/test/seed.ts'],
  },
});
