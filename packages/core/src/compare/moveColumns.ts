import { cornerDistance2 } from '../exposure/response.js';
import type { LevelWay, StoodThing, TriedMove } from './triedMoves.js';
import { type Column, type WeighedColumns, weighedColumns } from './weighedColumns.js';

/** Linear red, green, blue of the cells of a window, 3 a cell, paper white at 1. */
export type Light = Float32Array;

/** What the plan, and each thing moved, shows of the products: cells of a window of the picture. */
export interface MovePictures {
  /** Cells of the window, and where it lies in the whole grid. */
  width: number;
  height: number;
  left: number;
  top: number;
  gridWidth: number;
  gridHeight: number;
  /** The plan, lit and exposed as the frame is, and what of it each light gives. */
  plan: Light;
  lights: readonly Light[];
  /** The plan of the paths of the tries, and of others: between them is what noise makes. */
  base: Light;
  again: Light;
  tries: readonly { move: TriedMove; picture: Light }[];
}

/** Stops are taken over this, linear: what is darker is noise. */
export const FLOOR = 0.02;
/** What is darker in plan and frame tells nothing, what is brighter is clipped. */
const [DARKEST, DARKEST_SEEN, BRIGHTEST] = [0.006, 0.01, 0.93];
/** A difference counts as it stands out of this many deviations of its noise. */
const NOISE = 2;
/** What a cell differs by in frame and plan whatever is done, stops; and by how many cells an edge is found beside itself. */
const [SPREAD_STOPS, SPREAD_CELLS] = [0.05, 0.15];
/** How much of the noise of a try counts as that of frame and plan together: they have more samples. */
const FRAME_NOISE = 0.4;

/** What building makes of places, m, one deviation, see `BUILT_TO`: things, products, the camera. */
const BUILT_TO_M = { light: 0.006, sheet: 0.004, product: 0.001, camera: 0.002 } as const;
/** So many values beside each other are off together, and count as one. */
export const ALIKE = 20;
/** A bend counts from so much on, as a sum of squared deviations. */
const LEAST_BEND = 1;
/** Stops that a light, and a colour of the camera, may be off all the same; corners; one deviation. */
const [LIGHT_STOPS, WHITE_STOPS, CORNER_STOPS] = [0.15, 0.05, 0.35];
/** Cells by which the frame lies beside its plan: shift; size and turn, over the width of the window. */
const [SHIFT_CELLS, SIZE_CELLS] = [2, 1.5];

/** What a move of a thing does, by how far it is moved, m, ascending; 0 is the plan. */
export interface MovedColumn {
  thing: StoodThing;
  way: LevelWay;
  /** Whether it was moved by little too: otherwise the picture hardly tells of it. */
  isFine: boolean;
  steps: readonly { byM: number; stops: Float64Array }[];
}

/** All that may change the picture of the products. */
export interface MoveColumns {
  width: number;
  height: number;
  /** What the frame may be off by whatever is named: lights, registration, corners, colours, all that was built. */
  always: WeighedColumns;
  /** The place of the four of registration in it. */
  registration: number;
  moved: readonly MovedColumn[];
  /** Stops of the plan, the variance of a cell, and whether the plan is clipped there or as good as black. */
  plan: Float64Array;
  variance: Float64Array;
  planned: Light;
  /** Stops of the plan by the paths of the tries, and the variance of their noise. */
  base: Float64Array;
  noise: Float64Array;
}

const stopsOf = (light: Light): Float64Array =>
  Float64Array.from(light, (value) => Math.log2(Math.min(1, value) + FLOOR));

/** Whether a cell tells anything of a frame; NaN where it is clipped. */
export const isTold = (frame: number, planned: number): boolean =>
  frame < BRIGHTEST && planned < BRIGHTEST && (planned > DARKEST || frame > DARKEST_SEEN);

