import { join } from 'node:path';
import { defineConfig } from 'vite';

const root = join(import.meta.dirname, '../..');

/** The command line and its render worker as two programs: reading them from their sources takes over a second each. */
export default defineConfig({
  root: import.meta.dirname,
  ssr: { noExternal: ['zod'] },
  build: {
    ssr: true,
    target: 'node20',
    emptyOutDir: true,
    rolldownOptions: {
      input: {
        fendrix: join(root, 'apps/cli/src/main.ts'),
        nodeWorker: join(root, 'packages/workers/src/nodeWorker.ts'),
      },
      output: { entryFileNames: '[name].mjs', chunkFileNames: '[name]-[hash].mjs' },
    },
  },
});
