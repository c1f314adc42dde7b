import { solveLinear } from '../units/solveLinear.js';

/** Darker than this tells nothing of edges, linear. */
const DARKEST = 0.004;
const CLIPPED = 0.95;
/** Edges are sought first in smoothed pictures, which shows them from further off; radius in cells. */
const SMOOTHED = [6, 3, 1] as const;
const ROUNDS = 12;
/** Differences of more stops than this are of light, not of place (Huber 1964). */
const HUBER_STOPS = 0.25;
/** Blocks along the wider side, each left out once. */
const BLOCKS_ACROSS = 6;
const FEWEST = 200;

/** How a frame stands off its plan, seen in the picture: with one deviation each. */
export interface FrameShift {
  /** All of it further to the right, part of the width. */
  right: Measure;
  /** Further down, part of the width. */
  down: Measure;
  /** Larger, part of its size: the camera is nearer, or the lens longer. */
  larger: Measure;
  /** Turned clockwise, degrees: the camera leans the other way. */
  turnedDeg: Measure;
}

export interface Measure {
  value: number;
  error: number;
}

/** One grey value a cell. */
interface Grid {
  width: number;
  height: number;
}

/**
 * How a frame is moved, scaled and turned against its plan, by the edges in both: Gauss and Newton on stops (Lucas and Kanade
 * 1981), from smoothed to sharp, with a constant for all light. Edges of shadows and mirrored cards count as those of products do, so
 * that it is the mean of all that moved.
 * @param plan @param frame linear luminance, paper white at 1  @returns null where there are too few edges
 */
export function frameShift(
  plan: Float32Array,
  frame: Float32Array,
  { width, height }: Grid,
): FrameShift | null {
  const known = new Uint8Array(plan.length);
  for (let i = 0; i < plan.length; i++) {
    const [p, f] = [plan[i] as number, frame[i] as number];
    known[i] = p > DARKEST && f > DARKEST && p < CLIPPED && f < CLIPPED ? 1 : 0;
  }
  const stops = (values: Float32Array) =>
    values.map((value) => Math.log2(Math.min(CLIPPED, Math.max(DARKEST, value))));
  const [planStops, frameStops] = [stops(plan), stops(frame)];
  /** Right and down in cells, scale, turn in radians, and stops more. */
  let found = [0, 0, 0, 0, 0];
  let blocks: Float64Array[][] = [];
  for (const radius of SMOOTHED) {
    const grid = { width, height };
    const [a, b] = [smoothed(planStops, grid, radius), smoothed(frameStops, grid, radius)];
    for (let round = 0; round < ROUNDS; round++) {
      const sums = gathered(a, b, known, grid, found);
      if (sums.count < FEWEST) return null;
      blocks = sums.blocks;
      const step = solveLinear(added(blocks, null));
      found = found.map((value, i) => value + (step[i] as number));
      if (Math.max(...step.map(Math.abs)) < 1e-4) break;
    }
  }
  const used = [...blocks.keys()].filter((block) => (blocks[block]?.[4]?.[4] as number) > 0);
  const steps = used.map((block) => solveLinear(added(blocks, block)));
  const error = (i: number) => {
    const mean = steps.reduce((sum, step) => sum + (step[i] as number), 0) / steps.length;
    const spread = steps.reduce((sum, step) => sum + ((step[i] as number) - mean) ** 2, 0);
    return Math.sqrt(((steps.length - 1) / steps.length) * spread);
  };
  const [right, down, larger, turned] = found as [number, number, number, number, number];
  // Further off than the smoothing reaches, an edge is taken for another.
  if (Math.hypot(right, down) > 2 * SMOOTHED[0] || Math.abs(larger) > 0.1 || Math.abs(turned) > 0.1)
    return null;
  const degrees = 180 / Math.PI;
  return {
    right: { value: right / width, error: error(0) / width },
    down: { value: down / width, error: error(1) / width },
    larger: { value: larger, error: error(2) },
    turnedDeg: { value: turned * degrees, error: error(3) * degrees },
  };
}

