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

/** How large and how good: the usual measure, and one for all sets in two minutes. */
export interface PictureMeasure {
  width: number;
  height: number;
  mostSamples: number;
}
export const USUAL_MEASURE: PictureMeasure = { width: 320, height: 240, mostSamples: 64 };
export const QUICK_MEASURE: PictureMeasure = { width: 120, height: 90, mostSamples: 16 };

const WANTED_ERROR = 0.05;
/** A pixel off by more than this is a speck, stops; they are counted in the picture of so many seconds. */
const SPECK_STOPS = 1 / 3;
const SPECK_SECONDS = 4;

/** Relative errors of a picture. */
interface Errors {
  /** Null where the noise of the reference is all there is: then it cannot be told. */
  rootMeanSquare: number | null;
  mean: number | null;
  /** Pixels in a thousand that are off by more than a third of a stop. */
  specks: number;
}

/** The same as measured, with the noise of the reference in it. */
type Measured = { [K in keyof Errors]: number };

export interface Row {
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
  /** Specks in the last picture that is there after four seconds; null where the first takes longer. */
  specksAfter4Seconds: number | null;
}

/**
 * Time from a set to a picture of 5 % relative error, everything included (scene, baking of the lightmaps, samples)
 * on a pool of workers that are already running. The error is that of the picture's luminance against a picture of
 * many samples, over pixels above 1 % of the maximum; the reference's own noise, which what is measured has no part in, is taken out.
 */
export async function pictureBench(
  set: SetDocument,
  threads: number,
  referenceSamples: number,
  { width, height, mostSamples }: PictureMeasure = USUAL_MEASURE,
): Promise<PictureFigures> {
  const pool = createNodePool(threads);
  try {
    const many = keyedFor(set, 'reference');
    const picture = (keyed: KeyedSet, samples: number, seed: number): Promise<Films> =>
      renderProgressively(pool, keyed, { width, height, samples, seed });
    const plenty = await picture(many, referenceSamples, 7);
    const reference = luminances(plenty, set);
    // As in a program that has been running: nothing of the filter is compiled in the time that counts.
    await shownOf(plenty, pool, many);
    const plain: Row[] = [];
    const shown: Row[] = [];
    for (let samples = 1; samples <= mostSamples; samples *= 2) {
      // Another key each time: nothing is left from the picture before.
      const keyed = keyedFor(set, `run ${samples}`);
      const start = performance.now();
      const films = await picture(keyed, samples, 1);
      const seconds = (performance.now() - start) / 1000;
      const smooth = await shownOf(films, pool, keyed);
      const secondsShown = (performance.now() - start) / 1000;
      const noise = errorsOf(luminances(films, set), reference);
      // Of the noise of means against means that many are the reference's own.
      const ofReference = samples / (samples + referenceSamples);
      const errors = without(noise, noise, ofReference);
      const left = without(errorsOf(luminances(smooth, set), reference), noise, ofReference);
      plain.push({ samples, seconds, errors });
      shown.push({ samples, seconds: secondsShown, errors: left });
      process.stderr.write(`  ${samples} samples: ${seconds.toFixed(2)} s\n`);
      if (isSmall(errors.rootMeanSquare) && isSmall(left.rootMeanSquare)) break;
    }
    return {
      width,
      height,
      threads,
      referenceSamples,
      plain: course(plain),
      shown: course(shown),
    };
  } finally {
    pool.close();
  }
}

/** Errors without a part of the noise of plain means, by squares, as both are independent. */
export function without(errors: Measured, noise: Measured, part: number): Errors {
  const own = (of: 'rootMeanSquare' | 'mean') => {
    const squared = errors[of] ** 2 - part * noise[of] ** 2;
    return squared > 0 ? Math.sqrt(squared) : null;
  };
  return { ...errors, rootMeanSquare: own('rootMeanSquare'), mean: own('mean') };
}

const keyedFor = (set: SetDocument, run: string): KeyedSet => ({ key: `${traceKey(set)} ${run}`, set });

function course(rows: Row[]): Course {
  return {
    rows,
    secondsTo5Percent: {
      rootMeanSquare: timeOfCrossing(rows, 'rootMeanSquare'),
      mean: timeOfCrossing(rows, 'mean'),
    },
    specksAfter4Seconds: rows.findLast(({ seconds }) => seconds <= SPECK_SECONDS)?.errors.specks ?? null,
  };
}

const isSmall = (error: number | null) => error !== null && error <= WANTED_ERROR;

/** Between two rows, as a power of the time; null where the error stays too large. */
export function timeOfCrossing(rows: readonly Row[], measure: 'rootMeanSquare' | 'mean'): number | null {
  const told = rows.flatMap(({ seconds, errors }) => {
    const error = errors[measure];
    return error === null ? [] : [{ seconds, error }];
  });
  const at = told.findIndex(({ error }) => isSmall(error));
  const last = told[at];
  const before = told[at - 1];
  if (!last) return null;
  if (!before) return last.seconds;
  const fall = Math.log(before.error / last.error);
  const part = Math.log(before.error / WANTED_ERROR) / fall;
  return before.seconds * (last.seconds / before.seconds) ** part;
}

async function shownOf(films: Films, pool: WorkerPool, keyed: KeyedSet): Promise<Films> {
  const { width, height, channels, stokes } = films;
  const smooth = createFilms(width, height, channels, stokes);
  smoothFilms(smooth, films, await wholeFeatures(pool, keyed, width, height));
  return smooth;
}

function luminances(films: Films, set: SetDocument): Float64Array {
  const pixels = films.width * films.height;
  const linear = new Float32Array(3 * pixels);
  developFilms(linear, films, exposureWeights(set));
  return Float64Array.from({ length: pixels }, (_, i) =>
    luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
  );
}

function errorsOf(own: Float64Array, reference: Float64Array): Measured {
  const least = 0.01 * reference.reduce((most, value) => Math.max(most, value), 0);
  let squares = 0;
  let sum = 0;
  let count = 0;
  let specks = 0;
  reference.forEach((value, i) => {
    if (value < least) return;
    if (Math.abs(Math.log2(Math.max(own[i] as number, 1e-9 * least) / value)) > SPECK_STOPS) specks++;
    const off = Math.abs((own[i] as number) - value) / value;
    squares += off * off;
    sum += off;
    count++;
  });
  return { rootMeanSquare: Math.sqrt(squares / count), mean: sum / count, specks: (1000 * specks) / count };
}

/** Bytes that the films of a picture of this size take, for the statement of memory. */
export function filmBytes(set: SetDocument): number {
  const { width, height } = USUAL_MEASURE;
  const films = createFilms(width, height, channelsOf(set).length);
  const { data, samples, half, halfSamples } = films;
  return [data, samples, half, halfSamples].reduce((bytes, array) => bytes + array.byteLength, 0);
}
