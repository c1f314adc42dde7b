import type { Camera, SetDocument } from '@fendrix/contract';
import { SurfaceModels } from '../engine/surfaces/surfaceModels.js';
import type { SceneTables } from '../engine/tables.js';
import { buildScene, type Scene } from '../geometry/scene.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { packScene } from '../trace/packScene.js';
import { createPlainEngine } from '../trace/plainEngine.js';
import { createWasmEngine } from '../trace/wasmEngine.js';
import { bakeCaustics } from './bakeCaustics.js';
import { BAKE_RAYS, gatherPatches, solveLightmaps } from './bakeLightmaps.js';
import { type LightmapLayout, layOutLightmaps, packLightmaps } from './lightmaps.js';
import { type View, viewOf } from './view.js';

/** A set made ready for tracing; kept as long as its geometry stays. */
export interface Tracing {
  scene: Scene;
  tables: SceneTables;
  /** How each kind of surface scatters, for questions about traits. */
  models: SurfaceModels;
  engine: EngineCalls;
  view: View;
  lightmapLayout: LightmapLayout;
}

/** @param which 'plain' takes the reference even where WebAssembly is there */
export function prepareTracing(set: SetDocument, which: 'best' | 'plain' = 'best'): Tracing {
  const scene = buildScene(set);
  const tables = packScene(scene);
  const models = new SurfaceModels(tables);
  const lightmapLayout = layOutLightmaps(scene, tables, models);
  packLightmaps(tables, lightmapLayout);
  const engine = (which === 'best' ? createWasmEngine(tables) : null) ?? createPlainEngine(tables);
  return { scene, tables, models, engine, view: viewOf(set.camera), lightmapLayout };
}

/** The same scene by another camera: everything that does not depend on it is kept, the light of the lightmaps too. */
export function seenBy(tracing: Tracing, camera: Camera): Tracing {
  return { ...tracing, view: viewOf(camera) };
}

/** Bakes the light of the lightmaps, and what is bundled onto surfaces, where that has not been done. */
export function bakeLightmaps(
  { tables, engine, models, lightmapLayout: layout }: Tracing,
  rays = BAKE_RAYS,
): void {
  if (tables.lit !== 0) return;
  const whole = gatherPatches(engine, layout, tables.channelCount, 0, layout.patches, { rays, seed: 1 });
  solveLightmaps(tables, layout, [whole]);
  engine.renewLightmaps();
  bakeCaustics(tables, engine, models);
}
