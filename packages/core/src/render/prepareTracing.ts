import type { Camera, SetDocument } from '@fendrix/contract';
import { SurfaceModels } from '../engine/surfaces/surfaceModels.js';
import { SceneTables } from '../engine/tables.js';
import { buildScene, type Scene } from '../geometry/scene.js';
import { CAUSTIC_TABLES, LIGHTMAP_TABLES } from '../trace/bakedTables.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { packScene } from '../trace/packScene.js';
import { createPlainEngine } from '../trace/plainEngine.js';
import { createWasmEngine } from '../trace/wasmEngine.js';
import { keepPhotons, PHOTONS, sendPhotons } from './bakeCaustics.js';
import { BAKE_RAYS, type Gathered, gatherPatches, solveLightmaps } from './bakeLightmaps.js';
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

/**
 * @param which 'plain' takes the reference even where WebAssembly is there
 * @param like of a set of which only places differ, as in a drag: its bounding tree is made to fit, which is quicker. Rays meet the
 * same; where two things are met at the very same distance it may be the other one.
 */
export function prepareTracing(
  set: SetDocument,
  which: 'best' | 'plain' = 'best',
  like: SceneTables | null = null,
): Tracing {
  const scene = buildScene(set);
  const tables = packScene(scene, like);
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

/**
 * Bakes the light of the lightmaps, and what is bundled onto surfaces, where that has not been done.
 * @param effort rays a patch, photons in all: less where the light is not what is looked at
 */
export function bakeLightmaps(tracing: Tracing, { rays = BAKE_RAYS, photons = PHOTONS } = {}): void {
  if (tracing.tables.lit !== 0) return;
  solveLight(tracing, [gatherLight(tracing, 0, 1, rays)]);
  keepLight(tracing, [sendLight(tracing, 0, 1, photons)]);
}

/*
 * The same in pieces, for several workers: gathered in parts by any of them, solved by one, bundled light sent in parts by those
 * that were given what was solved, kept by one. What comes out is the same to the last bit.
 */

/** Gathers a part of so many of the patches of lightmaps. */
export function gatherLight(tracing: Tracing, part = 0, of = 1, rays = BAKE_RAYS): Gathered {
  const { tables, engine, lightmapLayout: layout } = tracing;
  if (tables.pathGuide.length > 0) forgetLight(tracing);
  const first = Math.floor((part * layout.patches) / of);
  const count = Math.floor(((part + 1) * layout.patches) / of) - first;
  return gatherPatches(engine, layout, tables.channelCount, first, count, { rays, seed: 1 });
}

/** Solves the lightmaps. @param parts of all patches */
export function solveLight(
  { tables, engine, lightmapLayout }: Tracing,
  parts: readonly Gathered[],
): BakedLight {
  solveLightmaps(tables, lightmapLayout, parts);
  engine.renewLightmaps();
  return bakedLight(tables);
}

/** Sends a part of so many of what is bundled, where lightmaps are solved. */
export function sendLight(
  { tables, engine, models }: Tracing,
  part = 0,
  of = 1,
  photons = PHOTONS,
): Float32Array {
  return sendPhotons(tables, engine, models, part, of, photons);
}

/** Keeps what was sent: then all light is known. @param photons all parts */
export function keepLight({ tables, engine, models }: Tracing, photons: readonly Float32Array[]): BakedLight {
  keepPhotons(tables, engine, models, photons);
  tables.lit = 1;
  return bakedLight(tables);
}

/** As before anything was baked: what is gathered is not to depend on what was known. */
function forgetLight({ tables, engine, lightmapLayout }: Tracing): void {
  const { pathGuide, lightSamples, bundles, texelSizes, texelKeys, texelStarts, bundled } = new SceneTables();
  Object.assign(tables, { pathGuide, lightSamples, bundles, texelSizes, texelKeys, texelStarts, bundled });
  tables.lit = 0;
  packLightmaps(tables, lightmapLayout);
  engine.renewLightmaps();
  engine.renewCaustics();
}

/** All that baking writes into the tables. */
export type BakedLight = Pick<
  SceneTables,
  (typeof LIGHTMAP_TABLES)[number] | (typeof CAUSTIC_TABLES)[number] | 'lit'
>;

export function bakedLight(tables: SceneTables): BakedLight {
  return Object.fromEntries(
    [...LIGHTMAP_TABLES, ...CAUSTIC_TABLES, 'lit' as const].map((name) => [name, tables[name]]),
  ) as unknown as BakedLight;
}

/** Puts light that was baked for the same scene elsewhere to use. */
export function takeBakedLight({ tables, engine }: Tracing, light: BakedLight): void {
  Object.assign(tables, light);
  engine.renewLightmaps();
  engine.renewCaustics();
}
