import type { Tile } from './film.js';

/** Renders places of a tile (row after row from 0) into the sums, and writes down what each of them sees sharply. */
type RenderPlaces = (places: Int32Array, seen: Float64Array) => void;

/**
 * Renders a tile of a quick picture for the eye that follows a moving thing. Every other pixel of every other row is traced,
 * and the last of each; what lies between pixels that see the same things sharply (`PathTracer.seen`) is their mean, all
 * else is traced too. Then pixels are averaged with those round them that see the same. So edges, print and what mirrors
 * show stay sharp to the pixel, while shade is told over about five pixels.
 * @param sums as `renderTile` gives them
 */
export function renderSparsely(sums: Float32Array, { width, height }: Tile, render: RenderPlaces): void {
  const seen = new Float64Array(width * height);
  const columns = gridLines(width);
  const rows = gridLines(height);
  const grid = new Int32Array(columns.length * rows.length);
  for (let row = 0; row < rows.length; row++) {
    for (let column = 0; column < columns.length; column++) {
      grid[row * columns.length + column] = (rows[row] as number) * width + (columns[column] as number);
    }
  }
  render(grid, seen);
  smoothGrid(sums, seen, grid, columns.length, width * height);

  const size = width * height;
  const traced = new Int32Array(size);
  /** The pixels of the grid round each of them: four, some of them twice. */
  const round = new Int32Array(4 * size);
  const parents = new Int32Array(4);
  let count = 0;
  for (let y = 0; y < height; y++) {
    const offRow = y % 2 === 1 && y < height - 1 ? width : 0;
    for (let x = 0; x < width; x++) {
      const offColumn = x % 2 === 1 && x < width - 1 ? 1 : 0;
      if (offRow === 0 && offColumn === 0) continue;
      const place = y * width + x;
      parents[0] = place - offRow - offColumn;
      parents[1] = place - offRow + offColumn;
      parents[2] = place + offRow - offColumn;
      parents[3] = place + offRow + offColumn;
      if (seeTheSame(seen, parents)) setMean(sums, size, place, parents, 4);
      else {
        round.set(parents, 4 * count);
        traced[count++] = place;
      }
    }
  }
  render(traced.subarray(0, count), seen);
  // One sample is noise beside pixels that are the mean of nine: it tells what is seen here.
  const alike = new Int32Array(4);
  for (let i = 0; i < count; i++) {
    const place = traced[i] as number;
    let like = 0;
    for (let k = 4 * i; k < 4 * i + 4; k++) {
      const other = round[k] as number;
      if (seen[other] === seen[place]) alike[like++] = other;
    }
    if (like > 0) setMean(sums, size, place, alike, like);
  }
}

/** Every other line from 0, and the last. */
function gridLines(length: number): number[] {
  return Array.from({ length }, (_, line) => line).filter((line) => line % 2 === 0 || line === length - 1);
}

function seeTheSame(seen: Float64Array, places: Int32Array): boolean {
  const first = seen[places[0] as number];
  return (
    first === seen[places[1] as number] &&
    first === seen[places[2] as number] &&
    first === seen[places[3] as number]
  );
}

/** Averages each pixel of the grid with its up to eight neighbours there that see the same. */
function smoothGrid(
  sums: Float32Array,
  seen: Float64Array,
  grid: Int32Array,
  columns: number,
  size: number,
): void {
  const plain = sums.slice();
  const alike = new Int32Array(9);
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
        if (seen[other] === seen[place]) alike[like++] = other;
      }
    }
    if (like > 1) setMean(sums, size, place, alike, like, plain);
  }
}

/** Sets a pixel to the mean of the first `count` places, in every film and colour. */
function setMean(
  sums: Float32Array,
  size: number,
  place: number,
  places: Int32Array,
  count: number,
  from: Float32Array = sums,
): void {
  for (let film = 0; film < sums.length; film += 3 * size) {
    let r = 0;
    let g = 0;
    let b = 0;
    for (let i = 0; i < count; i++) {
      const at = film + 3 * (places[i] as number);
      r += from[at] as number;
      g += from[at + 1] as number;
      b += from[at + 2] as number;
    }
    const to = film + 3 * place;
    sums[to] = r / count;
    sums[to + 1] = g / count;
    sums[to + 2] = b / count;
  }
}