/** The equations of one step, by block: five unknowns, right side last. */
function gathered(
  plan: Float32Array,
  frame: Float32Array,
  known: Uint8Array,
  { width, height }: Grid,
  [right, down, larger, turned, more]: readonly number[],
): { blocks: Float64Array[][]; count: number } {
  const side = Math.ceil(width / BLOCKS_ACROSS);
  const across = Math.ceil(width / side);
  const blocks = Array.from({ length: across * Math.ceil(height / side) }, () =>
    Array.from({ length: 5 }, () => new Float64Array(6)),
  );
  const row = new Float64Array(5);
  const scale = 1 + (larger as number);
  const [sin, cos] = [Math.sin(turned as number), Math.cos(turned as number)];
  let count = 0;
  for (let y = 1; y < height - 1; y++) {
    for (let x = 1; x < width - 1; x++) {
      const at = y * width + x;
      if (!known[at]) continue;
      const [u, v] = [x - (width - 1) / 2, y - (height - 1) / 2];
      const toX = (width - 1) / 2 + (right as number) + scale * (cos * u - sin * v);
      const toY = (height - 1) / 2 + (down as number) + scale * (sin * u + cos * v);
      const seen = sampled(frame, known, width, height, toX, toY);
      if (seen === null) continue;
      const gx = ((plan[at + 1] as number) - (plan[at - 1] as number)) / 2;
      const gy = ((plan[at + width] as number) - (plan[at - width] as number)) / 2;
      // The frame there is what the plan is here: where it is not, the plan's slope says how far to go.
      const off = seen - (more as number) - (plan[at] as number);
      row[0] = -gx;
      row[1] = -gy;
      row[2] = -(gx * u + gy * v);
      row[3] = -(gy * u - gx * v);
      row[4] = 1;
      const weight = Math.abs(off) <= HUBER_STOPS ? 1 : HUBER_STOPS / Math.abs(off);
      const block = blocks[Math.floor(y / side) * across + Math.floor(x / side)] as Float64Array[];
      for (let i = 0; i < 5; i++) {
        const line = block[i] as Float64Array;
        const own = weight * (row[i] as number);
        for (let j = 0; j < 5; j++) line[j] = (line[j] as number) + own * (row[j] as number);
        line[5] = (line[5] as number) + own * off;
      }
      count++;
    }
  }
  return { blocks, count };
}

/** A value between cells; null where one of the four is not known. */
function sampled(
  values: Float32Array,
  known: Uint8Array,
  width: number,
  height: number,
  x: number,
  y: number,
): number | null {
  const [left, top] = [Math.floor(x), Math.floor(y)];
  if (left < 0 || top < 0 || left + 1 >= width || top + 1 >= height) return null;
  const at = top * width + left;
  if (!known[at] || !known[at + 1] || !known[at + width] || !known[at + width + 1]) return null;
  const [u, v] = [x - left, y - top];
  const upper = (1 - u) * (values[at] as number) + u * (values[at + 1] as number);
  const lower = (1 - u) * (values[at + width] as number) + u * (values[at + width + 1] as number);
  return (1 - v) * upper + v * lower;
}

/** Sums of all blocks, or of all but one, with a little to hold what no edge tells. */
function added(blocks: readonly Float64Array[][], without: number | null): Float64Array[] {
  const sums = Array.from({ length: 5 }, () => new Float64Array(6));
  blocks.forEach((block, index) => {
    if (index === without) return;
    block.forEach((line, i) => {
      const sum = sums[i] as Float64Array;
      for (let j = 0; j < 6; j++) sum[j] = (sum[j] as number) + (line[j] as number);
    });
  });
  sums.forEach((sum, i) => {
    sum[i] = (sum[i] as number) + 1e-6;
  });
  return sums;
}

/** Mean over a square, rows then columns; at the border over what is there. */
function smoothed(values: Float32Array, { width, height }: Grid, radius: number): Float32Array {
  const along = (
    from: Float32Array,
    count: number,
    step: number,
    lines: number,
    next: number,
  ): Float32Array => {
    const out = new Float32Array(from.length);
    for (let line = 0; line < lines; line++) {
      for (let i = 0; i < count; i++) {
        const [first, last] = [Math.max(0, i - radius), Math.min(count - 1, i + radius)];
        let sum = 0;
        for (let k = first; k <= last; k++) sum += from[line * next + k * step] as number;
        out[line * next + i * step] = sum / (last - first + 1);
      }
    }
    return out;
  };
  return along(along(values, width, 1, height, width), height, width, width, 1);
}
