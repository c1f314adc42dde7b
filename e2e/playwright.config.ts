import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig } from '@playwright/test';
import { addressOf, WORKERS } from './servers.js';

const root = fileURLToPath(new URL('..', import.meta.url));

// The configuration is read again by each worker process: only the first makes a data folder.
process.env.FENDRIX_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'fendrix-e2e-'));

const serverOf = (_: unknown, worker: number) => ({
  command: `${process.execPath} --import tsx apps/server/src/main.ts`,
  cwd: root,
  url: `${addressOf(worker)}/api/health`,
  env: {
    FENDRIX_PORT: new URL(addressOf(worker)).port,
    FENDRIX_DATA: join(process.env.FENDRIX_E2E_DATA ?? '', String(worker)),
    FENDRIX_WEB: join(root, 'apps/web/dist'),
    FENDRIX_DEMO: '1',
    FENDRIX_SET_SIDE_HOST: '127.0.0.1',
  },
});

export default defineConfig({
  testDir: '.',
  // What is tagged @more is solved and measured in unit tests too: `npm run test:more` plays it in the browser.
  outputDir: join(root, 'test-results'),
  // On a busy machine all takes up to twice as long as alone.
  timeout: 180_000,
  expect: { timeout: 40_000 },
  workers: WORKERS,
  // On a shared machine a page may stand still for a while: what passes only then is reported as flaky, by name.
  retries: 1,
  fullyParallel: false,
  reporter: [['list']],
  use: {
    viewport: { width: 1280, height: 800 },
    launchOptions: {
      ...(process.env.FENDRIX_BROWSER ? { executablePath: process.env.FENDRIX_BROWSER } : {}),
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
      ],
    },
  },
  webServer: Array.from({ length: WORKERS }, serverOf),
});
