import { defineConfig } from 'vite';

/** Threads of the server, each a file of its own with what it shares beside it. */
export default defineConfig({
  ssr: { noExternal: true },
  build: {
    ssr: true,
    outDir: 'build/threads',
    target: 'node20',
    rolldownOptions: {
      input: { digest: 'src/lib/server/digest.ts', read: 'src/lib/server/read.ts' },
      checks: { bundlerTimings: false },
    },
  },
});
