// npm run -s fendrix -- COMMAND: the command line; standard output is its JSON only.
import { join } from 'node:path';
import { checkNode, ensureEngine, ensurePackages, root, run } from './prepare.mjs';

checkNode();
ensurePackages();
ensureEngine();
// File names are meant from where the command was typed, not from the project's folder.
const typedIn = process.env.INIT_CWD ?? process.cwd();
const words = [
  '--import',
  import.meta.resolve('tsx'),
  join(root, 'apps/cli/src/main.ts'),
  ...process.argv.slice(2),
];
process.exitCode = await run(process.execPath, words, {}, typedIn);
