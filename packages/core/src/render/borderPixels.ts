import { SPECULAR_ALONE } from '../engine/path/traceMode.js';
import type { Tile } from './film.js';
import type { Tracing } from './prepareTracing.js';
import { placesOf, renderListed } from './renderListed.js';
import { type View, viewOfShape, writeView } from './view.js';

/** What a pixel is, see `borderPixels`. */
export const WITHIN = 0;
export const BORDER = 1;
export const GLINT = 2;

/** The borders found last in pictures by a view, by tile: later samples of a picture ask for them again. */
const found = new WeakMap<View, { size: string; tiles: Map<string, Uint8Array> }>();

/** Specular paths of each pixel at a border by which glints are found. */
const TRIED_PATHS = 2;
/** Another seed than that of any picture, so that which pixels are glints depends on no sample of it. */
const TRIED_SEED = 0x611e7;
/** How far round a pixel glints are looked for, px. */
const GLINT_REACH = 2;
/** Light by specular paths from lamps of unit luminance that differs by less is no glint. */
const FAINTEST_GLINT = 0.003;
/** A glint is brighter than the mean of the pixels round it by this factor. */
const GLINT_CONTRAST = 1.5;

/**
 * Pixels of a tile of a picture of `width` x `height` that see something else sharply than one of the four beside them: edges of
 * things, of what they mirror and show, and of print. Light within one such pixel differs most. Glints are those of them round which what is
 * mirrored and shown by glass is bright in points: a lamp seen smaller than a pixel.
 * A few rays each, followed over mirrors and glass; the same whatever samples a picture has.
 * @returns `WITHIN`, `BORDER` or `GLINT` for each, row after row
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
  // What is round a tile has a say in what its pixels are.
  const wide = grown(tile, GLINT_REACH, width, height);
  const borders = bordersOfWhatIsSeen(tracing, width, height, wide);
  markGlints(borders, wide, specularLight(tracing, width, height, wide, borders));
  return cutOut(borders, wide, tile);
}

function bordersOfWhatIsSeen(tracing: Tracing, width: number, height: number, tile: Tile): Uint8Array {
  const wide = grown(tile, 1, width, height);
  const columns = wide.width;
  const seen = seenSharply(tracing, width, height, wide);
  const borders = new Uint8Array(tile.width * tile.height);
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x++) {
      const px = tile.x + x;
      const py = tile.y + y;
      const at = (py - wide.y) * columns + px - wide.x;
      const own = seen[at];
      const differs =
        (px > 0 && seen[at - 1] !== own) ||
        (px < width - 1 && seen[at + 1] !== own) ||
        (py > 0 && seen[at - columns] !== own) ||
        (py < height - 1 && seen[at + columns] !== own);
      borders[y * tile.width + x] = differs ? BORDER : WITHIN;
    }
  }
  return borders;
}

/** A tile with so many pixels more on each side, as far as the picture goes. */
function grown(tile: Tile, by: number, width: number, height: number): Tile {
  const x = Math.max(0, tile.x - by);
  const y = Math.max(0, tile.y - by);
  return {
    x,
    y,
    width: Math.min(width, tile.x + tile.width + by) - x,
    height: Math.min(height, tile.y + tile.height + by) - y,
  };
}

/** The part of a tile within another. */
function cutOut(values: Uint8Array, from: Tile, tile: Tile): Uint8Array {
  const part = new Uint8Array(tile.width * tile.height);
  for (let y = 0; y < tile.height; y++) {
    const start = (tile.y + y - from.y) * from.width + tile.x - from.x;
    part.set(values.subarray(start, start + tile.width), y * tile.width);
  }
  return part;
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
  renderListed(
    engine,
    { width, height, tile },
    placesOf(tile),
    { firstSample: 0, samples: 1 },
    (place, index) => {
      seen[place] = list[index] as number;
    },
  );
  engine.setMode({});
  wanted.fill(1);
  return seen;
}

/** Light that arrives at pixels at borders by specular paths, all lamps at unit luminance; -1 for all other pixels. */
function specularLight(
  { engine, scene, view }: Tracing,
  width: number,
  height: number,
  tile: Tile,
  borders: Uint8Array,
): Float64Array {
  const { pixels } = engine;
  const numbers = 3 * scene.channelCount;
  const light = new Float64Array(borders.length).fill(-1);
  const places = placesOf(tile).filter((place) => borders[place] === BORDER);
  engine.reseed(TRIED_SEED);
  engine.setMode({ specular: SPECULAR_ALONE });
  writeView(engine.view, viewOfShape(view, width, height));
  const paths = { firstSample: 0, samples: TRIED_PATHS };
  renderListed(engine, { width, height, tile }, places, paths, (place, index) => {
    let sum = 0;
    for (let n = 0; n < numbers; n++) sum += pixels[numbers * index + n] as number;
    light[place] = sum / (3 * TRIED_PATHS);
  });
  engine.setMode({});
  return light;
}

/** Makes glints of pixels at borders round which light is bright in points. @param light -1 where it is not known */
function markGlints(borders: Uint8Array, tile: Tile, light: Float64Array): void {
  for (let y = 0; y < tile.height; y++) {
    for (let x = 0; x < tile.width; x++) {
      const place = y * tile.width + x;
      if (borders[place] === WITHIN) continue;
      let least = Infinity;
      let most = 0;
      let sum = 0;
      let count = 0;
      for (let v = Math.max(0, y - GLINT_REACH); v <= Math.min(tile.height - 1, y + GLINT_REACH); v++) {
        for (let u = Math.max(0, x - GLINT_REACH); u <= Math.min(tile.width - 1, x + GLINT_REACH); u++) {
          const there = light[v * tile.width + u] as number;
          if (there < 0) continue;
          least = Math.min(least, there);
          most = Math.max(most, there);
          sum += there;
          count++;
        }
      }
      if (most - least > FAINTEST_GLINT && most * count > GLINT_CONTRAST * sum) borders[place] = GLINT;
    }
  }
}
