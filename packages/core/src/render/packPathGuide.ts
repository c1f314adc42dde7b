import { PATH_GUIDE_CELLS, PATH_GUIDE_STRIDE } from '../engine/path/pathGuide.js';
import type { SceneTables } from '../engine/tables.js';
import type { Gathered } from './bakeLightmaps.js';
import type { LightmapLayout } from './lightmaps.js';

/** Part of the chance that goes by the cosine law alone: what the rays of the patches have missed is found by it. */
const EVEN = 0.25;
/** The mean of the patch counts as so many rays in each cell. */
const PRIOR_RAYS = 1;

/**
 * Writes from where the patches receive the light of others: for each patch a chance for each cell of the half space,
 * by the root of the mean squared light along its rays and those of its neighbours, over all films together, each
 * relative to its own mean.
 */
export function packPathGuide(
  tables: SceneTables,
  { lightmaps, patches }: LightmapLayout,
  parts: readonly Gathered[],
): void {
  const squares = new Float64Array(patches * PATH_GUIDE_CELLS);
  const counts = new Float64Array(patches * PATH_GUIDE_CELLS);
  const brightness = brightnessOf(tables, patches);
  for (const part of parts) addRays(squares, counts, brightness, part);
  tables.pathGuide = new Float32Array(patches * PATH_GUIDE_STRIDE);
  const square = new Float64Array(PATH_GUIDE_CELLS);
  const count = new Float64Array(PATH_GUIDE_CELLS);
  for (const { first, across, up } of lightmaps) {
    for (let row = 0; row < up; row++) {
      for (let column = 0; column < across; column++) {
        square.fill(0);
        count.fill(0);
        for (let y = Math.max(0, row - 1); y <= Math.min(up - 1, row + 1); y++) {
          for (let x = Math.max(0, column - 1); x <= Math.min(across - 1, column + 1); x++) {
            const from = (first + y * across + x) * PATH_GUIDE_CELLS;
            for (let cell = 0; cell < PATH_GUIDE_CELLS; cell++) {
              square[cell] = (square[cell] as number) + (squares[from + cell] as number);
              count[cell] = (count[cell] as number) + (counts[from + cell] as number);
            }
          }
        }
        toChances(square, count);
        writeChances(tables.pathGuide, (first + row * across + column) * PATH_GUIDE_STRIDE, square);
      }
    }
  }
}

/** 3 a patch, red green blue: its irradiance over all films, each relative to its own mean. */
function brightnessOf({ irradiance, channelCount }: SceneTables, patches: number): Float64Array {
  const brightness = new Float64Array(3 * patches);
  const size = 3 * channelCount;
  for (let channel = 0; channel < channelCount; channel++) {
    let sum = 0;
    for (let at = 3 * channel; at < patches * size; at += size) {
      for (let c = 0; c < 3; c++) sum += irradiance[at + c] as number;
    }
    const scale = sum > 0 ? patches / sum : 0;
    for (let patch = 0; patch < patches; patch++) {
      for (let c = 0; c < 3; c++) {
        const light = irradiance[patch * size + 3 * channel + c] as number;
        brightness[3 * patch + c] = (brightness[3 * patch + c] as number) + scale * light;
      }
    }
  }
  return brightness;
}

function addRays(
  squares: Float64Array,
  counts: Float64Array,
  brightness: Float64Array,
  { first, count, rays, met, factor, cell }: Gathered,
): void {
  for (let patch = 0; patch < count; patch++) {
    for (let ray = patch * rays; ray < (patch + 1) * rays; ray++) {
      let light = 0;
      for (let i = 2 * ray; i < 2 * ray + 2; i++) {
        const source = met[i] as number;
        if (source < 0) continue;
        for (let c = 0; c < 3; c++)
          light += (factor[3 * i + c] as number) * (brightness[3 * source + c] as number);
      }
      const at = (first + patch) * PATH_GUIDE_CELLS + (cell[ray] as number);
      squares[at] = (squares[at] as number) + light * light;
      counts[at] = (counts[at] as number) + 1;
    }
  }
}

/** Puts the chance of each cell in place of the sum of its squares. */
function toChances(square: Float64Array, count: Float64Array): void {
  let squares = 0;
  let counts = 0;
  for (let cell = 0; cell < PATH_GUIDE_CELLS; cell++) {
    squares += square[cell] as number;
    counts += count[cell] as number;
  }
  const prior = (PRIOR_RAYS * squares) / Math.max(1, counts);
  let total = 0;
  for (let cell = 0; cell < PATH_GUIDE_CELLS; cell++) {
    const root = Math.sqrt(((square[cell] as number) + prior) / ((count[cell] as number) + PRIOR_RAYS));
    square[cell] = root;
    total += root;
  }
  for (let cell = 0; cell < PATH_GUIDE_CELLS; cell++) {
    const share = total > 0 ? (square[cell] as number) / total : 1 / PATH_GUIDE_CELLS;
    square[cell] = (1 - EVEN) * share + EVEN / PATH_GUIDE_CELLS;
  }
}

/** Writes the running chance of the rows, then that of the columns within each row. */
function writeChances(guide: Float32Array, at: number, chance: Float64Array): void {
  const rows = PATH_GUIDE_STRIDE - PATH_GUIDE_CELLS;
  const columns = PATH_GUIDE_CELLS / rows;
  let running = 0;
  for (let row = 0; row < rows; row++) {
    const first = row * columns;
    let sum = 0;
    for (let cell = first; cell < first + columns; cell++) sum += chance[cell] as number;
    running += sum;
    guide[at + row] = row === rows - 1 ? 1 : running;
    let within = 0;
    for (let column = 0; column < columns; column++) {
      within += (chance[first + column] as number) / sum;
      guide[at + rows + first + column] = column === columns - 1 ? 1 : within;
    }
  }
}
