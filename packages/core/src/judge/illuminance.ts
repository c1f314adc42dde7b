import type { Vector } from '@fendrix/contract';
import { cosineAbove, frameRound, fromFrame } from '../engine/vectors.js';
import { luminanceOf } from '../exposure/display.js';
import type { Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';

/** Illuminance from one film at unit luminance, lx per cd/m2 (for flash lx s per cd s/m2). */
export interface LightShare {
  direct: number;
  indirect: number;
  /** Standard error of direct and indirect together, from independent batches, see `toldError`. */
  standardError: number;
}

export interface IlluminanceOptions {
  /** Directions or light points in all; rounded up to whole batches. */
  samples: number;
  seed: number;
  /** Leave the light that comes by way of other things out, and its rays untraced. */
  directOnly: boolean;
}

const BATCHES = 16;

/**
 * Illuminance at a point of the set, apart for each film.
 * Direct: light sampling with shadow rays. Indirect: path tracing over the cosine-weighted hemisphere. Light
 * that reaches the point through glass counts as indirect.
 * @param normal of the receiver, unit
 * @returns one share a film, see `channelsOf`; what keeps its polarisation is not told apart
 */
export function illuminanceByLight(
  tracing: Tracing,
  point: Vector,
  normal: Vector,
  { samples, seed, directOnly }: IlluminanceOptions,
): LightShare[] {
  const { scene, engine } = tracing;
  const channels = scene.channelCount;
  const perBatch = Math.max(1, Math.ceil(samples / BATCHES));
  const at = Float64Array.from(normal);
  const frame = new Float64Array(6);
  const local = new Float64Array(3);
  const direct = batchTable(channels);
  const indirect = batchTable(channels);
  frameRound(frame, at);
  engine.reseed(seed);
  engine.setMode({});
  engine.point.set(point);

  for (let batch = 0; batch < BATCHES; batch++) {
    const directSums = direct[batch] as Float64Array;
    const indirectSums = indirect[batch] as Float64Array;
    engine.films.fill(0);
    for (let i = 0; i < perBatch; i++) {
      engine.startSample(batch, i);
      scene.emitters.forEach((emitter, index) => {
        if (!engine.sampleLight(index)) return;
        const { light } = engine;
        const cosine = along(light, normal);
        if (!(cosine > 0)) return;
        const through = luminanceOf(light[6] as number, light[7] as number, light[8] as number);
        const value = ((light[5] as number) * cosine * through) / ((light[4] as number) * perBatch);
        directSums[emitter.channel] = (directSums[emitter.channel] as number) + value;
      });
      if (directOnly && scene.surrounds.length === 0) continue;
      engine.next();
      cosineAbove(local, engine.uv);
      fromFrame(engine.direction, local, frame, at);
      setRay(engine.ray, point, engine.direction);
      if (scene.surrounds.length > 0 && !engine.anyHit()) {
        for (const channel of scene.surrounds) {
          directSums[channel] = (directSums[channel] as number) + Math.PI / perBatch;
        }
      }
      if (!directOnly) engine.trace(true);
    }
    const { films } = engine;
    for (let channel = 0; channel < channels; channel++) {
      const [r = 0, g = 0, b = 0] = films.subarray(3 * channel, 3 * channel + 3);
      indirectSums[channel] = (Math.PI * luminanceOf(r, g, b)) / perBatch;
    }
  }

  return Array.from({ length: channels }, (_, light) => {
    const totals = direct.map(
      (row, batch) => (row[light] as number) + ((indirect[batch] as Float64Array)[light] as number),
    );
    return {
      direct: mean(direct.map((row) => row[light] as number)),
      indirect: mean(indirect.map((row) => row[light] as number)),
      standardError: toldError(totals),
    };
  });
}

export function mean(values: readonly number[]): number {
  return values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Standard error of the mean of independent values. */
export function standardError(values: readonly number[]): number {
  const middle = mean(values);
  const squares = values.reduce((sum, value) => sum + (value - middle) ** 2, 0);
  return Math.sqrt(squares / (values.length * (values.length - 1)));
}

/** Student's t of so many degrees of freedom, for 95 of 100: 2.36 at 7, 1.96 at many (Cornish and Fisher's expansion, within 1 % from 4 on). */
export function studentT95(freedom: number): number {
  const z = 1.95996;
  const z3 = z ** 3;
  const z5 = z ** 5;
  const z7 = z ** 7;
  return (
    z +
    (z3 + z) / (4 * freedom) +
    (5 * z5 + 16 * z3 + 3 * z) / (96 * freedom ** 2) +
    (3 * z7 + 19 * z5 + 17 * z3 - 15 * z) / (384 * freedom ** 3)
  );
}

/** 95 of 100 of a normal distribution lie within so many deviations. */
const NORMAL_95 = 1.96;

/** The standard error of the mean of a few independent values as it is told: twice it holds 95 of 100, however few they are. */
export const toldError = (values: readonly number[]): number =>
  (standardError(values) * studentT95(values.length - 1)) / NORMAL_95;

function batchTable(lights: number): Float64Array[] {
  return Array.from({ length: BATCHES }, () => new Float64Array(lights));
}

function along(direction: Float64Array, normal: Vector): number {
  return (
    (direction[0] as number) * normal[0] +
    (direction[1] as number) * normal[1] +
    (direction[2] as number) * normal[2]
  );
}
