import type { Vector } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { sampleEmitter } from '../photometry/sampleEmitter.js';
import { frameRound } from '../render/directions.js';
import { createPassage } from '../render/passage.js';
import type { TraceMode } from '../render/path.js';
import type { Tracing } from '../render/renderTile.js';
import { createSampler } from '../render/sampler.js';
import { setRay } from '../trace/kernel.js';

/** Illuminance from one film at unit luminance, lx per cd/m2 (for flash lx s per cd s/m2). */
export interface LightShare {
  direct: number;
  indirect: number;
  /** Standard error of direct and indirect together, from independent batches. */
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
/** What comes by way of other things, the whole path. */
const BOUNCED: TraceMode = { skipFirstLight: true, ambient: null, lit: null, record: null };

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
  const { scene, kernel, tracer } = tracing;
  const lights = scene.channelCount;
  const passage = createPassage(scene, kernel);
  const passed = new Float64Array(3);
  const perBatch = Math.max(1, Math.ceil(samples / BATCHES));
  const sampler = createSampler(seed);
  const sample = new Float64Array(6);
  const films = new Float64Array(lights * 3);
  const at = Float64Array.from(point);
  const direct = batchTable(lights);
  const indirect = batchTable(lights);
  const frame = new Float64Array(6);
  const direction = new Float64Array(3);
  frameRound(frame, normal);

  for (let batch = 0; batch < BATCHES; batch++) {
    const directSums = direct[batch] as Float64Array;
    const indirectSums = indirect[batch] as Float64Array;
    films.fill(0);
    for (let i = 0; i < perBatch; i++) {
      sampler.start(batch, i);
      for (const emitter of scene.emitters) {
        sampler.next();
        if (!sampleEmitter(sample, emitter, at, sampler.uv)) continue;
        let cosine = 0;
        for (let a = 0; a < 3; a++) cosine += (sample[a] as number) * (normal[a] as number);
        if (!(cosine > 0 && (sample[5] as number) > 0)) continue;
        if (!passage.between(passed, at, sample, sample[3] as number)) continue;
        const through = luminanceOf(passed[0] as number, passed[1] as number, passed[2] as number);
        const value = ((sample[5] as number) * cosine * through) / ((sample[4] as number) * perBatch);
        directSums[emitter.channel] = (directSums[emitter.channel] as number) + value;
      }
      if (directOnly && scene.surrounds.length === 0) continue;
      sampler.next();
      cosineDirection(direction, frame, normal, sampler.uv);
      setRay(kernel.ray, at, direction);
      if (scene.surrounds.length > 0 && !kernel.anyHit()) {
        for (const light of scene.surrounds) {
          directSums[light] = (directSums[light] as number) + Math.PI / perBatch;
        }
      }
      if (!directOnly) tracer.trace(films, sampler, at, direction, BOUNCED);
    }
    for (let light = 0; light < lights; light++) {
      const mean = luminanceOf(
        films[3 * light] as number,
        films[3 * light + 1] as number,
        films[3 * light + 2] as number,
      );
      indirectSums[light] = (Math.PI * mean) / perBatch;
    }
  }

  return Array.from({ length: lights }, (_, light) => {
    const totals = direct.map(
      (row, batch) => (row[light] as number) + ((indirect[batch] as Float64Array)[light] as number),
    );
    return {
      direct: mean(direct.map((row) => row[light] as number)),
      indirect: mean(indirect.map((row) => row[light] as number)),
      standardError: standardError(totals),
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

function batchTable(lights: number): Float64Array[] {
  return Array.from({ length: BATCHES }, () => new Float64Array(lights));
}

/** A direction with density cosine / pi round the normal. */
function cosineDirection(out: Float64Array, frame: Float64Array, normal: Vector, uv: Float64Array): void {
  const radius = Math.sqrt(uv[0] as number);
  const phi = 2 * Math.PI * (uv[1] as number);
  const height = Math.sqrt(Math.max(0, 1 - radius * radius));
  for (let a = 0; a < 3; a++) {
    out[a] =
      radius * Math.cos(phi) * (frame[a] as number) +
      radius * Math.sin(phi) * (frame[3 + a] as number) +
      height * (normal[a] as number);
  }
}
