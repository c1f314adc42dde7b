import { SceneTables } from '../src/engine/tables.js';
import type { PrimitiveTable } from '../src/geometry/primitives.js';
import type { EngineCalls } from '../src/trace/engineCalls.js';
import { packPrimitives } from '../src/trace/packScene.js';
import { createPlainEngine } from '../src/trace/plainEngine.js';
import { createWasmEngine } from '../src/trace/wasmEngine.js';

type CreateEngine = (tables: SceneTables) => EngineCalls | null;

/** Both engines, for `describe.each`. */
export const engines: [string, CreateEngine][] = [
  ['plain', createPlainEngine],
  ['wasm', createWasmEngine],
];

export const sides = { thing: 0, front: 0, back: 0 };

/** An engine over primitives alone. */
export function engineOf(create: CreateEngine, table: PrimitiveTable): EngineCalls {
  const tables = new SceneTables();
  packPrimitives(tables, table);
  const engine = create(tables);
  if (!engine) throw new Error('this machine has WebAssembly');
  return engine;
}
