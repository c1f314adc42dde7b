import type { i32 } from '../portable.js';
import type { SceneTables } from '../tables.js';

/** Cells of the half space above a patch: equal steps of the squared sine, eighths of the turn round the normal. */
const ROWS: i32 = 8;
const COLUMNS: i32 = 8;
export const PATH_GUIDE_CELLS: i32 = ROWS * COLUMNS;
/** Numbers kept for each patch: running chance of the rows, then of the columns of each row. */
export const PATH_GUIDE_STRIDE: i32 = ROWS + PATH_GUIDE_CELLS;

/** Cell of a direction in the frame of the normal; by the cosine law all cells are equally likely. */
export function pathGuideCell(local: Float64Array): i32 {
  const x = local[0];
  const y = local[1];
  const row: i32 = rowOf(x * x + y * y);
  let column: i32 = 0;
  if (y >= 0) {
    if (x >= 0) column = y < x ? 0 : 1;
    else column = -x < y ? 2 : 3;
  } else if (x < 0) column = y > x ? 4 : 5;
  else column = x < -y ? 6 : 7;
  return row * COLUMNS + column;
}

function rowOf(sine2: number): i32 {
  for (let row: i32 = 0; row < ROWS - 1; row++) {
    if (sine2 * ROWS < row + 1) return row;
  }
  return ROWS - 1;
}

/**
 * Picks directions above a lightmap by how much light the sheet is known to receive from each, and knows how much
 * likelier than by the cosine law each is. Every direction keeps a chance, so that the picture stays unbiased.
 * Source: Jensen 1995 (importance driven path tracing), with a grid a patch instead of a photon map
 */
export class PathGuide {
  private t: SceneTables;
  /** Where the numbers of the patch in use start; -1 for none. */
  private at: i32 = -1;

  constructor(t: SceneTables) {
    this.t = t;
  }

  get isOn(): boolean {
    return this.at >= 0;
  }

  /** Makes ready for a patch; -1 for the cosine law. */
  aim(patch: i32): void {
    this.at = patch * PATH_GUIDE_STRIDE;
    if (patch < 0 || this.at >= this.t.pathGuide.length) this.at = -1;
  }

  /** Moves two even numbers from 0 to 1 to where `cosineAbove` makes the wanted direction of them. */
  bend(uv: Float64Array): void {
    if (this.at < 0) return;
    const row = this.bendOne(uv, 0, this.at, ROWS);
    this.bendOne(uv, 1, this.at + ROWS + row * COLUMNS, COLUMNS);
  }

  /** How much likelier a direction in the frame of the normal is than by the cosine law. */
  gain(local: Float64Array): number {
    if (this.at < 0 || !(local[2] > 0)) return 1;
    const g = this.t.pathGuide;
    const cell = pathGuideCell(local);
    const row: i32 = cell >> 3;
    const m = this.at + row;
    const marginal = g[m] - (row > 0 ? g[m - 1] : 0);
    const c = this.at + ROWS + cell;
    const conditional = g[c] - ((cell & 7) > 0 ? g[c - 1] : 0);
    return marginal * conditional * PATH_GUIDE_CELLS;
  }

  private bendOne(uv: Float64Array, axis: i32, first: i32, count: i32): i32 {
    const g = this.t.pathGuide;
    const wanted = uv[axis];
    let i: i32 = 0;
    let before: number = 0;
    let after: number = g[first];
    while (i < count - 1 && wanted >= after) {
      i++;
      before = after;
      after = g[first + i];
    }
    const within = Math.min(0.999999, (wanted - before) / (after - before));
    uv[axis] = (i + within) / count;
    return i;
  }
}
