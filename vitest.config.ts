import { readdirSync, readFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';
import { defineConfig } from 'vitest/config';

const PAGE_TESTS = 'apps/web/test';

/** Tests that put a stand-in in the place of a module: one that another file has read before would not see it. */
const replacing = readdirSync(fileURLToPath(new URL(PAGE_TESTS, import.meta.url)))
  .filter((name) => /\.test\.tsx?$/.test(name))
  .map((name) => `${PAGE_TESTS}/${name}`)
  .filter((path) =>
    /vi\.(mock|doMock)\(/.test(readFileSync(fileURLToPath(new URL(path, import.meta.url)), 'utf8')),
  );

const page = { setupFiles: [`${PAGE_TESTS}/patience.ts`] };

export default defineConfig({
  test: {
    testTimeout: 60_000,
    // Path tracing keeps a core busy: more workers than cores only make each other slow.
    maxWorkers: 2,
    tags: [
      { name: 'more', description: 'The same on more sets and seeds: npm run test:more', timeout: 240_000 },
    ],
    // Files hold nothing between them but caches: reading the modules once a worker saves a quarter of the time.
    projects: [
      {
        extends: true,
        test: {
          name: 'packages, server, command line',
          include: ['{packages/*,apps/server,apps/cli}/test/**/*.test.ts'],
          isolate: false,
        },
      },
      {
        extends: true,
        test: {
          name: 'web',
          ...page,
          include: [`${PAGE_TESTS}/**/*.test.{ts,tsx}`],
          exclude: replacing,
          isolate: false,
        },
      },
      { extends: true, test: { name: 'web, modules replaced', ...page, include: replacing } },
    ],
  },
});
