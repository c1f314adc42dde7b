import type { FrameAgainstPlan, MeasuredFigure, SetDocument } from '@fendrix/contract';
import { MID_TONE, PAPER_WHITE_STOPS } from '../exposure/exposure.js';
import { projectPoint, viewOf } from '../render/view.js';
import type { Evidence } from '../verdicts/evidence.js';

/** A frame as judges are shown it. */
export interface FrameTones {
  width: number;
  height: number;
  /** Luminance, paper white at 1. */
  luminance: Float32Array;
  /** How much further right and down all of it stands than in the plan, parts of the width; the tones are read that much aside. */
  shift: { right: MeasuredFigure; down: MeasuredFigure } | null;
}

/** What a frame tells of the set it is of. */
export interface ToldByFrame extends Pick<FrameAgainstPlan, 'lights' | 'shift'> {
  products: readonly (Pick<FrameAgainstPlan['products'][number], 'right' | 'turnDeg'> & { id: string })[];
}

/** A figure that lies so many deviations from none is taken over. */
const TAKEN_OVER = 2;
/** More of a cell clipped than this, and how bright it is cannot be read. */
const CLIPPED_PART = 0.25;
const CLIPPED = 0.98;
/** What is black in the frame is taken to be so dark, stops from mid-tone. */
const BLACK_STOPS = -9;
/** A clipped cell is over paper white, by how much is not known, stops. */
const OVER_WHITE = 0.1;
/** What a place is uncertain by where the frame does not tell its own shift, parts of the width. */
const UNKNOWN_SHIFT = 0.004;

/**
 * The set as a frame tells that it stood: each light as strong as it was, products where their outlines are and turned as their labels
 * are. What the frame does not tell stays as planned.
 */
export function setOfFrame(plan: SetDocument, { lights, products, shift }: ToldByFrame): SetDocument {
  const sure = (figure: MeasuredFigure | null | undefined): number =>
    figure && Math.abs(figure.value) >= TAKEN_OVER * figure.error ? figure.value : 0;
  return {
    ...plan,
    lights: plan.lights.map((light) => {
      const own = lights.find(({ tag }) => tag === light.tag);
      const by = own ? sure({ value: own.stops, error: own.error }) : 0;
      return by === 0 ? light : { ...light, powerStops: light.powerStops + by };
    }),
    products: plan.products.map((product) => {
      const own = products.find(({ id }) => id === product.id);
      // Past what all of it moved by: by that much aside the frame is read.
      const aside = own?.right && {
        value: own.right.value - (shift?.rightM.value ?? 0),
        error: Math.hypot(own.right.error, shift?.rightM.error ?? 0),
      };
      const [right, turn] = [sure(aside), sure(own?.turnDeg)];
      if (right === 0 && turn === 0) return product;
      const [x, y, z] = product.positionM;
      return { ...product, positionM: [x + right, y, z], turnDeg: product.turnDeg + turn };
    }),
  };
}

/**
 * Evidence in which all tones are those that the frame has: at each place of the view, and at the pinned spots. What is seen, mirrored
 * and how deep things lie is that of the view, which is of the set as the frame tells it (`setOfFrame`). Where the frame is
 * clipped its tone is what the view says, over paper white. The batches read the frame a little aside, by what is not known of where it
 * stands: figures that hang on edges are then not sure.
 */
export function evidenceOfFrame(evidence: Evidence, frame: FrameTones): Evidence {
  const { set, across, down, view } = evidence;
  const lens = viewOf(set.camera);
  const right = frame.shift?.right ?? { value: 0, error: UNKNOWN_SHIFT };
  const lower = frame.shift?.down ?? { value: 0, error: UNKNOWN_SHIFT };
  /** The grid of the view, read in the frame moved aside by so many deviations. */
  const read = (asideX: number, asideY: number): Float64Array => {
    const x = right.value + asideX * Math.max(right.error, LEAST_SHIFT);
    const y = ((lower.value + asideY * Math.max(lower.error, LEAST_SHIFT)) * frame.width) / frame.height;
    return Float64Array.from(evidence.stops, (planned, place) => {
      const [i, j] = [place % across, Math.floor(place / across)];
      return toneOf(
        frame,
        [i / across + x, (i + 1) / across + x],
        [j / down + y, (j + 1) / down + y],
        planned,
      );
    });
  };
  const stops = read(0, 0);
  // The mean of four batches is off by half of what each is: twice a deviation aside.
  const batchStops = view.batches.length === 0 ? [] : SIDES.map(([x, y]) => read(2 * x, 2 * y));
  const readings = evidence.readings.map((reading) => {
    const at = projectPoint(lens, reading.pointM);
    if (!at || at.some((part) => part < 0 || part >= 1)) return reading;
    const half = 0.5 / across;
    const [u, v] = [at[0] + right.value, at[1] + (lower.value * frame.width) / frame.height];
    const tone = toneOf(
      frame,
      [u - half, u + half],
      [v - (half * frame.width) / frame.height, v + (half * frame.width) / frame.height],
      reading.stopsFromMidTone ?? BLACK_STOPS,
    );
    return { ...reading, stopsFromMidTone: tone, standardErrorStops: READ_ERROR, checked: true };
  });
  return { ...evidence, stops, batchStops, readings };
}

/** Four ways aside. */
const SIDES = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
] as const;
/** No frame is laid over its plan better than that, parts of the width. */
const LEAST_SHIFT = 0.001;
/** What the tone of a spot in a frame is off by: noise, grain and the cells it is read over, stops. */
const READ_ERROR = 0.03;

/** Tone of a part of a frame, stops from mid-tone. @param planned what it is where the frame cannot tell it */
function toneOf(
  { width, height, luminance }: FrameTones,
  [left, right]: readonly [number, number],
  [top, bottom]: readonly [number, number],
  planned: number,
): number {
  const from = (part: number, count: number) => Math.max(0, Math.min(count - 1, Math.round(part * count)));
  const [x0, y0] = [from(left, width), from(top, height)];
  const [x1, y1] = [Math.max(x0 + 1, from(right, width)), Math.max(y0 + 1, from(bottom, height))];
  let [sum, clipped] = [0, 0];
  for (let y = y0; y < y1; y++) {
    for (let x = x0; x < x1; x++) {
      const value = luminance[y * width + x] as number;
      sum += value;
      if (value >= CLIPPED) clipped++;
    }
  }
  const count = (x1 - x0) * (y1 - y0);
  if (clipped > CLIPPED_PART * count) return Math.max(planned, PAPER_WHITE_STOPS + OVER_WHITE);
  return Math.max(BLACK_STOPS, Math.log2(sum / count / MID_TONE));
}
