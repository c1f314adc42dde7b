import type {
  Frame,
  FrameAgainstPlan,
  FrameFigures,
  FrameMoves,
  Product,
  SetDocument,
  UnderWay,
} from '@fendrix/contract';
import {
  encodePicture,
  type Films,
  type FrameShift,
  type FrameTones,
  frameFigures,
  frameSharpness,
  frameShift,
  type GreyPicture,
  isOff,
  isOpen,
  type JudgedBy,
  type LightOfFrame,
  lightsOfFrame,
  luminanceOf,
  type MeasuredEdge,
  type MeasuredPrint,
  type MirrorBand,
  measureEdges,
  measurePrints,
  productBounds,
  projectPoint,
  setOfFrame,
  sharpnessPatches,
  standingOfProducts,
  traceKey,
  type Verdict,
  vector,
  viewOf,
  withoutLosses,
} from '@fendrix/core';
import sharp from 'sharp';
import { developed, type SetLight, sizeOf } from '../devices/setLight.js';
import { AppError } from '../errors.js';
import { createAskedAgain } from './askedAgain.js';
import { linearOf, measuredPatches } from './linearFile.js';
import { createMovesOfFrames } from './movedInFrame.js';

/** The plan is traced this wide, and compared on a grid of a quarter of it, px: what is off by less than that is not seen. */
const PLAN_PX = 480;
const CELL = 4;
const SAMPLES = 6;
const SEED = 1;
/** A frame whose shape differs by more is a part of what the camera took. */
const SAME_SHAPE = 0.03;
/** Blur is told if the file resolves circles of so many times what is a fault, or less. */
const TOO_SMALL = 2;
/** Plans kept. */
const KEPT = 4;
/** sRGB values that are clipped or black, 0 to 1 linear. */
const [BLACK, CLIPPED] = [0.002, 0.98];

/** Frames held against the plan of their set. */
export interface Plans {
  compare(path: string, frame: Frame, set: SetDocument): Promise<FrameAgainstPlan>;
  /** Which lights and sheets stand elsewhere in it. */
  moves(path: string, frame: Frame, set: SetDocument): Promise<FrameMoves | UnderWay>;
  /** What the frame shows of its product, for holding pictures of a series together; null where the plan shows none. */
  figures(path: string, frame: Frame, set: SetDocument): Promise<FrameFigures | null>;
  /** The plan as a picture, WebP. */
  picture(set: SetDocument): Promise<Buffer>;
}

