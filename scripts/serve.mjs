// npm run demo and npm start: install, build, migrate, serve on one port.
import { rmSync } from 'node:fs';
import { join } from 'node:path';
import { bin, checkNode, ensureMade, ensurePackages, giveUp, root, run } from './prepare.mjs';

const words = process.argv.slice(2);
const demo = words.includes('--demo');
const fresh = words.includes('--fresh');
const unknown = words.find((word) => word !== '--demo' && word !== '--fresh');
if (unknown) giveUp(`there is no option "${unknown}"; npm run demo takes --fresh only`);
if (fresh && !demo) giveUp('--fresh starts the demo data over; npm start keeps your own data');

checkNode();
ensurePackages();
ensureMade();
process.stderr.write('Building the pages\n');
const built = await run(bin('vite'), ['build', 'apps/web', '--logLevel', 'error']);
if (built !== 0) giveUp('the pages could not be built; see the lines above');

const data = process.env.FENDRIX_DATA ?? join(root, '.data', demo ? 'demo' : 'own');
if (fresh) {
  for (const end of ['', '-wal', '-shm']) rmSync(join(data, `fendrix.sqlite${end}`), { force: true });
}
process.exitCode = await run(process.execPath, ['--import', 'tsx', 'apps/server/src/main.ts'], {
  FENDRIX_DATA: data,
  FENDRIX_WEB: join(root, 'apps', 'web', 'dist'),
  FENDRIX_DEMO: demo ? '1' : '0',
});
