import type { SetDocument } from '@fendrix/contract';
import { buildScene, type Scene } from '../geometry/scene.js';
import type { RayKernel } from '../trace/kernel.js';
import { createPlainKernel } from '../trace/plainKernel.js';
import { BAKE_RAYS, bakeSheets } from './bakeSheets.js';
import type { Tile } from './film.js';
import type { LitSheets } from './litSheets.js';
import { createPathTracer, type PathTracer, type TraceMode } from './path.js';
import { createSampler } from './sampler.js';
import { rayThrough, type View, viewOf, viewOfShape } from './view.js';

/** A set made ready for tracing; kept as long as its geometry stays. */
export interface Tracing {
  scene: Scene;
  kernel: RayKernel;
  tracer: PathTracer;
  view: View;
  /** The sheets' light, baked when first asked for. */
  litSheets(): LitSheets;
}

export function prepareTracing(set: SetDocument): Tracing {
  const scene = buildScene(set);
  const kernel = createPlainKernel(scene.table);
  const tracer = createPathTracer(scene, kernel);
  let lit: LitSheets | null = null;
  const litSheets = () => {
    lit ??= bakeSheets(scene, kernel, tracer, { rays: BAKE_RAYS, seed: 1 });
    return lit;
  };
  return { scene, kernel, tracer, view: viewOf(set.camera), litSheets };
}

export interface TileJob {
  /** Of the whole picture, px. */
  width: number;
  height: number;
  tile: Tile;
  firstSample: number;
  samples: number;
  seed: number;
  /** Quick picture: luminance that stands for bounced light, for each film (see `ambientByLight`). */
  ambient?: readonly number[];
  /** Trace the whole path of light instead of ending it on lit sheets: slower, without their bias. */
  wholePaths?: boolean;
}

/**
 * Samples every pixel of a tile (box filter over the pixel; pinhole, or the lens's entrance pupil where depth of
 * field is on) and returns the sums for each film, in the layout of `Films` at the tile's size.
 * The same job gives the same numbers on any worker.
 */
export function renderTile(tracing: Tracing, job: TileJob): Float32Array {
  const { scene, tracer } = tracing;
  const { tile, width, height } = job;
  const view = viewOfShape(tracing.view, width, height);
  const channels = scene.channelCount;
  const sums = new Float32Array(tile.width * tile.height * channels * 3);
  const ambient = job.ambient ? Float64Array.from(job.ambient) : null;
  const lit = ambient || job.wholePaths ? null : tracing.litSheets();
  const mode: TraceMode = { skipFirstLight: false, ambient, lit, record: null };
  const pixelSums = new Float64Array(Math.max(1, channels * 3));
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
        if (view.pupilRadiusM > 0) {
          sampler.next();
          throughPupil(origin, direction, view, sampler.uv);
        }
        tracer.trace(pixelSums, sampler, origin, direction, mode);
      }
      for (let channel = 0; channel < channels; channel++) {
        const at = ((channel * tile.height + y) * tile.width + x) * 3;
        for (let c = 0; c < 3; c++) sums[at + c] = pixelSums[3 * channel + c] as number;
      }
    }
  }
  return sums;
}

/** Moves a ray to a place of the entrance pupil so that it still meets its point of the plane in focus. */
function throughPupil(origin: Float64Array, direction: Float64Array, view: View, uv: Float64Array): void {
  const radius = view.pupilRadiusM * Math.sqrt(uv[0] as number);
  const phi = 2 * Math.PI * (uv[1] as number);
  const across = radius * Math.cos(phi);
  const up = radius * Math.sin(phi);
  let along = 0;
  for (let a = 0; a < 3; a++) along += (direction[a] as number) * (view.forward[a] as number);
  const reach = view.focusM / along;
  let size = 0;
  for (let a = 0; a < 3; a++) {
    const shift = across * (view.right[a] as number) + up * (view.up[a] as number);
    origin[a] = (view.origin[a] as number) + shift;
    direction[a] = reach * (direction[a] as number) - shift;
    size += (direction[a] as number) ** 2;
  }
  const unit = 1 / Math.sqrt(size);
  for (let a = 0; a < 3; a++) direction[a] = (direction[a] as number) * unit;
}
