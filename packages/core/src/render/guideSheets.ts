import { GUIDE, GUIDE_CELLS } from '../engine/guide.js';
import type { SceneTables } from '../engine/tables.js';
import type { Gathered } from './bakeSheets.js';
import type { SheetLayout } from './litSheets.js';

/** Part of the chance that goes by the cosine law alone: what the rays of the patches have missed is found by it. */
const EVEN = 0.25;
/** The mean of the patch counts as so many rays in each cell. */
const PRIOR_RAYS = 1;

/**
 * Writes from where the patches receive the light of others: for each patch a chance for each cell of the half space,
 * by the root of the mean squared light along its rays and those of its neighbours, over all films together, each
 * relative to its own mean.
 */
export function packGuide(tables: SceneTables, layout: SheetLayout, parts: readonly Gathered[]): void {
  const squares = new Float64Array(layout.patches * GUIDE_CELLS);
  const rays = new Float64Array(layout.patches * GUIDE_CELLS);
  const scale = filmScales(tables, layout.patches);
  for (const part of parts) addRays(squares, rays, tables, scale, part);
  tables.guide = new Float32Array(layout.patches * GUIDE);
  const square = new Float64Array(GUIDE_CELLS);
  const count = new Float64Array(GUIDE_CELLS);
  for (const { first, across, up } of layout.panels) {
    for (let row = 0; row < up; row++) {
      for (let column = 0; column < across; column++) {
        square.fill(0);
        count.fill(0);
        for (let y = Math.max(0, row - 1); y <= Math.min(up - 1, row + 1); y++) {
          for (let x = Math.max(0, column - 1); x <= Math.min(across - 1, column + 1); x++) {
            const from = (first + y * across + x) * GUIDE_CELLS;
            for (let cell = 0; cell < GUIDE_CELLS; cell++) {
              square[cell] = (square[cell] as number) + (squares[from + cell] as number);
              count[cell] = (count[cell] as number) + (rays[from + cell] as number);
            }
          }
        }
        writeChances(tables.guide, (first + row * across + column) * GUIDE, square, count);
      }
    }
  }
}

/** One over the mean of each film. */
function filmScales({ irradiance, channelCount }: SceneTables, patches: number): number[] {
  return Array.from({ length: channelCount }, (_, channel) => {
    let sum = 0;
    for (let patch = 0; patch < patches; patch++) {
      const at = 3 * (patch * channelCount + channel);
      for (let c = 0; c < 3; c++) sum += irradiance[at + c] as number;
    }
    return sum > 0 ? patches / sum : 0;
  });
}

function addRays(
  squares: Float64Array,
  counts: Float64Array,
  { irradiance, channelCount }: SceneTables,
  scale: number[],
  { first, count, rays, met, factor, cell }: Gathered,
): void {
  for (let ray = 0; ray < count * rays; ray++) {
    let light = 0;
    for (let side = 0; side < 2; side++) {
      const source = met[2 * ray + side] as number;
      if (source < 0) continue;
      for (let channel = 0; channel < channelCount; channel++) {
        for (let c = 0; c < 3; c++) {
          const share = factor[6 * ray + 3 * side + c] as number;
          light +=
            share *
            (irradiance[3 * (source * channelCount + channel) + c] as number) *
            (scale[channel] as number);
        }
      }
    }
    const at = (first + Math.floor(ray / rays)) * GUIDE_CELLS + (cell[ray] as number);
    squares[at] = (squares[at] as number) + light * light;
    counts[at] = (counts[at] as number) + 1;
  }
}

function writeChances(guide: Float32Array, at: number, square: Float64Array, count: Float64Array): void {
  const rows = GUIDE - GUIDE_CELLS;
  const columns = GUIDE_CELLS / rows;
  const sum = (values: Float64Array) => values.reduce((total, value) => total + value, 0);
  const mean = sum(square) / Math.max(1, sum(count));
  const wanted = square.map((value, cell) =>
    Math.sqrt((value + PRIOR_RAYS * mean) / ((count[cell] as number) + PRIOR_RAYS)),
  );
  const total = sum(wanted);
  const chance = wanted.map((value) => (total > 0 ? ((1 - EVEN) * value) / total : (1 - EVEN) / GUIDE_CELLS));
  let running = 0;
  for (let row = 0; row < rows; row++) {
    const own = chance
      .subarray(row * columns, (row + 1) * columns)
      .map((value) => value + EVEN / GUIDE_CELLS);
    const rowSum = sum(own);
    running += rowSum;
    guide[at + row] = row === rows - 1 ? 1 : running;
    let within = 0;
    own.forEach((value, column) => {
      within += value / rowSum;
      guide[at + rows + row * columns + column] = column === columns - 1 ? 1 : within;
    });
  }
}
