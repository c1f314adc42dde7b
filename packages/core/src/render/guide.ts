import { ROW_NORMAL, ROW_NUMBERS, ROW_SURFACE } from '../engine/sight.js';
import { CALL_PIXELS } from '../engine/tile.js';
import { isShiny, thingOf } from '../mirror/look.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { viewNumbers, viewOfShape } from './view.js';

/** What the filter of the picture shown needs to know of each pixel: where its neighbours are of the same kind. */
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
  const { kernel, scene } = tracing;
  const guide = createGuide(tile.width, tile.height);
  const shiny = Uint8Array.from(scene.surfaces, (surface) => (isShiny(surface) ? 1 : 0));
  kernel.view.set(viewNumbers(viewOfShape(tracing.view, width, height)));
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x += CALL_PIXELS) {
      const count = Math.min(CALL_PIXELS, tile.width - x);
      kernel.lookRow(tile.x + x, tile.y + y, count, width, height);
      readRow(guide, y * tile.width + x, count, kernel.row, scene.table.thing, shiny);
    }
  }
  return guide;
}

function readRow(
  guide: FilterGuide,
  first: number,
  count: number,
  row: Float64Array,
  things: Int32Array,
  shiny: Uint8Array,
): void {
  for (let i = 0; i < count; i++) {
    const pixel = first + i;
    const o = i * ROW_NUMBERS;
    const thing = thingOf(things, row[o] as number);
    const surface = row[o + ROW_SURFACE] as number;
    if (thing < 0 || surface < 0) continue;
    const mirrors = shiny[surface] === 1;
    const place = (thing % PLACES) * PLACES + (surface % PLACES);
    const mirrored = mirrors ? (thingOf(things, row[o + 1] as number) + 2) * PLACES * PLACES : 0;
    guide.region[pixel] = 1 + place + mirrored;
    guide.shiny[pixel] = mirrors ? 1 : 0;
    for (let a = 0; a < 3; a++) guide.normal[3 * pixel + a] = row[o + ROW_NORMAL + a] as number;
  }
}
