import { castTile } from './castTile.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { alongLens } from './view.js';

/**
 * Distance along the lens axis to what is seen at the middle of each pixel of a tile, m; NaN where nothing is.
 * Of glass its surface: what is seen through it lies deeper.
 */
export function depthTile(tracing: Tracing, width: number, height: number, tile: Tile): Float32Array {
  const depth = new Float32Array(tile.width * tile.height).fill(Number.NaN);
  castTile(tracing, width, height, tile, (pixel, _primitive, farM, across, down, view) => {
    depth[pixel] = farM * alongLens(view, across, down);
  });
  return depth;
}
