import { defineConfig } from 'vite';

/** Threads of the server, each a file of its own that holds all it needs. */
export default defineConfig({
  ssr: { noExternal: true },
  build: {
    ssr: 'src/lib/server/digest.ts',
    outDir: 'build/threads',
    target: 'node20',
  },
});
