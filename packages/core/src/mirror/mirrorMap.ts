import { ROW_NUMBERS } from '../engine/sight.js';
import { CALL_PIXELS } from '../engine/tile.js';
import type { Tile } from '../render/film.js';
import type { Tracing } from '../render/prepareTracing.js';
import { viewNumbers, viewOfShape } from '../render/view.js';
import { thingOf } from './look.js';

/** For every pixel of the picture: what is seen there, what it mirrors and shows through, from where, how much. */
export interface MirrorMap {
  width: number;
  height: number;
  /** Thing seen; -1 nothing. */
  thing: Int16Array;
  /** Thing mirrored; -1 the dark, -2 no mirror. */
  mirrored: Int16Array;
  /** 1 where the mirrored thing shows its front. */
  front: Uint8Array;
  /** Part of the light mirrored, 0 to 1. */
  weight: Float32Array;
  /** Point mirrored, 3 a pixel, m; NaN where there is none. */
  point: Float32Array;
  /** Thing seen through glass, net or frost; -1 the dark, -2 nothing is. */
  through: Int16Array;
  /** Part of its light that comes through, 0 to 1. */
  throughWeight: Float32Array;
}

/** Mirror and refraction map of a tile, by the rays through the middle of each pixel; see `look`. */
export function mirrorMapTile(tracing: Tracing, width: number, height: number, tile: Tile): MirrorMap {
  const pixels = tile.width * tile.height;
  const map: MirrorMap = {
    width: tile.width,
    height: tile.height,
    thing: new Int16Array(pixels),
    mirrored: new Int16Array(pixels),
    front: new Uint8Array(pixels),
    weight: new Float32Array(pixels),
    point: new Float32Array(pixels * 3),
    through: new Int16Array(pixels),
    throughWeight: new Float32Array(pixels),
  };
  const { kernel, scene } = tracing;
  const { thing } = scene.table;
  kernel.view.set(viewNumbers(viewOfShape(tracing.view, width, height)));
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x += CALL_PIXELS) {
      const count = Math.min(CALL_PIXELS, tile.width - x);
      kernel.lookRow(tile.x + x, tile.y + y, count, width, height);
      readRow(map, y * tile.width + x, count, kernel.row, thing);
    }
  }
  return map;
}

function readRow(map: MirrorMap, first: number, count: number, row: Float64Array, thing: Int32Array): void {
  for (let i = 0; i < count; i++) {
    const pixel = first + i;
    const o = i * ROW_NUMBERS;
    const mirrored = row[o + 1] as number;
    map.thing[pixel] = thingOf(thing, row[o] as number);
    map.mirrored[pixel] = thingOf(thing, mirrored);
    map.front[pixel] = row[o + 2] as number;
    map.weight[pixel] = row[o + 3] as number;
    for (let a = 0; a < 3; a++)
      map.point[3 * pixel + a] = mirrored < 0 ? Number.NaN : (row[o + 4 + a] as number);
    map.through[pixel] = thingOf(thing, row[o + 7] as number);
    map.throughWeight[pixel] = row[o + 8] as number;
  }
}