/** @param by what the studio judges by */
export function createPlans(light: SetLight, by: () => Promise<JudgedBy>): Plans {
  const movesOfFrames = createMovesOfFrames(light);
  const askedForMoves = createAskedAgain<FrameMoves>();
  const kept = new Map<string, Promise<Films>>();
  const filmsOf = (set: SetDocument): Promise<Films> => {
    const key = traceKey(set);
    const found = kept.get(key) ?? light.films(set, sizeOf(set, PLAN_PX), SAMPLES, SEED);
    kept.delete(key);
    kept.set(key, found);
    found.catch(() => kept.delete(key));
    for (const old of [...kept.keys()].slice(0, -KEPT)) kept.delete(old);
    return found;
  };

  /** A frame beside its plan: both as light, exposed alike, and how much more each light gives in the frame. */
  async function readBeside(path: string, frame: Frame, set: SetDocument) {
    const { width, height } = sizeOf(set, PLAN_PX);
    const shape = frame.widthPx / frame.heightPx / (width / height);
    if (Math.abs(shape - 1) > SAME_SHAPE)
      throw new AppError('bad-input', 'This frame has not the shape of what the camera of its set takes.', {
        hint: 'It is cropped, held the other way, or of another body: correct the camera of the set.',
      });
    const exposedAsFrame = frame.fNumber !== null && frame.exposureS !== null && frame.iso !== null;
    const exposed: SetDocument = exposedAsFrame
      ? {
          ...set,
          camera: {
            ...set.camera,
            fNumber: frame.fNumber as number,
            shutterS: frame.exposureS as number,
            iso: frame.iso as number,
          },
        }
      : set;
    const films = await filmsOf(set);
    const seen = await linearOf(path, width, height);
    const { response } = set.camera.body;
    const { losses } = set.camera.lens;
    if (response || losses) withoutLosses(seen, width, height, response, losses);
    const shrunk = (values: Float32Array) => shrink(values, width, height);
    const small = shrunk(seen);
    const grid = { width: Math.floor(width / CELL), height: Math.floor(height / CELL) };
    const whole = set.lights.map((_, i) => developed(exposed, films, i));
    const lights = whole.map(shrunk);
    const found = lightsOfFrame({ ...grid, frame: small, lights });
    if (!found)
      throw new AppError(
        'bad-input',
        'Nothing can be told of this frame: it is clipped or black nearly everywhere.',
      );
    return { width, height, grid, exposedAsFrame, exposed, films, seen, small, whole, lights, found };
  }

  /** The last of them: what stands elsewhere in a frame is asked right after the rest. */
  let last: { key: string; read: ReturnType<typeof readBeside> } | null = null;
  function beside(path: string, frame: Frame, set: SetDocument): ReturnType<typeof readBeside> {
    const key = JSON.stringify([path, frame, set]);
    if (last?.key !== key) last = { key, read: readBeside(path, frame, set) };
    const { read } = last;
    read.catch(() => {
      if (last?.read === read) last = null;
    });
    return read;
  }

  /** What is wrong with a frame by its own tones, beside what is wrong with its plan. */
  async function verdictsOn(
    set: SetDocument,
    stood: SetDocument,
    tones: FrameTones,
  ): Promise<FrameAgainstPlan['verdicts']> {
    const judged = await by();
    const [onFrame, onPlan] = (
      await Promise.all([light.verdicts(stood, judged, tones), light.verdicts(set, judged)])
    ).map((all) => all.filter(isOpen)) as [Verdict[], Verdict[]];
    const told = ({ code, of, figure }: Verdict, on: FrameAgainstPlan['verdicts'][number]['on']) => ({
      kind: code,
      on,
      of,
      figure,
    });
    return [
      ...onFrame.map((own) => told(own, onPlan.some(({ id }) => id === own.id) ? 'both' : 'frame')),
      ...onPlan.filter(({ id }) => !onFrame.some((own) => own.id === id)).map((own) => told(own, 'plan')),
    ];
  }

  /** How sharp the products of a frame are, at the full size of its file. */
  async function sharpnessOf(
    path: string,
    set: SetDocument,
    tones: FrameTones,
  ): Promise<FrameAgainstPlan['sharpness']> {
    const patches = sharpnessPatches(set, await light.seen(set), tones);
    const { width, measured } = await measuredPatches(path, patches);
    const { products, resolvedPx } = frameSharpness(set, measured, width);
    const limitPx = (await by()).limits['not-sharp'].limit;
    // A file in which a fault would not be seen says nothing of faults.
    const isTooSmall = resolvedPx > TOO_SMALL * limitPx;
    if (isTooSmall) return { products: [], resolvedPx, isTooSmall, limitPx };
    const name = (id: string) => set.products.find((own) => own.id === id)?.name ?? id;
    return {
      products: products.map(({ product, ...told }) => ({ name: name(product), ...told })),
      resolvedPx,
      isTooSmall,
      limitPx,
    };
  }

  return {
    async compare(path, frame, set) {
      const plan = await beside(path, frame, set);
      const { width, height, grid, exposedAsFrame, exposed, films, seen, small, whole, lights, found } = plan;
      const planned = shrink(developed(exposed, films), width, height);
      const view = viewOf(set.camera);
      const fitted = sumOf(lights, found);
      const moved = frameShift(greyOf(fitted), greyOf(small), grid);
      const lit = sumOf(whole, found);
      const bands = await light.bands(set);
      const pictures = [lit, seen].map((own) => ({ width, height, grey: greyOf(own) })) as [
        GreyPicture,
        GreyPicture,
      ];
      const edges = measureEdges(...pictures, bands);
      const products = productsOf(set, bands, edges, measurePrints(...pictures, bands, set));
      const lightsOff = found.flatMap(({ light: index, stops, error }) => {
        const own = set.lights[index];
        return own?.on
          ? [{ tag: own.tag, name: own.name, stops, error, isOff: isOff({ stops, error }) }]
          : [];
      });
      const shift = moved && inMetres(moved, frameWidthM(set, set.products[0]));
      const stood = setOfFrame(exposed, { lights: lightsOff, products, shift });
      const tones = { width, height, luminance: pictures[1].grey, shift: moved };
      const [verdicts, sharpness] = await Promise.all([
        verdictsOn(set, stood, tones),
        sharpnessOf(path, exposed, tones),
      ]);
      return {
        exposedAsFrame,
        lights: lightsOff,
        shift,
        products: products.map(({ id: _, ...told }) => told),
        verdicts,
        sharpness,
        spots: set.spots.flatMap(({ name, pointM }) => {
          const at = projectPoint(view, pointM);
          if (!at || at.some((part) => part < 0 || part >= 1)) return [];
          const [plan, own] = [toneAt(planned, grid, at), toneAt(small, grid, at)];
          return [
            {
              name,
              plan: Math.log2(plan / 0.18),
              frame: own > BLACK && own < CLIPPED ? Math.log2(own / 0.18) : null,
            },
          ];
        }),
      };
    },
    async moves(path, frame, set) {
      const found = await askedForMoves(JSON.stringify([path, frame, set]), async (signal, onPart) => {
        const { width, exposed, seen, found } = await beside(path, frame, set);
        return movesOfFrames.of(set, { lit: asLit(exposed, found), seen, width }, { signal, onPart });
      });
      return 'answer' in found ? found.answer : found;
    },
    async figures(path, frame, set) {
      const { width, height, grid, seen, whole, found } = await beside(path, frame, set);
      const [bands, { parts, things }] = await Promise.all([light.bands(set), light.parts(set, grid)]);
      return frameFigures({
        set,
        width,
        height,
        frame: seen,
        plan: sumOf(whole, found),
        bands,
        parts,
        things,
      });
    },
    async picture(set) {
      const films = await filmsOf(set);
      const { width, height } = films;
      const pixels = new Uint8ClampedArray(width * height * 4);
      encodePicture(pixels, developed(set, films));
      return sharp(Buffer.from(pixels.buffer), { raw: { width, height, channels: 4 } })
        .webp({ quality: 88 })
        .toBuffer();
    },
  };
}

