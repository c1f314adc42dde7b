import { defineConfig } from 'vitest/config';

export default defineConfig({
  test: {
    include: ['packages/*/test/**/*.test.ts', 'apps/*/test/**/*.test.{ts,tsx}'],
    testTimeout: 60_000,
    // Path tracing keeps a core busy: more workers than cores only make each other slow.
    maxWorkers: 2,
  },
});
