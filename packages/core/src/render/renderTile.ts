import { ROW_PIXELS } from '../engine/tile.js';
import type { Tile } from './film.js';
import { lightSheets, type Tracing } from './prepareTracing.js';
import { viewNumbers, viewOfShape } from './view.js';

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
  /** Only these films, by place; each is the same to the last bit as among all. All if left out. */
  channels?: readonly number[];
}

/**
 * Samples every pixel of a tile (box filter over the pixel; pinhole, or the lens's entrance pupil where depth of
 * field is on) and returns the sums for each film, in the layout of `Films` at the tile's size.
 * The same job gives the same numbers on any worker.
 */
export function renderTile(tracing: Tracing, job: TileJob): Float32Array {
  const { kernel, scene } = tracing;
  const { tile, width, height, firstSample, samples } = job;
  const channels = scene.channelCount;
  const sums = new Float32Array(tile.width * tile.height * channels * 3);
  const sheets = !job.ambient && !job.wholePaths;
  if (sheets) lightSheets(tracing);
  kernel.reseed(job.seed);
  kernel.setMode({ quick: job.ambient !== undefined, sheets });
  if (job.ambient) kernel.ambient.set(job.ambient);
  kernel.wanted.fill(job.channels ? 0 : 1);
  for (const channel of job.channels ?? []) kernel.wanted[channel] = 1;
  kernel.view.set(viewNumbers(viewOfShape(tracing.view, width, height)));
  const { pixels, wanted } = kernel;
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x += ROW_PIXELS) {
      const count = Math.min(ROW_PIXELS, tile.width - x);
      kernel.renderRow(tile.x + x, tile.y + y, count, width, height, firstSample, samples);
      for (let channel = 0; channel < channels; channel++) {
        if (wanted[channel] === 0) continue;
        const to = ((channel * tile.height + y) * tile.width + x) * 3;
        for (let i = 0; i < count; i++) {
          const from = 3 * (i * channels + channel);
          for (let c = 0; c < 3; c++) sums[to + 3 * i + c] = pixels[from + c] as number;
        }
      }
    }
  }
  kernel.setMode({});
  kernel.wanted.fill(1);
  return sums;
}