/** Means of cells, red, green, blue. */
function shrink(values: Float32Array, width: number, height: number): Float32Array {
  const [across, down] = [Math.floor(width / CELL), Math.floor(height / CELL)];
  const out = new Float32Array(across * down * 3);
  for (let y = 0; y < down * CELL; y++) {
    for (let x = 0; x < across * CELL; x++) {
      const to = 3 * (Math.floor(y / CELL) * across + Math.floor(x / CELL));
      const from = 3 * (y * width + x);
      for (let c = 0; c < 3; c++)
        out[to + c] = (out[to + c] as number) + (values[from + c] as number) / (CELL * CELL);
    }
  }
  return out;
}

/** Cells round a spot that count as its tone: a frame stands a few millimetres off its plan. */
const ROUND = 1;

/** Mean luminance round a place of a grid. @param at across and down, 0 to 1 */
function toneAt(
  values: Float32Array,
  { width, height }: { width: number; height: number },
  at: readonly [number, number],
): number {
  const [x, y] = [Math.floor(at[0] * width), Math.floor(at[1] * height)];
  let [sum, count] = [0, 0];
  for (let v = Math.max(0, y - ROUND); v <= Math.min(height - 1, y + ROUND); v++) {
    for (let u = Math.max(0, x - ROUND); u <= Math.min(width - 1, x + ROUND); u++) {
      const from = 3 * (v * width + u);
      sum += luminanceOf(values[from] as number, values[from + 1] as number, values[from + 2] as number);
      count++;
    }
  }
  return sum / count;
}

/** The plan with its lights as the frame says they are. */
function sumOf(lights: readonly Float32Array[], found: readonly LightOfFrame[]): Float32Array {
  const out = new Float32Array((lights[0] as Float32Array).length);
  lights.forEach((own, light) => {
    const factor = 2 ** (found.find((one) => one.light === light)?.stops ?? 0);
    for (let i = 0; i < out.length; i++) out[i] = (out[i] as number) + factor * (own[i] as number);
  });
  return out;
}

/** The set with its lights as strong as the frame says they are. */
const asLit = (set: SetDocument, found: readonly LightOfFrame[]): SetDocument => ({
  ...set,
  lights: set.lights.map((own, light) => ({
    ...own,
    powerStops: own.powerStops + (found.find((one) => one.light === light)?.stops ?? 0),
  })),
});

const greyOf = (values: Float32Array): Float32Array =>
  Float32Array.from({ length: values.length / 3 }, (_, i) =>
    luminanceOf(values[3 * i] as number, values[3 * i + 1] as number, values[3 * i + 2] as number),
  );

/** How products stand, by their outlines and labels. */
function productsOf(
  set: SetDocument,
  bands: readonly MirrorBand[],
  edges: readonly MeasuredEdge[],
  prints: readonly MeasuredPrint[],
): (FrameAgainstPlan['products'][number] & { id: string })[] {
  const of = (id: string) => set.products.find((product) => product.id === id);
  return standingOfProducts(edges, prints, bands, (id) => frameWidthM(set, of(id))).flatMap(
    ({ product: id, ...standing }) => {
      const product = of(id);
      if (!product) return [];
      const { low, high } = productBounds(product);
      return [{ id, name: product.name, ...standing, radiusM: (high[0] - low[0]) / 2 }];
    },
  );
}

/** How wide the frame is at a product, m; at the point aimed at where there is none. */
function frameWidthM({ camera }: SetDocument, product: Product | undefined): number {
  const view = viewOf(camera);
  const { low, high } = product ? productBounds(product) : { low: camera.aimM, high: camera.aimM };
  const middle = vector.scale(vector.add(low, high), 0.5);
  return 2 * view.halfWidth * vector.dot(vector.subtract(middle, view.origin), view.forward);
}

/** Size and turn are left out: on metal they are not found truly (docs/physics/frames.md). */
function inMetres({ right, down }: FrameShift, widthM: number) {
  const metres = ({ value, error }: { value: number; error: number }) => ({
    value: value * widthM,
    error: error * widthM,
  });
  return { rightM: metres(right), downM: metres(down) };
}
