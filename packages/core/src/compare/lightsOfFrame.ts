import { solveLinear } from '../units/solveLinear.js';

/** Linear values outside of these tell little of the light: they are clipped, or mostly noise. */
const DARKEST = 0.004;
const BRIGHTEST = 0.9;
/** What a frame and its plan differ by all the same, part of a value: tape, focus, grain of the films. */
const SPREAD = 0.06;
/** Blocks along the wider side of the frame, each left out once: the fit is as sure as it stays the same without any of them. */
const BLOCKS_ACROSS = 6;
const ROUNDS = 12;
/** So many values beside each other are off together, and count as one: 5 x 5 cells, three colours. */
const ALIKE = 75;
/** What is taken to be likely before a frame is looked at: lights as planned, give or take half their light; corners a quarter darker. */
const LIKELY = { factor: 1, deviation: 0.5, corner: 0.2, cornerDeviation: 0.2 } as const;
/** A value that is off by so many spreads counts as far as its square root (Huber 1964). */
const HUBER = 1.5;
/** Fewer values than this are no measure of anything. */
const FEWEST = 40;

/** What a frame says of one light: how much more it gives than in the plan. */
export interface LightOfFrame {
  light: number;
  stops: number;
  /** One deviation, stops. */
  error: number;
}

/** Less is what dials and tape let a light be off by, stops; and so many deviations have to lie between it and none. */
const OFF_FROM = 0.3;
const SURE = 3;

/** Whether a light is said to be off: by more than building lets it be, and surely. */
export const isOff = ({ stops, error }: Pick<LightOfFrame, 'stops' | 'error'>): boolean =>
  Math.abs(stops) >= OFF_FROM && Math.abs(stops) >= SURE * error;

/** A frame and the plan of it, on one grid. Linear values, red green blue, 3 a pixel, paper white at 1. */
export interface FrameAndPlan {
  width: number;
  height: number;
  frame: Float32Array;
  /** What each light gives in the plan, exposed as the frame was. */
  lights: readonly Float32Array[];
}

/**
 * How much more each light gives in a frame than in its plan: the frame is a sum of what the lights give, each times a factor, and
 * darker corners. Weighted least squares with Huber's weights, so that an edge that stands elsewhere or a highlight that has moved
 * counts little; errors by leaving out each block of the frame once (Tukey's jackknife), and by how far the lights are told apart at all.
 * @returns nothing for a light that the frame does not show; null where nothing can be told at all
 */
