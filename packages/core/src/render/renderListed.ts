import { CALL_PIXELS } from '../engine/tile.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import type { Tile } from './film.js';

/**
 * Has the engine render some places of a tile (row after row from 0) of a picture of `width` x `height`, a call's worth at a time.
 * @param each is told of each place while what was rendered there is at an index of `engine.list` and `engine.pixels`
 */
export function renderListed(
  engine: EngineCalls,
  { width, height, tile }: { width: number; height: number; tile: Tile },
  places: Int32Array,
  { firstSample, samples }: { firstSample: number; samples: number },
  each: (place: number, index: number) => void,
): void {
  const { list } = engine;
  for (let from = 0; from < places.length; from += CALL_PIXELS) {
    const some = places.subarray(from, from + CALL_PIXELS);
    some.forEach((place, index) => {
      const y = Math.floor(place / tile.width);
      list[index] = (tile.y + y) * width + tile.x + (place - y * tile.width);
    });
    engine.renderPixels(some.length, width, height, firstSample, samples);
    some.forEach(each);
  }
}

/** All places of a tile. */
export const placesOf = (tile: Tile): Int32Array =>
  Int32Array.from({ length: tile.width * tile.height }, (_, place) => place);
