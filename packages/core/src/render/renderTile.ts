import type { SetDocument } from '@fendrix/contract';
import { buildScene, type Scene } from '../geometry/scene.js';
import type { RayKernel } from '../trace/kernel.js';
import { createPlainKernel } from '../trace/plainKernel.js';
import type { Tile } from './film.js';
import { createPathTracer, type PathTracer } from './path.js';
import { createSampler } from './sampler.js';
import { rayThrough, type View, viewOf, viewOfShape } from './view.js';

/** A set made ready for tracing; kept as long as its geometry stays. */
export interface Tracing {
  scene: Scene;
  kernel: RayKernel;
  tracer: PathTracer;
  view: View;
}

export function prepareTracing(set: SetDocument): Tracing {
  const scene = buildScene(set);
  const kernel = createPlainKernel(scene.table);
  return { scene, kernel, tracer: createPathTracer(scene, kernel), view: viewOf(set.camera) };
}

export interface TileJob {
  /** Of the whole picture, px. */
  width: number;
  height: number;
  tile: Tile;
  firstSample: number;
  samples: number;
  seed: number;
  /** Quick picture: luminance that stands for bounced light, for each light (see `ambientByLight`). */
  ambient?: readonly number[];
}

/**
 * Samples every pixel of a tile (box filter over the pixel, pinhole) and returns the sums for each light,
 * in the layout of `Films` at the tile's size. The same job gives the same numbers on any worker.
 */
export function renderTile(tracing: Tracing, job: TileJob): Float32Array {
  const { scene, tracer } = tracing;
  const { tile, width, height } = job;
  const view = viewOfShape(tracing.view, width, height);
  const lights = scene.lightCount;
  const sums = new Float32Array(tile.width * tile.height * lights * 3);
  const ambient = job.ambient ? Float64Array.from(job.ambient) : null;
  const pixelSums = new Float64Array(Math.max(1, lights * 3));
  const origin = Float64Array.from(view.origin);
  const direction = new Float64Array(3);
  const sampler = createSampler(job.seed);
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x++) {
      const px = tile.x + x;
      const py = tile.y + y;
      pixelSums.fill(0);
      for (let i = 0; i < job.samples; i++) {
        sampler.start(py * width + px, job.firstSample + i);
        sampler.next();
        const u = sampler.uv[0] as number;
        const v = sampler.uv[1] as number;
        rayThrough(direction, view, (px + u) / width, (py + v) / height);
        tracer.trace(pixelSums, sampler, origin, direction, false, ambient);
      }
      for (let light = 0; light < lights; light++) {
        const at = ((light * tile.height + y) * tile.width + x) * 3;
        for (let c = 0; c < 3; c++) sums[at + c] = pixelSums[3 * light + c] as number;
      }
    }
  }
  return sums;
}
