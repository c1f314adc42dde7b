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
  'room.ts',
  'frustum.ts',
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
        return staticArrays(unrolled(portable(await readFile(path, 'utf8'))));
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

/** Loops over three axes or colours are written out three times: the compiler would count. */
function unrolled(source) {
  const loop = /for \(let (\w) = 0; \1 < 3; \1\+\+\) /;
  let done = '';
  let rest = source;
  for (let found = loop.exec(rest); found; found = loop.exec(rest)) {
    const from = found.index + found[0].length;
    const end = endOfStatement(rest, from);
    const body = rest.slice(from, end);
    const isPlain = !/\b(break|continue)\b/.test(body);
    const rounds = [0, 1, 2].map((value) => `{ const ${found[1]}: i32 = ${value}; ${body} }`);
    done += rest.slice(0, found.index) + (isPlain ? `{ ${rounds.join(' ')} }` : found[0] + body);
    rest = rest.slice(end);
  }
  return done + rest;
}

/** Where a statement ends that starts at `from`: behind its semicolon, or its closing brace. */
function endOfStatement(source, from) {
  let depth = 0;
  for (let i = from; i < source.length; i++) {
    if ('{(['.includes(source[i])) depth++;
    if ('})]'.includes(source[i])) depth--;
    if (depth === 0 && (source[i] === ';' || (source[i] === '}' && source[from] === '{'))) return i + 1;
  }
  throw new Error('a statement without an end');
}

/** Arrays of fixed size lie where their reference points: one load less for each number. */
function staticArrays(source) {
  return source
    .replace(/\bFloat64Array\b/g, 'StaticArray<f64>')
    .replace(/\bFloat32Array\b/g, 'StaticArray<f32>')
    .replace(/\bInt32Array\b/g, 'StaticArray<i32>');
}
