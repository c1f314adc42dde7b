import { describe, expect, it } from 'vitest';
import { tableCalls } from '../wasm/tableCalls.mjs';
import { singleFields, TranslationError, translate } from '../wasm/translate.mjs';

const lines = (text: string) => text.split('\n').map((line) => line.trim());

describe('translation of the engine to AssemblyScript', () => {
  it('imports values and types alike, without an ending, and leaves out what is built in', () => {
    const source = [
      "import type { i32 } from './portable.js';",
      "import { type i32, mul32 as times } from './portable.js';",
      "import type { Kernel } from './kernel.js';",
    ].join('\n');
    expect(lines(translate('a.ts', source))).toEqual([
      '',
      "import { mul32 as times } from './portable';",
      "import { Kernel } from './kernel';",
    ]);
  });

  it('turns typed arrays into arrays of fixed size', () => {
    const source = 'const a: Float64Array = new Float64Array(3); const b = new Int32Array(2);';
    expect(translate('a.ts', source)).toBe(
      'const a: StaticArray<f64> = new StaticArray<f64>(3); const b = new StaticArray<i32>(2);',
    );
  });

  it('leaves words in strings as they are', () => {
    expect(translate('a.ts', "const name = 'Float64Array';")).toBe("const name = 'Float64Array';");
  });

  it('writes loops over three out, also one within another', () => {
    const once = translate('a.ts', 'for (let a = 0; a < 3; a++) out[a] = a;');
    expect(once.match(/const a: i32 = (\d)/g)).toEqual([0, 1, 2].map((n) => `const a: i32 = ${n}`));
    const twice = translate('a.ts', 'for (let a = 0; a < 3; a++) { for (let b = 0; b < 3; b++) f(a, b); }');
    expect(twice.match(/f\(a, b\)/g)).toHaveLength(9);
    expect(twice).not.toMatch(/for/);
  });

  it.each([
    'for (let a = 0; a < 4; a++) f(a);',
    'for (let a = 1; a < 3; a++) f(a);',
    'for (let a = 0; a < 3; a++) { if (f(a)) break; }',
    'for (let a = 0; a < 3; a++) { if (f(a)) continue; g(a); }',
  ])('keeps other loops: %s', (source) => {
    expect(translate('a.ts', source)).toBe(source);
  });

  it('calculates with 32-bit numbers as with 64-bit ones, and rounds what is kept in them', () => {
    const tables = 'class Tables { tones: Float32Array = new Float32Array(0); }';
    const fields = singleFields({ 'tables.ts': tables, 'b.ts': 'class B { sums: Float64Array; }' });
    expect([...fields]).toEqual(['tones']);
    const source = 'const t = this.tables.tones; t[0] = t[1] * this.tables.tones[i];';
    expect(translate('a.ts', source, fields)).toBe(
      'const t = this.tables.tones; t[0] = f32(f64(t[1]) * f64(this.tables.tones[i]));',
    );
  });

  it('inlines what says so', () => {
    const source =
      '/** A sum. @inline */\nexport function f(): void {}\n/** Not this. */\nfunction g(): void {}';
    expect(lines(translate('a.ts', source))).toEqual([
      '',
      '@inline export function f(): void {}',
      '',
      'function g(): void {}',
    ]);
  });

  it('refuses the name of an array of 32-bit numbers for another', () => {
    const source = 'class A { tones: Float32Array; }\nfunction f(tones: Float64Array): void {}';
    expect(() => translate('a.ts', source)).toThrow(
      /^a\.ts:2:12 this name is taken by an array of 32-bit numbers/,
    );
  });

  it('keeps every line where it is', () => {
    const source = [
      '/**',
      ' * What it does.',
      ' */',
      'import {',
      '  type Kernel,',
      '  mul32,',
      "} from './kernel.js';",
      '',
      'export function sum(v: Float64Array): number {',
      '  let s: number = 0;',
      '  for (let a = 0; a < 3; a++) {',
      '    // What is added.',
      '    s += v[a];',
      '  }',
      '  return s;',
      '}',
    ].join('\n');
    const translated = lines(translate('a.ts', source));
    expect(translated).toHaveLength(16);
    expect(translated[8]).toMatch(/^export function sum/);
    expect(translated[14]).toBe('return s;');
  });

  it.each([
    ['const f = (x: number) => x;', 'a closure'],
    ['function f(x: number): number { return g(function () {}); }', 'a closure'],
    ['const { x } = v;', 'destructuring'],
    ['const [x] = v;', 'destructuring'],
    ['f(...v);', 'a spread'],
    ['let x: number | null;', 'a union'],
    ['const x = v!.x;', 'an assertion that something is there'],
    ['const x = v?.x;', 'an optional chain'],
    ['for (const x of v) f(x);', 'for of'],
    ['const x = { a: 1 };', 'an object without a class'],
  ])('refuses %s by file, line and column', (source, what) => {
    const refused = () => translate('tone.ts', `\n${source}`);
    expect(refused).toThrow(TranslationError);
    expect(refused).toThrow(new RegExp(`^tone\\.ts:2:\\d+ ${what} is not in the engine's subset`));
  });

  it('says where a file does not read', () => {
    expect(() => translate('a.ts', 'const a = 1;\nconst = 2;')).toThrow(/^a\.ts:2:7 /);
  });
});

describe('the tables of a scene in the memory of the engine', () => {
  it('has a call for each field, by its name and kind', () => {
    const calls = tableCalls(
      'export class SceneTables { count: i32 = 0; tones: Float32Array = new Float32Array(0); }',
    );
    expect(calls).toMatch(/export function set_count\(value: i32\): void {\n {2}tables\.count = value;/);
    expect(calls).toMatch(
      /export function size_tones\(length: i32\): usize {\n.*tables\.tones = new StaticArray<f32>\(length\)/,
    );
  });

  it('refuses a field that is neither a whole number nor a typed array', () => {
    expect(() =>
      tableCalls('export class SceneTables { name: string = ""; flag: Boolean = true; }'),
    ).toThrow();
    expect(() => tableCalls('export class SceneTables { list: Array<number> = []; }')).toThrow(
      /SceneTables\.list: Array/,
    );
  });
});
