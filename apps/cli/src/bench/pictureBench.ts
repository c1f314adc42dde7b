import type { SetDocument } from '@fendrix/contract';
import {
  channelsOf,
  createFilms,
  developFilms,
  exposureWeights,
  type Films,
  luminanceOf,
  traceKey,
} from '@fendrix/core';
import { renderProgressively, type WorkerPool } from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';

const WIDTH = 320;
const HEIGHT = 240;
const WANTED_ERROR = 0.05;
const MOST_SAMPLES = 128;

export interface PictureFigures {
  width: number;
  height: number;
  threads: number;
  referenceSamples: number;
  /** One row after each doubling of the samples until the error is small enough. */
  course: { samples: number; seconds: number; rootMeanSquare: number; mean: number }[];
  secondsTo5Percent: { rootMeanSquare: number | null; mean: number | null };
}

/**
 * Time from a set to a picture of 5 % relative error, everything included (scene, baking of the lit sheets, samples)
 * on a pool of workers that are already running. The error is that of the picture's luminance against a picture of
 * many samples, over pixels above 1 % of the maximum; the reference's own noise is taken out, as both are independent.
 */
export async function pictureBench(
  set: SetDocument,
  threads: number,
  referenceSamples: number,
): Promise<PictureFigures> {
  const pool = createNodePool(threads);
  try {
    const reference = luminances(await picture(pool, set, referenceSamples, 7, 'reference'), set);
    const course: PictureFigures['course'] = [];
    const reached = { rootMeanSquare: null as number | null, mean: null as number | null };
    for (let samples = 1; samples <= MOST_SAMPLES; samples *= 2) {
      // Another key each time: nothing is left from the picture before.
      const start = performance.now();
      const films = await picture(pool, set, samples, 1, `run ${samples}`);
      const seconds = (performance.now() - start) / 1000;
      const errors = errorsOf(luminances(films, set), reference, samples / referenceSamples);
      course.push({ samples, seconds, ...errors });
      process.stderr.write(`  ${samples} samples: ${seconds.toFixed(2)} s\n`);
      for (const measure of ['rootMeanSquare', 'mean'] as const) {
        if (reached[measure] === null && errors[measure] <= WANTED_ERROR) {
          reached[measure] = timeOfCrossing(course, measure);
        }
      }
      if (reached.rootMeanSquare !== null) break;
    }
    return { width: WIDTH, height: HEIGHT, threads, referenceSamples, course, secondsTo5Percent: reached };
  } finally {
    pool.close();
  }
}

/** Between two rows, as a power of the time. */
function timeOfCrossing(course: PictureFigures['course'], measure: 'rootMeanSquare' | 'mean'): number {
  const last = course.at(-1);
  const before = course.at(-2);
  if (!last) return 0;
  if (!before) return last.seconds;
  const part = Math.log(before[measure] / WANTED_ERROR) / Math.log(before[measure] / last[measure]);
  return before.seconds * (last.seconds / before.seconds) ** part;
}

function picture(
  pool: WorkerPool,
  set: SetDocument,
  samples: number,
  seed: number,
  run: string,
): Promise<Films> {
  const keyed = { key: `${traceKey(set)} ${run}`, set };
  return renderProgressively(pool, keyed, { width: WIDTH, height: HEIGHT, samples, seed });
}

function luminances(films: Films, set: SetDocument): Float64Array {
  const linear = new Float32Array(WIDTH * HEIGHT * 3);
  developFilms(linear, films, exposureWeights(set));
  return Float64Array.from({ length: WIDTH * HEIGHT }, (_, i) =>
    luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
  );
}

/** @param share samples of the picture over those of the reference */
function errorsOf(own: Float64Array, reference: Float64Array, share: number) {
  const least = 0.01 * reference.reduce((most, value) => Math.max(most, value), 0);
  let squares = 0;
  let sum = 0;
  let count = 0;
  reference.forEach((value, i) => {
    if (value < least) return;
    const off = Math.abs((own[i] as number) - value) / value;
    squares += off * off;
    sum += off;
    count++;
  });
  const ownPart = 1 / Math.sqrt(1 + share);
  return { rootMeanSquare: ownPart * Math.sqrt(squares / count), mean: (ownPart * sum) / count };
}

/** Bytes that the films of a picture of this size take, for the statement of memory. */
export function filmBytes(set: SetDocument): number {
  const films = createFilms(WIDTH, HEIGHT, channelsOf(set).length);
  return films.data.byteLength + films.samples.byteLength;
}
