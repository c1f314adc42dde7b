// npm run -s fendrix -- COMMAND: the command line; standard output is its JSON only.
import { checkNode, ensurePackages, run } from './prepare.mjs';

checkNode();
ensurePackages();
process.exitCode = await run(process.execPath, [
  '--import',
  'tsx',
  'apps/cli/src/main.ts',
  ...process.argv.slice(2),
]);
