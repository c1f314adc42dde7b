/**
 * Compiles the engine to WebAssembly and writes it as a module of text, which browsers and Node load alike.
 * The same sources as the plain engine; `portable`, `kernel` and `blend` are replaced by those of this folder.
 */
import { readFile, writeFile } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import { fileURLToPath } from 'node:url';
import asc from 'assemblyscript/asc';

const here = dirname(fileURLToPath(import.meta.url));
const target = join(here, '../src/engine/engineBytes.ts');
const replaced = new Set([
  'portable.ts',
  'kernel.ts',
  'packs.ts',
  'primitives.ts',
  'wideRay.ts',
  'wideTree.ts',
  'blend.ts',
]);
const flags = ['--runtime', 'stub', '-O3', '--noAssert', '--enable', 'simd', '--uncheckedBehavior', 'always'];

let bytes = null;
const { error, stderr } = await asc.main(
  [join(here, 'entry.ts'), '--baseDir', '/', '--outFile', 'engine.wasm', ...flags, ...process.argv.slice(2)],
  {
    readFile: async (name, baseDir) => {
      const path = join(baseDir, name).replace(/\.js\.ts$/, '.ts');
      try {
        if (path.includes('/src/engine/') && replaced.has(basename(path))) {
          const own = await readFile(join(here, basename(path)), 'utf8').catch(() => null);
          if (own !== null) return staticArrays(own);
        }
        return staticArrays(portable(await readFile(path, 'utf8')));
      } catch {
        return null;
      }
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

/** AssemblyScript has i32 built in and resolves modules without an ending. */
function portable(source) {
  return source
    .replace(/import type \{ i32 \} from '\.\/portable\.js';\n/g, '')
    .replace(/\btype i32,\s*/g, '')
    .replace(/,\s*type i32\b/g, '')
    .replace(/import type \{/g, 'import {')
    .replace(/([{,]\s*)type (\w)/g, '$1$2')
    .replace(/(from '[^']+)\.js'/g, "$1'");
}

/** Arrays of fixed size lie where their reference points: one load less for each number. */
function staticArrays(source) {
  return source
    .replace(/\bFloat64Array\b/g, 'StaticArray<f64>')
    .replace(/\bFloat32Array\b/g, 'StaticArray<f32>')
    .replace(/\bInt32Array\b/g, 'StaticArray<i32>');
}
