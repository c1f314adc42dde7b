// npm run -s backup -- COMMAND: backups without the page; standard output is its JSON only.
import { checkNode, ensureMade, ensurePackages, root, run } from './prepare.mjs';

checkNode();
ensurePackages();
ensureMade();
const words = ['--import', 'tsx', 'apps/server/src/backup/commandLine.ts', ...process.argv.slice(2)];
process.exitCode = await run(process.execPath, words, {}, root);
