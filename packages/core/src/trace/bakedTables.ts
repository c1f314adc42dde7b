import type { SceneTables } from '../engine/tables.js';

/** Tables that a bake fills: those of lightmaps, and those of bundled light. */
export const LIGHTMAP_TABLES = [
  'lightmaps',
  'irradiance',
  'bright',
  'cumulative',
  'coarse',
  'lightmapAt',
  'brightLightmap',
  'brightIndex',
  'pathGuide',
  'lightSamples',
] as const satisfies readonly (keyof SceneTables)[];

export const CAUSTIC_TABLES = [
  'bundles',
  'texelSizes',
  'texelKeys',
  'texelStarts',
  'bundled',
] as const satisfies readonly (keyof SceneTables)[];
