import { TILE_PIXELS } from '../engine/sight.js';
import { BLOCK } from '../engine/tile.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { viewOfShape, writeView } from './view.js';

const MOST_COLUMNS = TILE_PIXELS / BLOCK;

/**
 * Looks through the middles of the pixels of a tile of a picture of `width` x `height`; answers are in `tileWholes` and
 * `tileNumbers` of the engine.
 * @param take some pixels side by side: place of the first in the answers, and in the tile
 */
export function lookThroughTile(
  { engine, view }: Tracing,
  width: number,
  height: number,
  tile: Tile,
  take: (from: number, to: number, count: number) => void,
): void {
  writeView(engine.view, viewOfShape(view, width, height));
  const columns = Math.min(tile.width, MOST_COLUMNS);
  const rows = BLOCK * Math.floor(TILE_PIXELS / (BLOCK * columns));
  for (let y = 0; y < tile.height; y += rows) {
    const high = Math.min(rows, tile.height - y);
    for (let x = 0; x < tile.width; x += columns) {
      const wide = Math.min(columns, tile.width - x);
      engine.lookTile(tile.x + x, tile.y + y, wide, high, width, height);
      if (wide === tile.width) take(0, y * tile.width, wide * high);
      else for (let row = 0; row < high; row++) take(row * wide, (y + row) * tile.width + x, wide);
    }
  }
}
