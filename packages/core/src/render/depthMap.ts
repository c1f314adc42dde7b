import { RAY_DISTANCE, RAY_PRIMITIVE } from '../engine/layouts.js';
import { BLOCK } from '../engine/tile.js';
import { type Tile, tilesOf } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { alongLens, viewOfShape, writeView } from './view.js';

/**
 * Distance along the lens axis to what is seen at the middle of each pixel of a tile, m; NaN where nothing is.
 * Of glass its surface: what is seen through it lies deeper.
 */
export function depthTile(tracing: Tracing, width: number, height: number, tile: Tile): Float32Array {
  const { engine } = tracing;
  const { batch } = engine;
  const view = viewOfShape(tracing.view, width, height);
  const depth = new Float32Array(tile.width * tile.height);
  writeView(engine.view, view);
  for (const block of tilesOf(tile.width, tile.height, BLOCK)) {
    engine.castBlock(tile.x + block.x, tile.y + block.y, block.width, block.height, width, height);
    for (let y = 0; y < block.height; y++) {
      for (let x = 0; x < block.width; x++) {
        const at = 8 * (y * block.width + x);
        const across = (tile.x + block.x + x + 0.5) / width;
        const along = alongLens(view, across, (tile.y + block.y + y + 0.5) / height);
        const met = (batch[at + RAY_PRIMITIVE] as number) >= 0;
        depth[(block.y + y) * tile.width + block.x + x] = met
          ? (batch[at + RAY_DISTANCE] as number) * along
          : Number.NaN;
      }
    }
  }
  return depth;
}
