import { createLook, isShiny, look } from '../mirror/look.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { rayThrough, viewOfShape } from './view.js';

/** What the preview filter needs to know of each pixel: where its neighbours are of the same kind. */
export interface FilterGuide {
  width: number;
  height: number;
  /** Thing, surface and (of shiny ones) thing mirrored as one number; only equal ones are mixed. 0: leave alone. */
  region: Int32Array;
  /** 1 where the surface mirrors or is glass: mixed over half the distance only. */
  shiny: Uint8Array;
  /** Shading normal, 3 a pixel. */
  normal: Float32Array;
}

/** A guide that leaves every pixel alone. */
export function createGuide(width: number, height: number): FilterGuide {
  return {
    width,
    height,
    region: new Int32Array(width * height),
    shiny: new Uint8Array(width * height),
    normal: new Float32Array(width * height * 3),
  };
}

/** Writes the guide of a tile into that of the whole picture. */
export function placeGuide(whole: FilterGuide, tile: Tile, part: FilterGuide): void {
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

/** Which thing a region of the guide belongs to, its number in the scene; -1 for region 0. */
export const thingOfRegion = (region: number): number =>
  region === 0 ? -1 : Math.floor((region - 1) / PLACES) % PLACES;

/** Guide of a tile of a picture of `width` x `height`. */
export function filterGuide(tracing: Tracing, width: number, height: number, tile: Tile): FilterGuide {
  const view = viewOfShape(tracing.view, width, height);
  const guide = createGuide(tile.width, tile.height);
  const direction = new Float64Array(3);
  const seen = createLook();
  for (let pixel = 0; pixel < tile.width * tile.height; pixel++) {
    const x = pixel % tile.width;
    const y = (pixel - x) / tile.width;
    rayThrough(direction, view, (tile.x + x + 0.5) / width, (tile.y + y + 0.5) / height);
    look(seen, tracing, view.origin, direction);
    if (seen.thing < 0 || seen.surface < 0) continue;
    const surface = tracing.scene.surfaces[seen.surface];
    const shiny = surface !== undefined && isShiny(surface);
    const place = (seen.thing % PLACES) * PLACES + (seen.surface % PLACES);
    guide.region[pixel] = 1 + place + (shiny ? (seen.mirrored + 2) * PLACES * PLACES : 0);
    guide.shiny[pixel] = shiny ? 1 : 0;
    for (let a = 0; a < 3; a++) guide.normal[3 * pixel + a] = seen.geometry[3 + a] as number;
  }
  return guide;
}
