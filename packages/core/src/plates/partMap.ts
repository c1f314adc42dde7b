import type { SetDocument, Vector } from '@fendrix/contract';
import { type ProductPart, partAt } from '../geometry/products/partAt.js';
import { castTile } from '../render/castTile.js';
import type { Tile } from '../render/film.js';
import type { Tracing } from '../render/prepareTracing.js';
import { alongLens, rayThrough } from '../render/view.js';
import { add, scale } from '../units/vector.js';

/** What is seen at each pixel, down to labels and liquids, and how deep it lies: all that masks of plates are made from. */
export interface PartMap {
  width: number;
  height: number;
  /** See `partCode`; 0 where nothing is seen. */
  part: Int32Array;
  /** Along the axis of the lens, m; NaN where nothing is seen. */
  depth: Float32Array;
}

export const createPartMap = (width: number, height: number): PartMap => ({
  width,
  height,
  part: new Int32Array(width * height),
  depth: new Float32Array(width * height).fill(Number.NaN),
});

/** Places of the parts within the number of a thing. */
const PARTS = 256;
const KINDS = ['body', 'part', 'label', 'liquid'] as const;
const INDICES = PARTS / KINDS.length;

/** Part of a thing as one number. @param thing its place in the scene */
export const partCode = (thing: number, part: (typeof KINDS)[number] = 'body', index = 0): number =>
  1 + thing * PARTS + KINDS.indexOf(part) * INDICES + (index % INDICES);

/** The place in the scene of the thing that a part belongs to; -1 of none. */
export const thingOfPart = (code: number): number => (code === 0 ? -1 : Math.floor((code - 1) / PARTS));

/** The same part without its thing, as a number. */
export const withinThing = (code: number): number => (code === 0 ? 0 : 1 + ((code - 1) % PARTS));

/**
 * Map of a tile of a picture of `width` x `height`: one ray through the middle of each pixel. Liquid is seen where the
 * glass before it is met at its height: refraction makes it fill the glass to the rim.
 */
export function partTile(
  tracing: Tracing,
  set: Pick<SetDocument, 'products'>,
  width: number,
  height: number,
  tile: Tile,
): PartMap {
  const { things, table } = tracing.scene;
  const map = createPartMap(tile.width, tile.height);
  const products = things.map(({ kind, key }) =>
    kind === 'product' ? set.products.find(({ id }) => id === key) : undefined,
  );
  const way = new Float64Array(3);
  castTile(tracing, width, height, tile, (pixel, primitive, farM, across, down, view) => {
    const thing = table.thing[primitive] as number;
    const product = products[thing];
    map.depth[pixel] = farM * alongLens(view, across, down);
    if (!product) {
      map.part[pixel] = partCode(thing);
      return;
    }
    rayThrough(way, view, across, down);
    map.part[pixel] = codeOf(thing, partAt(product, add(view.origin, scale([...way] as Vector, farM))));
  });
  return map;
}

const codeOf = (thing: number, { kind, index, liquid }: ProductPart): number =>
  partCode(thing, liquid ? 'liquid' : kind, index);

/** Writes the map of a tile into that of the whole picture. */
export function placeParts(whole: PartMap, tile: Tile, map: PartMap): void {
  for (let y = 0; y < tile.height; y++) {
    const from = y * tile.width;
    const to = (tile.y + y) * whole.width + tile.x;
    whole.part.set(map.part.subarray(from, from + tile.width), to);
    whole.depth.set(map.depth.subarray(from, from + tile.width), to);
  }
}
