import { setRay } from '../trace/engineCalls.js';
import { dot } from '../units/vector.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { rayThrough, viewOfShape } from './view.js';

/**
 * Distance along the lens axis to what is seen at the middle of each pixel of a tile, m; NaN where nothing is.
 * Of glass its surface: what is seen through it lies deeper.
 */
export function depthTile(tracing: Tracing, width: number, height: number, tile: Tile): Float32Array {
  const { kernel } = tracing;
  const view = viewOfShape(tracing.view, width, height);
  const depth = new Float32Array(tile.width * tile.height);
  const direction = new Float64Array(3);
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x++) {
      rayThrough(direction, view, (tile.x + x + 0.5) / width, (tile.y + y + 0.5) / height);
      setRay(kernel.ray, view.origin, direction);
      const along = dot(
        [direction[0] as number, direction[1] as number, direction[2] as number],
        view.forward,
      );
      depth[y * tile.width + x] = kernel.closestHit() < 0 ? Number.NaN : (kernel.ray[7] as number) * along;
    }
  }
  return depth;
}
