import type { i32 } from './portable.js';

/** A scene as numbers: what the engine reads and nothing else knows how to change. */
export class SceneTables {
  count: i32 = 0;
  /** First of the six walls of the room, see `Room`; -1 for none. */
  room: i32 = -1;
  kind: Int32Array = new Int32Array(0);
  data: Float64Array = new Float64Array(0);
  /** Index into `Scene.things`. */
  thing: Int32Array = new Int32Array(0);
  front: Int32Array = new Int32Array(0);
  back: Int32Array = new Int32Array(0);
  emitterOf: Int32Array = new Int32Array(0);

  surfaceCount: i32 = 0;
  surfaces: Float64Array = new Float64Array(0);
  /** Albedo tables of coats and lobes. */
  albedos: Float64Array = new Float64Array(0);
  tones: Float32Array = new Float32Array(0);
  media: Float64Array = new Float64Array(0);
  /** 1 where any medium splits light into colours. */
  splits: i32 = 0;

  emitterCount: i32 = 0;
  emitters: Float64Array = new Float64Array(0);
  rasters: Float32Array = new Float32Array(0);
  angles: Float64Array = new Float64Array(0);

  channelCount: i32 = 0;
  /** Film of each channel for level less upright light, that of the slants after it; -1 where they are not told apart. */
  planeChannel: Int32Array = new Int32Array(0);
  /** Direction in which the film before each emitter polarises, 3 numbers each, all 0 for none. */
  filmAxis: Float64Array = new Float64Array(0);
  surrounds: Int32Array = new Int32Array(0);
  /** 1 where any surface lets light through straight. */
  seeThrough: i32 = 0;

  /** Bounding tree of all but the room, see `buildBoundingTree`. */
  boxes: Float64Array = new Float64Array(0);
  children: Int32Array = new Int32Array(0);
  leaves: Int32Array = new Int32Array(0);
  order: Int32Array = new Int32Array(0);
  /** 6 a primitive: its least and most x y z. */
  bounds: Float64Array = new Float64Array(0);

  /** Lightmaps, see `LightmapLayout`. 1 once their light is known. */
  lit: i32 = 0;
  lightmapAt: Int32Array = new Int32Array(0);
  lightmaps: Float64Array = new Float64Array(0);
  irradiance: Float64Array = new Float64Array(0);
  /** 1 for each patch in which something stands that keeps no light: too coarse for what looks at it from near. */
  coarse: Int32Array = new Int32Array(0);
  brightLightmap: Int32Array = new Int32Array(0);
  brightIndex: Int32Array = new Int32Array(0);
  /** See `BRIGHT_POWER` and those below it. */
  bright: Float64Array = new Float64Array(0);
  cumulative: Float64Array = new Float64Array(0);
  /** Where light comes from above each patch, see `PathGuide`. */
  pathGuide: Float32Array = new Float32Array(0);
  /** How often each lamp and the bright lightmaps are sampled from each patch, see `packLightSamples`. */
  lightSamples: Int32Array = new Int32Array(0);

  /** 1 for each primitive that bundles light, the bundled light of which is known, see `Caustics`; empty while none is. */
  bundles: Int32Array = new Int32Array(0);
  /** Sides of the texels of each level, m, the finest first. */
  texelSizes: Float64Array = new Float64Array(0);
  /** Table of the texels that hold any: `TEXEL_KEY` numbers a slot, the first below 0 in a free one. */
  texelKeys: Int32Array = new Int32Array(0);
  /** First entry of each slot in `bundled`, and the end of the last. */
  texelStarts: Int32Array = new Int32Array(0);
  /** See `BUNDLED_FILM` and those below it. */
  bundled: Float32Array = new Float32Array(0);
}
