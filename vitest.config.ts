import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    testTimeout: 60_000,
    // Path tracing keeps a core busy: more workers than cores only make each other slow.
    maxWorkers: 2,
    tags: [
      { name: 'more', description: 'The same on more sets and seeds: npm run test:more', timeout: 240_000 },
    ],
    projects: [
      {
        extends: true,
        test: {
          name: 'packages, server, command line',
          include: ['{packages/*,apps/server,apps/cli}/test/**/*.test.ts'],
          // They hold nothing between files but caches: reading the modules once a worker saves a quarter of the time.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'web',
          include: ['apps/web/test/**/*.test.{ts,tsx}'],
          setupFiles: ['apps/web/test/patience.ts'],
        },
      },
    ],
  },
});
