import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { defineConfig } from '@playwright/test';

const root = fileURLToPath(new URL('..', import.meta.url));
const port = 4291;

// The configuration is read again by each worker process: only the first makes a data folder.
process.env.FENDRIX_E2E_DATA ??= mkdtempSync(join(tmpdir(), 'fendrix-e2e-'));

export default defineConfig({
  testDir: '.',
  outputDir: join(root, 'test-results'),
  timeout: 90_000,
  expect: { timeout: 20_000 },
  // The pictures of one page keep all cores busy.
  workers: 1,
  // On a shared machine a page may stand still for a while: what passes only then is reported as flaky, by name.
  retries: 1,
  fullyParallel: false,
  reporter: [['list']],
  use: {
    baseURL: `http://127.0.0.1:${port}`,
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
  webServer: {
    command: `${process.execPath} --import tsx apps/server/src/main.ts`,
    cwd: root,
    url: `http://127.0.0.1:${port}/api/health`,
    env: {
      FENDRIX_PORT: String(port),
      FENDRIX_DATA: process.env.FENDRIX_E2E_DATA,
      FENDRIX_WEB: join(root, 'apps/web/dist'),
      FENDRIX_DEMO: '1',
    },
  },
});
