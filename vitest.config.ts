import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    testTimeout: 60_000,
    // Path tracing keeps a core busy: more workers than cores only make each other slow.
    maxWorkers: 2,
    projects: [
      {
        extends: true,
        test: {
          name: 'packages',
          include: ['packages/*/test/**/*.test.ts'],
          // They hold nothing between files but caches: reading the modules once a worker saves half the time.
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'apps',
          include: ['apps/*/test/**/*.test.{ts,tsx}'],
          setupFiles: ['apps/web/test/patience.ts'],
        },
      },
    ],
  },
});
