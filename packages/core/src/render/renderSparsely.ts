import type { Tile } from './film.js';

/** Renders places of a tile (row after row from 0) into the sums, and writes down what each of them sees sharply. */
type RenderPlaces = (places: Int32Array, seen: Float64Array) => void;

/** Pixels from one to the next of the coarsest grid; each finer one has half of it. */
export const COARSEST_STEP = 4;

/** Places that are each set to the mean of some others: those of the `i`th are `of[most * i]` and on, `counts[i]` of them. */
interface Means {
  length: number;
  places: Int32Array;
  of: Int32Array;
  counts: Uint8Array;
  /** Others of a place at most. */
  most: number;
}

/**
 * Renders a tile of a quick picture for the eye that follows a moving thing. Every fourth pixel of every fourth row is traced,
 * and the last of each; what lies between pixels that see the same things sharply (`PathTracer.seen`) is their mean, all
 * else is traced too, on a grid of half the step and then of single pixels. Pixels of the coarsest grid are averaged with those
 * round them that see the same. So edges, print and what mirrors show stay sharp to the pixel, while shade is told over
 * about nine pixels.
 * What is averaged with what is looked up once, and then done film by film, as they lie in memory.
 * @param sums as `renderTile` gives them
 */
export function renderSparsely(sums: Float32Array, { width, height }: Tile, render: RenderPlaces): void {
  const size = width * height;
  const seen = new Float64Array(size);
  const columns = gridLines(width, COARSEST_STEP);
  const rows = gridLines(height, COARSEST_STEP);
  const grid = new Int32Array(columns.length * rows.length);
  for (let row = 0; row < rows.length; row++) {
    for (let column = 0; column < columns.length; column++) {
      grid[row * columns.length + column] = (rows[row] as number) * width + (columns[column] as number);
    }
  }
  render(grid, seen);
  const onGrid = meansOfGrid(seen, grid, columns.length);
  const finer: Means[] = [];
  for (let step = COARSEST_STEP / 2; step >= 1; step /= 2) {
    const { between, traced, round } = partFiner(seen, width, height, step);
    render(traced, seen);
    // One sample is noise beside pixels that are the mean of nine: it tells what is seen here.
    finer.push(between, meansOfTraced(seen, traced, round));
  }
  for (let film = 0; film < sums.length; film += 3 * size) {
    const own = sums.subarray(film, film + 3 * size);
    setMeans(own, onGrid, own.slice());
    for (const some of finer) setMeans(own, some, own);
  }
}

/** Of so many lines every `step`th from 0, and the last. */
function gridLines(length: number, step: number): number[] {
  return Array.from({ length }, (_, line) => line).filter((line) => line % step === 0 || line === length - 1);
}

const meansFor = (places: number, most: number): Means => ({
  length: 0,
  places: new Int32Array(places),
  of: new Int32Array(most * places),
  counts: new Uint8Array(places),
  most,
});

/**
 * Parts the pixels of a grid that are not of the one of twice its step into those between pixels that see the same, which then see
 * it too, and those to be traced.
 * @returns `round`: the pixels of the coarser grid round each that is to be traced: four, some of them twice
 */
function partFiner(
  seen: Float64Array,
  width: number,
  height: number,
  step: number,
): { between: Means; traced: Int32Array; round: Int32Array } {
  const columns = gridLines(width, step);
  const rows = gridLines(height, step);
  const places = columns.length * rows.length;
  const between = meansFor(places, 4);
  const traced = new Int32Array(places);
  const round = new Int32Array(4 * places);
  let count = 0;
  for (const y of rows) {
    const isOfRows = y % (2 * step) === 0 || y === height - 1;
    const above = isOfRows ? y : y - step;
    const below = isOfRows ? y : Math.min(height - 1, y + step);
    for (const x of columns) {
      const isOfColumns = x % (2 * step) === 0 || x === width - 1;
      if (isOfRows && isOfColumns) continue;
      const left = isOfColumns ? x : x - step;
      const right = isOfColumns ? x : Math.min(width - 1, x + step);
      const place = y * width + x;
      const a = above * width + left;
      const b = above * width + right;
      const c = below * width + left;
      const d = below * width + right;
      const same = seen[a] === seen[b] && seen[a] === seen[c] && seen[a] === seen[d];
      const to = same ? between.of : round;
      const at = 4 * (same ? between.length : count);
      to[at] = a;
      to[at + 1] = b;
      to[at + 2] = c;
      to[at + 3] = d;
      if (same) {
        seen[place] = seen[a] as number;
        between.counts[between.length] = 4;
        between.places[between.length++] = place;
      } else traced[count++] = place;
    }
  }
  return { between, traced: traced.subarray(0, count), round };
}

/** Each pixel of the grid with its up to eight neighbours there that see the same. */
function meansOfGrid(seen: Float64Array, grid: Int32Array, columns: number): Means {
  const means = meansFor(grid.length, 9);
  for (let i = 0; i < grid.length; i++) {
    const place = grid[i] as number;
    const column = i % columns;
    const left = column > 0 ? 1 : 0;
    const right = column < columns - 1 ? 1 : 0;
    let like = 0;
    for (let row = i - columns; row <= i + columns; row += columns) {
      if (row < 0 || row >= grid.length) continue;
      for (let k = row - left; k <= row + right; k++) {
        const other = grid[k] as number;
        if (seen[other] === seen[place]) means.of[means.most * means.length + like++] = other;
      }
    }
    if (like <= 1) continue;
    means.counts[means.length] = like;
    means.places[means.length++] = place;
  }
  return means;
}

/** Each pixel that was traced between those of the grid with those round it that see the same. */
function meansOfTraced(seen: Float64Array, traced: Int32Array, round: Int32Array): Means {
  const means = meansFor(traced.length, 4);
  for (let i = 0; i < traced.length; i++) {
    const place = traced[i] as number;
    let like = 0;
    for (let k = 4 * i; k < 4 * i + 4; k++) {
      const other = round[k] as number;
      if (seen[other] === seen[place]) means.of[means.most * means.length + like++] = other;
    }
    if (like === 0) continue;
    means.counts[means.length] = like;
    means.places[means.length++] = place;
  }
  return means;
}

/** Sets each place of a film to the mean of its others. */
function setMeans(film: Float32Array, { length, places, of, counts, most }: Means, from: Float32Array): void {
  for (let i = 0; i < length; i++) {
    const count = counts[i] as number;
    const end = most * i + count;
    let r = 0;
    let g = 0;
    let b = 0;
    for (let k = most * i; k < end; k++) {
      const at = 3 * (of[k] as number);
      r += from[at] as number;
      g += from[at + 1] as number;
      b += from[at + 2] as number;
    }
    const to = 3 * (places[i] as number);
    film[to] = r / count;
    film[to + 1] = g / count;
    film[to + 2] = b / count;
  }
}
