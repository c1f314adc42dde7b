// npm test: lint, types, imports, unit tests, end-to-end tests; stops at the first that fails.
import { bin, checkNode, ensureBrowser, ensureMade, ensurePackages, giveUp, run } from './prepare.mjs';

checkNode();
ensurePackages();
ensureMade();
const browser = ensureBrowser();
const steps = [
  ['lint and format', bin('biome'), ['check', '.']],
  ['types of the engine', bin('tsc'), ['-p', 'tsconfig.engine.json']],
  ['types of the core', bin('tsc'), ['-p', 'tsconfig.core.json']],
  ['types of server and command line', bin('tsc'), ['-p', 'tsconfig.node.json']],
  ['types of the pages and of all tests', bin('tsc'), ['-p', 'tsconfig.json']],
  ['imports', process.execPath, ['scripts/check-imports.mjs']],
  ['unit tests', bin('vitest'), ['run', '--tagsFilter', '!more']],
  ['build', bin('vite'), ['build', 'apps/web', '--logLevel', 'error']],
  ['end-to-end tests', bin('playwright'), ['test', '-c', 'e2e', '--grep-invert', '@more']],
];
for (const [name, command, words] of steps) {
  process.stdout.write(`\n== ${name}\n`);
  const start = Date.now();
  const code = await run(command, words, { FENDRIX_BROWSER: browser });
  if (code !== 0) giveUp(`${name} failed`);
  process.stdout.write(`== ${name}: ok, ${((Date.now() - start) / 1000).toFixed(1)} s\n`);
}
