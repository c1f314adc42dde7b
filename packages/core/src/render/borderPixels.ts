import { CALL_PIXELS } from '../engine/tile.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { type View, viewOfShape, writeView } from './view.js';

/** The borders found last in pictures by a view, by tile: later samples of a picture ask for them again. */
const found = new WeakMap<View, { size: string; tiles: Map<string, Uint8Array> }>();

/**
 * Pixels of a tile of a picture of `width` x `height` that see something else sharply than one of the four beside them: edges of
 * things, of what they mirror and show, and of print. Light within one such pixel differs most.
 * One ray each, followed over mirrors and glass; the same whatever tile a pixel is in.
 * @returns 1 for each that does, row after row
 */
export function borderPixels(tracing: Tracing, width: number, height: number, tile: Tile): Uint8Array {
  const size = `${width} ${height}`;
  const known = found.get(tracing.view);
  const tiles = known?.size === size ? known.tiles : new Map<string, Uint8Array>();
  found.set(tracing.view, { size, tiles });
  const key = `${tile.x} ${tile.y} ${tile.width} ${tile.height}`;
  const borders = tiles.get(key) ?? findBorders(tracing, width, height, tile);
  tiles.set(key, borders);
  return borders;
}

function findBorders(tracing: Tracing, width: number, height: number, tile: Tile): Uint8Array {
  const left = Math.max(0, tile.x - 1);
  const top = Math.max(0, tile.y - 1);
  const right = Math.min(width, tile.x + tile.width + 1);
  const bottom = Math.min(height, tile.y + tile.height + 1);
  const columns = right - left;
  const seen = seenSharply(tracing, width, height, {
    x: left,
    y: top,
    width: columns,
    height: bottom - top,
  });
  const borders = new Uint8Array(tile.width * tile.height);
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x++) {
      const px = tile.x + x;
      const py = tile.y + y;
      const at = (py - top) * columns + px - left;
      const own = seen[at];
      const differs =
        (px > 0 && seen[at - 1] !== own) ||
        (px < width - 1 && seen[at + 1] !== own) ||
        (py > 0 && seen[at - columns] !== own) ||
        (py < height - 1 && seen[at + columns] !== own);
      borders[y * tile.width + x] = differs ? 1 : 0;
    }
  }
  return borders;
}

/** What each pixel sees, as one number, see `QuickStep.seen`. */
function seenSharply({ engine, view }: Tracing, width: number, height: number, tile: Tile): Float64Array {
  const { list, wanted } = engine;
  const seen = new Float64Array(tile.width * tile.height);
  engine.reseed(0);
  engine.setMode({ quick: true });
  // No light is sampled.
  wanted.fill(0);
  writeView(engine.view, viewOfShape(view, width, height));
  for (let from = 0; from < seen.length; from += CALL_PIXELS) {
    const count = Math.min(CALL_PIXELS, seen.length - from);
    for (let i = 0; i < count; i++) {
      const y = Math.floor((from + i) / tile.width);
      list[i] = (tile.y + y) * width + tile.x + (from + i - y * tile.width);
    }
    engine.renderPixels(count, width, height, 0, 1);
    seen.set(list.subarray(0, count), from);
  }
  engine.setMode({});
  wanted.fill(1);
  return seen;
}
