import type { Camera, SetDocument } from '@fendrix/contract';
import type { SceneTables } from '../engine/tables.js';
import { buildScene, type Scene } from '../geometry/scene.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { packScene } from '../trace/packScene.js';
import { createPlainEngine } from '../trace/plainEngine.js';
import { createWasmEngine } from '../trace/wasmEngine.js';
import { BAKE_RAYS, gatherPatches, solveSheets } from './bakeSheets.js';
import { layOutSheets, packSheets, type SheetLayout } from './litSheets.js';
import { type View, viewOf } from './view.js';

/** A set made ready for tracing; kept as long as its geometry stays. */
export interface Tracing {
  scene: Scene;
  tables: SceneTables;
  kernel: EngineCalls;
  view: View;
  sheets: SheetLayout;
}

/** @param engine 'plain' takes the reference even where WebAssembly is there */
export function prepareTracing(set: SetDocument, engine: 'best' | 'plain' = 'best'): Tracing {
  const scene = buildScene(set);
  const tables = packScene(scene);
  const sheets = layOutSheets(scene, tables);
  packSheets(tables, sheets);
  const kernel = (engine === 'best' ? createWasmEngine(tables) : null) ?? createPlainEngine(tables);
  return { scene, tables, kernel, view: viewOf(set.camera), sheets };
}

/** The same scene by another camera: everything that does not depend on it is kept, the light of the sheets too. */
export function seenBy(tracing: Tracing, camera: Camera): Tracing {
  return { ...tracing, view: viewOf(camera) };
}

/** Bakes the light of the sheets where that has not been done. */
export function lightSheets({ tables, kernel, sheets }: Tracing, rays = BAKE_RAYS): void {
  if (tables.lit !== 0) return;
  const whole = gatherPatches(kernel, sheets, tables.channelCount, 0, sheets.patches, { rays, seed: 1 });
  solveSheets(tables, sheets, [whole]);
  kernel.renewSheets();
}
