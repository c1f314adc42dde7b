import type { SetDocument } from '@fendrix/contract';
import {
  channelsOf,
  createFilms,
  developFilms,
  exposureWeights,
  type Films,
  luminanceOf,
  smoothFilms,
  traceKey,
} from '@fendrix/core';
import { type KeyedSet, renderProgressively, type WorkerPool, wholeFeatures } from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';

const WIDTH = 320;
const HEIGHT = 240;
const WANTED_ERROR = 0.05;
const MOST_SAMPLES = 64;

/** Relative errors of a picture. */
interface Errors {
  rootMeanSquare: number;
  mean: number;
}

interface Row {
  samples: number;
  seconds: number;
  errors: Errors;
}

export interface PictureFigures {
  width: number;
  height: number;
  threads: number;
  referenceSamples: number;
  /** The plain means of the samples, and the picture as shown, with the filter for it in its time. */
  plain: Course;
  shown: Course;
}

interface Course {
  /** One row after each doubling of the samples until the error is small enough. */
  rows: Row[];
  secondsTo5Percent: { rootMeanSquare: number | null; mean: number | null };
}

/**
 * Time from a set to a picture of 5 % relative error, everything included (scene, baking of the lightmaps, samples)
 * on a pool of workers that are already running. The error is that of the picture's luminance against a picture of
 * many samples, over pixels above 1 % of the maximum; out of that of the plain means the reference's own noise is taken,
 * as both are independent.
 */
export async function pictureBench(
  set: SetDocument,
  threads: number,
  referenceSamples: number,
): Promise<PictureFigures> {
  const pool = createNodePool(threads);
  try {
    const many = keyedFor(set, 'reference');
    const plenty = await picture(pool, many, referenceSamples, 7);
    const reference = luminances(plenty, set);
    // As in a program that has been running: nothing of the filter is compiled in the time that counts.
    await shownOf(plenty, pool, many);
    const plain: Row[] = [];
    const shown: Row[] = [];
    for (let samples = 1; samples <= MOST_SAMPLES; samples *= 2) {
      // Another key each time: nothing is left from the picture before.
      const keyed = keyedFor(set, `run ${samples}`);
      const start = performance.now();
      const films = await picture(pool, keyed, samples, 1);
      const seconds = (performance.now() - start) / 1000;
      const smooth = await shownOf(films, pool, keyed);
      const secondsShown = (performance.now() - start) / 1000;
      const noise = errorsOf(luminances(films, set), reference);
      const ownPart = 1 / Math.sqrt(1 + samples / referenceSamples);
      const errors = { rootMeanSquare: ownPart * noise.rootMeanSquare, mean: ownPart * noise.mean };
      const left = errorsOf(luminances(smooth, set), reference);
      plain.push({ samples, seconds, errors });
      shown.push({ samples, seconds: secondsShown, errors: left });
      process.stderr.write(`  ${samples} samples: ${seconds.toFixed(2)} s\n`);
      if (Math.max(errors.rootMeanSquare, left.rootMeanSquare) <= WANTED_ERROR) break;
    }
    return {
      width: WIDTH,
      height: HEIGHT,
      threads,
      referenceSamples,
      plain: course(plain),
      shown: course(shown),
    };
  } finally {
    pool.close();
  }
}

const keyedFor = (set: SetDocument, run: string): KeyedSet => ({ key: `${traceKey(set)} ${run}`, set });

function course(rows: Row[]): Course {
  return {
    rows,
    secondsTo5Percent: {
      rootMeanSquare: timeOfCrossing(rows, 'rootMeanSquare'),
      mean: timeOfCrossing(rows, 'mean'),
    },
  };
}

/** Between two rows, as a power of the time; null where the error stays too large. */
function timeOfCrossing(rows: readonly Row[], measure: keyof Errors): number | null {
  const at = rows.findIndex(({ errors }) => errors[measure] <= WANTED_ERROR);
  const last = rows[at];
  const before = rows[at - 1];
  if (!last) return null;
  if (!before) return last.seconds;
  const fall = Math.log(before.errors[measure] / last.errors[measure]);
  const part = Math.log(before.errors[measure] / WANTED_ERROR) / fall;
  return before.seconds * (last.seconds / before.seconds) ** part;
}

function picture(pool: WorkerPool, keyed: KeyedSet, samples: number, seed: number): Promise<Films> {
  return renderProgressively(pool, keyed, { width: WIDTH, height: HEIGHT, samples, seed });
}

async function shownOf(films: Films, pool: WorkerPool, keyed: KeyedSet): Promise<Films> {
  const smooth = createFilms(WIDTH, HEIGHT, films.channels);
  smoothFilms(smooth, films, await wholeFeatures(pool, keyed, WIDTH, HEIGHT));
  return smooth;
}

function luminances(films: Films, set: SetDocument): Float64Array {
  const linear = new Float32Array(WIDTH * HEIGHT * 3);
  developFilms(linear, films, exposureWeights(set));
  return Float64Array.from({ length: WIDTH * HEIGHT }, (_, i) =>
    luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
  );
}

function errorsOf(own: Float64Array, reference: Float64Array): Errors {
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
  return { rootMeanSquare: Math.sqrt(squares / count), mean: sum / count };
}

/** Bytes that the films of a picture of this size take, for the statement of memory. */
export function filmBytes(set: SetDocument): number {
  const films = createFilms(WIDTH, HEIGHT, channelsOf(set).length);
  const { data, samples, half, halfSamples } = films;
  return [data, samples, half, halfSamples].reduce((bytes, array) => bytes + array.byteLength, 0);
}
