import {
  TILE_MIRRORED,
  TILE_MIRRORED_POINT,
  TILE_MIRRORED_WEIGHT,
  TILE_SEEN,
  TILE_THROUGH,
  TILE_THROUGH_WEIGHT,
} from '../engine/sight.js';
import type { Tile } from '../render/film.js';
import { lookThroughTile } from '../render/lookThroughTile.js';
import type { Tracing } from '../render/prepareTracing.js';

/** For every pixel of the picture: what is seen there, what it mirrors and shows through, from where, how much. */
export interface MirrorMap {
  width: number;
  height: number;
  /** Thing seen; -1 nothing. */
  thing: Int32Array;
  /** Thing mirrored; -1 the dark, -2 no mirror. */
  mirrored: Int32Array;
  /** Part of the light mirrored, 0 to 1. */
  weight: Float32Array;
  /** Point mirrored, 3 a pixel, m; NaN where there is none. */
  point: Float32Array;
  /** Thing seen through glass, net or frost; -1 the dark, -2 nothing is. */
  through: Int32Array;
  /** Part of its light that comes through, 0 to 1. */
  throughWeight: Float32Array;
}

/** Mirror and refraction map of a tile, by the rays through the middle of each pixel; see `look`. */
export function mirrorMapTile(tracing: Tracing, width: number, height: number, tile: Tile): MirrorMap {
  const pixels = tile.width * tile.height;
  const map: MirrorMap = {
    width: tile.width,
    height: tile.height,
    thing: new Int32Array(pixels),
    mirrored: new Int32Array(pixels),
    weight: new Float32Array(pixels),
    point: new Float32Array(pixels * 3),
    through: new Int32Array(pixels),
    throughWeight: new Float32Array(pixels),
  };
  const { tileWholes, tileNumbers } = tracing.engine;
  lookThroughTile(tracing, width, height, tile, (from, to, count) => {
    const wholes = (plane: number) => tileWholes.subarray(plane + from, plane + from + count);
    const numbers = (plane: number) => tileNumbers.subarray(plane + from, plane + from + count);
    map.thing.set(wholes(TILE_SEEN), to);
    map.mirrored.set(wholes(TILE_MIRRORED), to);
    map.through.set(wholes(TILE_THROUGH), to);
    map.weight.set(numbers(TILE_MIRRORED_WEIGHT), to);
    map.throughWeight.set(numbers(TILE_THROUGH_WEIGHT), to);
    const first = TILE_MIRRORED_POINT + 3 * from;
    map.point.set(tileNumbers.subarray(first, first + 3 * count), 3 * to);
  });
  return map;
}