export function lightsOfFrame({ width, height, frame, lights }: FrameAndPlan): LightOfFrame[] | null {
  const shown = lights.flatMap((own, light) => (partOf(own, lights) > 0 ? [light] : []));
  if (shown.length === 0) return null;
  const columns = shown.length + 1;
  const blockSide = Math.ceil(width / BLOCKS_ACROSS);
  const blocksAcross = Math.ceil(width / blockSide);
  const blocks = blocksAcross * Math.ceil(height / blockSide);
  const row = new Float64Array(columns);
  const factors = new Float64Array(columns).fill(1);
  factors[columns - 1] = 0;

  /** The light of one value in the plan, by light and, last, how dark the corner is there. */
  const plan = (pixel: number, at: number): number => {
    const [u, v] = [((pixel % width) + 0.5) / width - 0.5, (Math.floor(pixel / width) + 0.5) / height - 0.5];
    let whole = 0;
    shown.forEach((light, i) => {
      const value = lights[light]?.[at] as number;
      row[i] = value;
      whole += value;
    });
    row[columns - 1] = -2 * (u * u + v * v) * whole;
    return whole;
  };
  const normals = Array.from({ length: blocks }, () =>
    Array.from({ length: columns }, () => new Float64Array(columns + 1)),
  );
  let counted = 0;
  for (let round = 0; round < ROUNDS; round++) {
    for (const normal of normals) for (const line of normal) line.fill(0);
    counted = 0;
    for (let pixel = 0; pixel < width * height; pixel++) {
      const x = pixel % width;
      const y = Math.floor(pixel / width);
      const normal = normals[Math.floor(y / blockSide) * blocksAcross + Math.floor(x / blockSide)];
      for (let c = 0; c < 3; c++) {
        const at = 3 * pixel + c;
        const value = frame[at] as number;
        const whole = plan(pixel, at);
        let fitted = 0;
        for (let i = 0; i < columns; i++) fitted += (factors[i] as number) * (row[i] as number);
        // By what is fitted: by what is seen, values near the limits would count only where they are off to one side.
        if (whole < DARKEST || fitted < DARKEST || fitted > BRIGHTEST || value >= 1) continue;
        const spread = SPREAD * Math.max(fitted, DARKEST * 10);
        const off = Math.abs(value - fitted) / spread;
        const weight = (off <= HUBER || round === 0 ? 1 : HUBER / off) / (spread * spread);
        counted++;
        for (let i = 0; i < columns; i++) {
          const line = (normal as Float64Array[])[i] as Float64Array;
          const scaled = weight * (row[i] as number);
          for (let j = 0; j < columns; j++) line[j] = (line[j] as number) + scaled * (row[j] as number);
          line[columns] = (line[columns] as number) + scaled * value;
        }
      }
    }
    if (counted < FEWEST) return null;
    const next = solveLinear(equations(normals, null));
    const moved = Math.max(...next.map((value, i) => Math.abs(value - (factors[i] as number))));
    factors.set(next);
    if (moved < 1e-4) break;
  }
  const used = [...normals.keys()].filter((block) => (normals[block]?.[0]?.[0] as number) > 0);
  const without = used.map((block) => solveLinear(equations(normals, block)));
  const variance = variances(normals);
  return shown.flatMap((light, i) => {
    const factor = factors[i] as number;
    const mean = without.reduce((sum, own) => sum + (own[i] as number), 0) / without.length;
    const spread = without.reduce((sum, own) => sum + ((own[i] as number) - mean) ** 2, 0);
    const error = Math.sqrt(((without.length - 1) / without.length) * spread + (variance[i] as number));
    if (!(factor > 0.01)) return [];
    return [{ light, stops: Math.log2(factor), error: error / (factor * Math.LN2) }];
  });
}

/** The equations by the sums of all blocks, or of all but one, with what is likely anyhow. */
function equations(normals: readonly Float64Array[][], without: number | null): Float64Array[] {
  const columns = (normals[0] as Float64Array[]).length;
  const sums = Array.from({ length: columns }, () => new Float64Array(columns + 1));
  normals.forEach((normal, block) => {
    if (block === without) return;
    normal.forEach((line, i) => {
      const sum = sums[i] as Float64Array;
      for (let j = 0; j <= columns; j++) sum[j] = (sum[j] as number) + (line[j] as number) / ALIKE;
    });
  });
  sums.forEach((sum, i) => {
    const isCorner = i === columns - 1;
    const sureness = 1 / (isCorner ? LIKELY.cornerDeviation : LIKELY.deviation) ** 2;
    sum[i] = (sum[i] as number) + sureness;
    sum[columns] = (sum[columns] as number) + sureness * (isCorner ? LIKELY.corner : LIKELY.factor);
  });
  return sums;
}

/** Variance of each factor by the equations alone: large where two lights look alike. */
function variances(normals: readonly Float64Array[][]): number[] {
  const columns = (normals[0] as Float64Array[]).length;
  return Array.from({ length: columns }, (_, i) => {
    const rows = equations(normals, null);
    rows.forEach((row, j) => {
      row[columns] = i === j ? 1 : 0;
    });
    return solveLinear(rows)[i] as number;
  });
}

/** Part of a light in all light of the plan. */
function partOf(own: Float32Array, lights: readonly Float32Array[]): number {
  const sum = (values: Float32Array) => values.reduce((all, value) => all + value, 0);
  const whole = lights.reduce((all, light) => all + sum(light), 0);
  return whole > 0 ? sum(own) / whole : 0;
}
