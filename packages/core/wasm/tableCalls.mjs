/** Writes how a scene's tables are put into the memory of the engine, from the declaration of `SceneTables`. */
import { parseSync } from 'vite';

const NUMBERS = { Float64Array: 'f64', Float32Array: 'f32', Int32Array: 'i32' };

/**
 * An AssemblyScript module with the tables of the scene, and for each field of the class `SceneTables` a function:
 * `size_name(length)` makes an array and returns where its numbers start, `set_name(value)` sets a whole number.
 * @param source text of engine/tables.ts
 */
export function tableCalls(source) {
  const { program } = parseSync('tables.ts', source, { lang: 'ts' });
  const { declaration } = program.body.find(({ declaration: one }) => one?.id?.name === 'SceneTables');
  const calls = declaration.body.body.map((field) => {
    const { name } = field.key;
    const type = field.typeAnnotation.typeAnnotation.typeName?.name;
    if (type === 'i32')
      return `export function set_${name}(value: i32): void {\n  tables.${name} = value;\n}`;
    const number = NUMBERS[type];
    if (!number)
      throw new Error(`SceneTables.${name}: ${type ?? 'its type'} is neither i32 nor a typed array`);
    return `export function size_${name}(length: i32): usize {
  return changetype<usize>((tables.${name} = new StaticArray<${number}>(length)));
}`;
  });
  return [
    "import { SceneTables } from '../src/engine/tables';",
    'export const tables = new SceneTables();',
    ...calls,
  ].join('\n\n');
}
