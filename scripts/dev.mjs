// npm run dev: the server with the demo data, and the pages rebuilt as they are edited.
import { join } from 'node:path';
import { bin, checkNode, ensureMade, ensurePackages, root, run } from './prepare.mjs';

checkNode();
ensurePackages();
ensureMade();
const server = run(process.execPath, ['--watch', '--import', 'tsx', 'apps/server/src/main.ts'], {
  FENDRIX_DATA: join(root, '.data', 'dev'),
  FENDRIX_DEMO: '1',
  FENDRIX_LOG: 'info',
  FENDRIX_ORIGINS: 'http://127.0.0.1:5180,http://localhost:5180',
});
const pages = run(bin('vite'), ['apps/web']);
await Promise.race([server, pages]);