/** Means of three by three cells. */
function smoothed(values: Float64Array, width: number, height: number): Float64Array {
  const out = new Float64Array(values.length);
  for (let y = 0; y < height; y++) {
    const [top, bottom] = [Math.max(0, y - 1), Math.min(height - 1, y + 1)];
    for (let x = 0; x < width; x++) {
      const [left, right] = [Math.max(0, x - 1), Math.min(width - 1, x + 1)];
      const cells = (bottom - top + 1) * (right - left + 1);
      for (let c = 0; c < 3; c++) {
        let sum = 0;
        for (let v = top; v <= bottom; v++)
          for (let u = left; u <= right; u++) sum += values[3 * (v * width + u) + c] as number;
        out[3 * (y * width + x) + c] = sum / cells;
      }
    }
  }
  return out;
}

/** What may change the picture, as columns of a fit in stops. */
export function moveColumns(pictures: MovePictures): MoveColumns {
  const { width, height, left, top, gridWidth, gridHeight } = pictures;
  const count = 3 * width * height;
  const [plan, base, again] = [stopsOf(pictures.plan), stopsOf(pictures.base), stopsOf(pictures.again)];
  const noise = smoothed(
    base.map((value, i) => (value - (again[i] as number)) ** 2 / 2),
    width,
    height,
  );
  const [right, down] = slopes(plan, width, height);
  const at = (of: (u: number, v: number, i: number) => number) =>
    Float64Array.from({ length: count }, (_, i) => {
      const [x, y] = placeOf(i, width);
      return of((x + 0.5) / width - 0.5, (y + 0.5 - height / 2) / width, i);
    });
  const slope = (of: Float64Array, i: number) => of[i] as number;
  const always: Column[] = pictures.lights.map((own) => ({
    stops: Float64Array.from(own, (value, i) => value / ((pictures.plan[i] as number) + FLOOR) / Math.LN2),
    deviation: LIGHT_STOPS,
  }));
  const registration = always.length;
  always.push(
    { stops: right, deviation: SHIFT_CELLS },
    { stops: down, deviation: SHIFT_CELLS },
    { stops: at((u, v, i) => slope(right, i) * u + slope(down, i) * v), deviation: SIZE_CELLS },
    { stops: at((u, v, i) => slope(right, i) * v - slope(down, i) * u), deviation: SIZE_CELLS },
    {
      stops: at((_u, _v, i) => {
        const [x, y] = placeOf(i, width);
        return -cornerDistance2(left + x, top + y, gridWidth, gridHeight);
      }),
      deviation: CORNER_STOPS,
    },
    ...[0, 1, 2].map((c) => ({
      stops: at((_u, _v, i) => (i % 3 === c ? 1 : 0)),
      deviation: WHITE_STOPS,
    })),
  );
  const groups = new Map<string, { move: TriedMove; steps: { byM: number; stops: Float64Array }[] }>();
  for (const { move, picture } of pictures.tries) {
    const name = `${move.part.kind} ${move.part.key} ${move.way}`;
    const group = groups.get(name) ?? { move, steps: [] };
    group.steps.push({ byM: move.byM, stops: effectOf({ width, height, base, noise }, picture) });
    groups.set(name, group);
  }
  const moved: MovedColumn[] = [];
  const bends: Column[] = [];
  for (const { move, steps } of groups.values()) {
    steps.sort((a, b) => a.byM - b.byM);
    const [below, above] = [steps.filter(({ byM }) => byM < 0).at(-1), steps.find(({ byM }) => byM > 0)];
    if (below && above) {
      const deviation = BUILT_TO_M[move.part.kind];
      const stops = above.stops.map(
        (value, i) => (value - (below.stops[i] as number)) / (above.byM - below.byM),
      );
      always.push({ stops, deviation });
      bends.push(bendOf(below, above, deviation));
    }
    const { part } = move;
    if ((part.kind !== 'light' && part.kind !== 'sheet') || move.way === 'up') continue;
    const planned = { byM: 0, stops: new Float64Array(count) };
    moved.push({
      thing: { kind: part.kind, key: part.key },
      way: move.way,
      isFine: steps.length > 2,
      steps: [...steps, planned].sort((a, b) => a.byM - b.byM),
    });
  }
  const variance = noise.map(
    (value, i) =>
      SPREAD_STOPS ** 2 +
      FRAME_NOISE * value +
      SPREAD_CELLS ** 2 * ((right[i] as number) ** 2 + (down[i] as number) ** 2),
  );
  const isSeen = ({ stops, deviation }: Column) =>
    stops.reduce((sum, value, i) => sum + (value * deviation) ** 2 / (variance[i] as number), 0) >
    LEAST_BEND * ALIKE;
  always.push(...bends.filter(isSeen));
  const weights = variance.map((value, i) => {
    const planned = pictures.plan[i] as number;
    return isTold(planned, planned) ? 1 / value : 0;
  });
  return {
    width,
    height,
    always: weighedColumns(always, weights),
    registration,
    moved,
    plan,
    variance,
    planned: pictures.plan,
    base,
    noise,
  };
}

