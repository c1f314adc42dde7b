/**
 * Compiles the engine to WebAssembly and writes it as a module of text, which browsers and Node load alike.
 * The same sources as the plain engine, translated; those that this folder has too are taken from here.
 */
import { readdir, readFile, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';
import { tableCalls } from './tableCalls.mjs';
import { singleFields, translate } from './translate.mjs';

const here = dirname(fileURLToPath(import.meta.url));
const engine = join(here, '../src/engine');
const target = join(engine, 'engineBytes.ts');
const flags = ['--runtime', 'stub', '-O3', '--noAssert', '--enable', 'simd', '--uncheckedBehavior', 'always'];

const own = await textsOf(here, 'wasm');
const shared = await textsOf(engine, 'src/engine');
own['wasm/tableCalls.ts'] = tableCalls(shared['src/engine/tables.ts']);
const fields = singleFields(shared);

let bytes = null;
const { error, stderr } = await asc.main(
  ['wasm/entry.ts', '--baseDir', '.', '--outFile', 'engine.wasm', ...flags, ...process.argv.slice(2)],
  {
    readFile: (name) => {
      const replacement = own[`wasm/${basename(name)}`];
      if (replacement) return replacement;
      return shared[name] ? translate(name, shared[name], fields) : null;
    },
    writeFile: (name, contents) => {
      if (name.endsWith('.wasm')) bytes = contents;
    },
    listFiles: () => [],
  },
);
if (error || bytes === null) {
  console.error(stderr.toString());
  throw new Error('the engine could not be compiled to WebAssembly', { cause: error });
}
await writeFile(
  target,
  `/** The engine as WebAssembly, in base64; made by packages/core/wasm/build.mjs. */\nexport const ENGINE_BYTES =\n  '${Buffer.from(bytes).toString('base64')}';\n`,
);
console.log(`engine: ${bytes.length} bytes of WebAssembly`);

/** Text of each module of a folder and those within it, by its name. */
async function textsOf(folder, name) {
  const texts = {};
  for (const file of await readdir(folder, { recursive: true })) {
    if (!file.endsWith('.ts') || file === 'engineBytes.ts') continue;
    texts[`${name}/${file}`] = await readFile(join(folder, file), 'utf8');
  }
  return texts;
}
