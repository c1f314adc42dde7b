import { sampleEmitter } from './emitters.js';
import { Kernel } from './kernel.js';
import {
  EMITTER_STRIDE,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  LIGHT_PASSED,
  LIGHT_SAMPLE,
  RAY_TO,
  VIEW_ORIGIN,
  VIEW_RIGHT,
} from './layouts.js';
import { PatchGatherer } from './path/gather.js';
import { Passage } from './path/passage.js';
import { PathTracer } from './path/pathTracer.js';
import { type i32, real } from './portable.js';
import { Sampler } from './sampler.js';
import { Sight } from './sight.js';
import { SurfaceModels } from './surfaces/surfaceModels.js';
import type { SceneTables } from './tables.js';
import { openBlock, TileRenderer, viewRay } from './tile.js';

/** Rays of one batch, 8 numbers each. */
export const BATCH_RAYS = 256;

/** A scene made ready for tracing: the parts of the engine tied together. */
export class Engine {
  tables: SceneTables;
  kernel: Kernel;
  sampler: Sampler;
  models: SurfaceModels;
  tracer: PathTracer;
  tiles: TileRenderer;
  passage: Passage;
  sight: Sight;
  /** Result of `sampleLight`: 0-2 direction, 3 distance, 4 density, 5 luminance, 6-8 part that passes. */
  light: Float64Array = new Float64Array(LIGHT_SAMPLE);
  /** Where a question starts and in which direction. */
  point: Float64Array = new Float64Array(3);
  direction: Float64Array = new Float64Array(3);
  /** Rays as `Kernel.ray` takes them; answered in place by `castBatch`. */
  batch: Float64Array = new Float64Array(8 * BATCH_RAYS);

  constructor(tables: SceneTables, seed: i32) {
    const kernel = new Kernel(tables);
    const sampler = new Sampler(seed);
    const models = new SurfaceModels(tables);
    const tracer = new PathTracer(tables, kernel, sampler, models);
    this.tables = tables;
    this.kernel = kernel;
    this.sampler = sampler;
    this.models = models;
    this.tracer = tracer;
    this.tiles = new TileRenderer(tracer, sampler);
    this.passage = new Passage(tables, kernel, models);
    this.sight = new Sight(tables, kernel, models);
  }

  createGatherer(rays: i32): PatchGatherer {
    return new PatchGatherer(this.tables, this.kernel, this.tracer, this.sampler, this.models, rays);
  }

  /** Asks about the first `count` rays of the batch; writes primitive and distance of each, see `RAY_PRIMITIVE`. */
  castBatch(count: i32, any: boolean): void {
    const kernel = this.kernel;
    const batch = this.batch;
    const ray = kernel.ray;
    for (let i = 0; i < count; i++) {
      const o = 8 * i;
      for (let a = 0; a < 8; a++) ray[a] = batch[o + a];
      if (any) batch[o + 6] = kernel.anyHit() ? 0 : -1;
      else batch[o + 6] = real(kernel.closestHit());
      batch[o + 7] = ray[RAY_TO];
    }
  }

  /** Rays of the camera through the middles of the pixels of a block, row after row, as `castBatch` answers them. */
  castBlock(px: i32, py: i32, columns: i32, rows: i32, width: i32, height: i32): void {
    const kernel = this.kernel;
    const view = this.tiles.view;
    const batch = this.batch;
    const ray = kernel.ray;
    for (let a = 0; a < 3; a++) this.point[a] = view[VIEW_ORIGIN + a];
    openBlock(kernel, view, px, py, columns, rows, width, height);
    let o: i32 = 0;
    for (let y = py; y < py + rows; y++) {
      const down = (real(y) + 0.5) / real(height);
      for (let x = px; x < px + columns; x++) {
        viewRay(this.direction, view, (real(x) + 0.5) / real(width), down);
        kernel.setRay(this.point, this.direction, Infinity);
        batch[o + 6] = real(kernel.closestInView());
        batch[o + 7] = ray[RAY_TO];
        o += 8;
      }
    }
  }

  /** Adds what arrives at `point` against `direction` to the tracer's films. */
  trace(scattered: boolean): void {
    for (let a = 0; a < 3; a++) this.tracer.level[a] = this.tiles.view[VIEW_RIGHT + a];
    this.tracer.trace(this.point, this.direction, scattered);
  }

  /**
   * Samples one light from `point`, by the sampler's next two numbers.
   * @returns false where it cannot shine here or nothing passes
   */
  sampleLight(index: i32): boolean {
    const light = this.light;
    this.sampler.next();
    if (!sampleEmitter(light, this.tables, index * EMITTER_STRIDE, this.point, this.sampler.uv)) return false;
    if (!(light[LIGHT_LUMINANCE] > 0)) return false;
    if (!this.passage.between(this.point, light, light[LIGHT_DISTANCE])) return false;
    for (let c = 0; c < 3; c++) light[LIGHT_PASSED + c] = this.passage.passed[c];
    return true;
  }
}
