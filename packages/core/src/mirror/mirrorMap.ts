import type { Tile } from '../render/film.js';
import type { Tracing } from '../render/prepareTracing.js';
import { rayThrough, viewOfShape } from '../render/view.js';
import { createLook, look } from './look.js';

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
  const seen = createLook();
  const direction = new Float64Array(3);
  const view = viewOfShape(tracing.view, width, height);
  let pixel = 0;
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x++) {
      rayThrough(direction, view, (tile.x + x + 0.5) / width, (tile.y + y + 0.5) / height);
      look(seen, tracing, view.origin, direction);
      map.thing[pixel] = seen.thing;
      map.mirrored[pixel] = seen.mirrored;
      map.front[pixel] = seen.mirroredFront ? 1 : 0;
      map.weight[pixel] = seen.weight;
      map.through[pixel] = seen.through;
      map.throughWeight[pixel] = seen.throughWeight;
      for (let a = 0; a < 3; a++) map.point[3 * pixel + a] = seen.geometry[6 + a] as number;
      pixel++;
    }
  }
  return map;
}
