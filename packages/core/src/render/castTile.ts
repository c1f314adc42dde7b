import { RAY_DISTANCE, RAY_PRIMITIVE, RAY_STRIDE } from '../engine/layouts.js';
import { BLOCK } from '../engine/tile.js';
import { type Tile, tilesOf } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { type View, viewOfShape, writeView } from './view.js';

/**
 * Casts one ray through the middle of each pixel of a tile of a picture of `width` x `height`.
 * @param met what the ray of a pixel meets first: place of the pixel in the tile, primitive, how far along the ray, m,
 * and where in the frame it is; not called where nothing is met
 */
export function castTile(
  { engine, view: lens }: Tracing,
  width: number,
  height: number,
  tile: Tile,
  met: (pixel: number, primitive: number, farM: number, across: number, down: number, view: View) => void,
): void {
  const { batch } = engine;
  const view = viewOfShape(lens, width, height);
  writeView(engine.view, view);
  for (const block of tilesOf(tile.width, tile.height, BLOCK)) {
    engine.castBlock(tile.x + block.x, tile.y + block.y, block.width, block.height, width, height);
    for (let y = 0; y < block.height; y++) {
      for (let x = 0; x < block.width; x++) {
        const at = RAY_STRIDE * (y * block.width + x);
        const primitive = batch[at + RAY_PRIMITIVE] as number;
        if (primitive < 0) continue;
        const across = (tile.x + block.x + x + 0.5) / width;
        const down = (tile.y + block.y + y + 0.5) / height;
        const pixel = (block.y + y) * tile.width + block.x + x;
        met(pixel, primitive, batch[at + RAY_DISTANCE] as number, across, down, view);
      }
    }
  }
}
