import type { Tile } from './film.js';

/** Renders places of a tile (row after row from 0) into the sums, and writes down what each of them sees sharply. */
type RenderPlaces = (places: Int32Array, seen: Float64Array) => void;

/** Places that are each set to the mean of some others: those of the `i`th are `of[NEIGHBOURS * i]` and on, `counts[i]` of them. */
interface Means {
  length: number;
  places: Int32Array;
  of: Int32Array;
  counts: Uint8Array;
}

/** A place of the grid and those round it. */
const NEIGHBOURS = 9;

/**
 * Renders a tile of a quick picture for the eye that follows a moving thing. Every other pixel of every other row is traced,
 * and the last of each; what lies between pixels that see the same things sharply (`PathTracer.seen`) is their mean, all
 * else is traced too. Then pixels are averaged with those round them that see the same. So edges, print and what mirrors
 * show stay sharp to the pixel, while shade is told over about five pixels.
 * What is averaged with what is looked up once, and then done film by film, as they lie in memory.
 * @param sums as `renderTile` gives them
 */
export function renderSparsely(sums: Float32Array, { width, height }: Tile, render: RenderPlaces): void {
  const size = width * height;
  const seen = new Float64Array(size);
  const columns = gridLines(width);
  const rows = gridLines(height);
  const grid = new Int32Array(columns.length * rows.length);
  for (let row = 0; row < rows.length; row++) {
    for (let column = 0; column < columns.length; column++) {
      grid[row * columns.length + column] = (rows[row] as number) * width + (columns[column] as number);
    }
  }
  render(grid, seen);
  const { between, traced, round } = partOthers(seen, width, height);
  render(traced, seen);

  const onGrid = meansOfGrid(seen, grid, columns.length);
  // One sample is noise beside pixels that are the mean of nine: it tells what is seen here.
  const apart = meansOfTraced(seen, traced, round);
  for (let film = 0; film < sums.length; film += 3 * size) {
    const own = sums.subarray(film, film + 3 * size);
    setMeans(own, onGrid, own.slice());
    setMeans(own, between, own);
    setMeans(own, apart, own);
  }
}

/** Every other line from 0, and the last. */
function gridLines(length: number): number[] {
  return Array.from({ length }, (_, line) => line).filter((line) => line % 2 === 0 || line === length - 1);
}

const meansFor = (most: number): Means => ({
  length: 0,
  places: new Int32Array(most),
  of: new Int32Array(NEIGHBOURS * most),
  counts: new Uint8Array(most),
});

/**
 * Parts the pixels that are not of the grid into those between pixels that see the same, and those to be traced.
 * @returns `round`: the pixels of the grid round each that is to be traced: four, some of them twice
 */
function partOthers(
  seen: Float64Array,
  width: number,
  height: number,
): { between: Means; traced: Int32Array; round: Int32Array } {
  const size = width * height;
  const between = meansFor(size);
  const traced = new Int32Array(size);
  const round = new Int32Array(4 * size);
  let count = 0;
  for (let y = 0; y < height; y++) {
    const offRow = y % 2 === 1 && y < height - 1 ? width : 0;
    for (let x = 0; x < width; x++) {
      const offColumn = x % 2 === 1 && x < width - 1 ? 1 : 0;
      if (offRow === 0 && offColumn === 0) continue;
      const place = y * width + x;
      const a = place - offRow - offColumn;
      const b = place - offRow + offColumn;
      const c = place + offRow - offColumn;
      const d = place + offRow + offColumn;
      const same = seen[a] === seen[b] && seen[a] === seen[c] && seen[a] === seen[d];
      const to = same ? between.of : round;
      const at = same ? NEIGHBOURS * between.length : 4 * count;
      to[at] = a;
      to[at + 1] = b;
      to[at + 2] = c;
      to[at + 3] = d;
      if (same) {
        between.counts[between.length] = 4;
        between.places[between.length++] = place;
      } else traced[count++] = place;
    }
  }
  return { between, traced: traced.subarray(0, count), round };
}

/** Each pixel of the grid with its up to eight neighbours there that see the same. */
function meansOfGrid(seen: Float64Array, grid: Int32Array, columns: number): Means {
  const means = meansFor(grid.length);
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
        if (seen[other] === seen[place]) means.of[NEIGHBOURS * means.length + like++] = other;
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
  const means = meansFor(traced.length);
  for (let i = 0; i < traced.length; i++) {
    const place = traced[i] as number;
    let like = 0;
    for (let k = 4 * i; k < 4 * i + 4; k++) {
      const other = round[k] as number;
      if (seen[other] === seen[place]) means.of[NEIGHBOURS * means.length + like++] = other;
    }
    if (like === 0) continue;
    means.counts[means.length] = like;
    means.places[means.length++] = place;
  }
  return means;
}

/** Sets each place of a film to the mean of its others. */
function setMeans(film: Float32Array, { length, places, of, counts }: Means, from: Float32Array): void {
  for (let i = 0; i < length; i++) {
    const count = counts[i] as number;
    const end = NEIGHBOURS * i + count;
    let r = 0;
    let g = 0;
    let b = 0;
    for (let k = NEIGHBOURS * i; k < end; k++) {
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
