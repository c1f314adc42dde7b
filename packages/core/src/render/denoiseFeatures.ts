import { TILE_MIRRORED, TILE_NORMAL, TILE_SEEN, TILE_SURFACE } from '../engine/sight.js';
import type { Tile } from './film.js';
import { isShiny } from './look.js';
import { lookThroughTile } from './lookThroughTile.js';
import type { Tracing } from './prepareTracing.js';

/** What the filter of the picture shown needs to know of each pixel: where its neighbours are of the same kind. */
export interface DenoiseFeatures {
  width: number;
  height: number;
  /** Thing, surface and (of shiny ones) thing mirrored as one number; only equal ones are mixed. 0: leave alone. */
  region: Int32Array;
  /** 1 where the surface mirrors or is glass: mixed over half the distance only. */
  shiny: Uint8Array;
  /** Shading normal, 3 a pixel. */
  normal: Float32Array;
}

/** Features that leave every pixel alone. */
export function createFeatures(width: number, height: number): DenoiseFeatures {
  return {
    width,
    height,
    region: new Int32Array(width * height),
    shiny: new Uint8Array(width * height),
    normal: new Float32Array(width * height * 3),
  };
}

/** Writes the features of a tile into those of the whole picture. */
export function placeFeatures(whole: DenoiseFeatures, tile: Tile, part: DenoiseFeatures): void {
  for (let y = 0; y < tile.height; y++) {
    const from = y * tile.width;
    const to = (tile.y + y) * whole.width + tile.x;
    whole.region.set(part.region.subarray(from, from + tile.width), to);
    whole.shiny.set(part.shiny.subarray(from, from + tile.width), to);
    whole.normal.set(part.normal.subarray(3 * from, 3 * (from + tile.width)), 3 * to);
  }
}

/** Places of the things in a region's number; a set has fewer things and surfaces than this. */
const PLACES = 1024;

/** Which thing a region belongs to, its number in the scene; -1 for region 0. */
export const thingOfRegion = (region: number): number =>
  region === 0 ? -1 : Math.floor((region - 1) / PLACES) % PLACES;

/** Features of a tile of a picture of `width` x `height`. */
export function denoiseFeatures(
  tracing: Tracing,
  width: number,
  height: number,
  tile: Tile,
): DenoiseFeatures {
  const { tileWholes, tileNumbers } = tracing.engine;
  const { surfaces } = tracing.scene;
  const features = createFeatures(tile.width, tile.height);
  const shiny = Uint8Array.from(surfaces, (_, index) => (isShiny(tracing, index) ? 1 : 0));
  lookThroughTile(tracing, width, height, tile, (from, to, count) => {
    for (let i = 0; i < count; i++) {
      const thing = tileWholes[TILE_SEEN + from + i] as number;
      const surface = tileWholes[TILE_SURFACE + from + i] as number;
      if (thing < 0 || surface < 0) continue;
      const mirrors = shiny[surface] === 1;
      const place = (thing % PLACES) * PLACES + (surface % PLACES);
      const inMirror = (tileWholes[TILE_MIRRORED + from + i] as number) + 2;
      features.region[to + i] = 1 + place + (mirrors ? inMirror * PLACES * PLACES : 0);
      features.shiny[to + i] = mirrors ? 1 : 0;
    }
    const first = TILE_NORMAL + 3 * from;
    features.normal.set(tileNumbers.subarray(first, first + 3 * count), 3 * to);
  });
  return features;
}