/** What a move does to the picture, stops past what is noise of its paths. @param picture with it, of the paths of the tries */
export function effectOf(
  { width, height, base, noise }: Pick<MoveColumns, 'width' | 'height' | 'base' | 'noise'>,
  picture: Light,
): Float64Array {
  const mean = smoothed(
    stopsOf(picture).map((value, i) => value - (base[i] as number)),
    width,
    height,
  );
  return mean.map((value, i) => {
    const power = value * value;
    return power === 0 ? 0 : (value * power) / (power + (NOISE * NOISE * (noise[i] as number)) / 18);
  });
}

/** How far a thing is moved as a sum of the steps that were tried on both sides of it. */
export function stepsAt({ steps }: MovedColumn, byM: number): { stops: Float64Array; times: number }[] {
  const above = steps.findIndex((step) => step.byM >= byM);
  const next = above < 0 ? steps.length - 1 : Math.max(1, above);
  const [from, to] = [steps[next - 1], steps[next]];
  if (!from || !to) return [];
  const part = (byM - from.byM) / (to.byM - from.byM);
  const ends = [
    { ...from, times: 1 - part },
    { ...to, times: part },
  ];
  return ends.filter((end) => end.byM !== 0 && end.times !== 0);
}

/** What moving a thing so far does, stops, between the steps that were tried. */
export function movedBy(column: MovedColumn, byM: number): Float64Array {
  const out = new Float64Array(column.steps[0]?.stops.length ?? 0);
  for (const { stops, times } of stepsAt(column, byM))
    for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + times * (stops[i] as number);
  return out;
}

/** What of a move goes the same way on both sides: a small card close behind glass shows little of it in a straight line. A metre squared. */
function bendOf(
  below: MovedColumn['steps'][number],
  above: MovedColumn['steps'][number],
  builtM: number,
): Column {
  const far = (above.byM - below.byM) / 2;
  return {
    stops: above.stops.map((value, i) => (value + (below.stops[i] as number)) / (2 * far * far)),
    // The mean fourth power of what is distributed normally.
    deviation: Math.sqrt(3) * builtM * builtM,
  };
}

const placeOf = (i: number, width: number): [number, number] => {
  const cell = Math.floor(i / 3);
  return [cell % width, Math.floor(cell / width)];
};

/** Stops a cell to the right, and down. */
function slopes(stops: Float64Array, width: number, height: number): [Float64Array, Float64Array] {
  const at = (x: number, y: number, c: number) =>
    stops[
      3 * (Math.min(height - 1, Math.max(0, y)) * width + Math.min(width - 1, Math.max(0, x))) + c
    ] as number;
  const [right, down] = [new Float64Array(stops.length), new Float64Array(stops.length)];
  for (let i = 0; i < stops.length; i++) {
    const [x, y] = placeOf(i, width);
    const c = i % 3;
    right[i] = (at(x + 1, y, c) - at(x - 1, y, c)) / 2;
    down[i] = (at(x, y + 1, c) - at(x, y - 1, c)) / 2;
  }
  return [right, down];
}
