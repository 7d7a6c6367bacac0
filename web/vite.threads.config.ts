import { join } from 'node:path';
import { defineConfig } from 'vite';

/** Threads of the server and its commands, each a file of its own with what it shares beside it. */
export default defineConfig({
  ssr: { noExternal: true },
  resolve: { alias: { $lib: join(import.meta.dirname, 'src/lib') } },
  build: {
    ssr: true,
    outDir: 'build/threads',
    target: 'node20',
    rolldownOptions: {
      input: {
        digest: 'src/lib/server/digest.ts',
        read: 'src/lib/server/read.ts',
        backup: 'src/lib/server/backup/command.ts',
      },
      checks: { bundlerTimings: false },
    },
  },
});
