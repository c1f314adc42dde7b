import { availableParallelism } from 'node:os';
import type { SetDocument } from '@fendrix/contract';
import { createFilms, type Films, smoothFilms } from '@fendrix/core';
import { type KeyedSet, renderProgressively, type WorkerPool, wholeFeatures } from '@fendrix/workers';
import { wholeNumber } from './input.js';
import { pictureSize } from './pictureSize.js';

/** Words that say how films are traced. */
export const TRACE_WORDS = {
  size: { type: 'string' },
  samples: { type: 'string' },
  seed: { type: 'string' },
  threads: { type: 'string' },
} as const;

/** What they say for a set, with the usual where they say nothing. */
export function traceWords(values: { [Word in keyof typeof TRACE_WORDS]?: string }, set: SetDocument) {
  const [width, height] = pictureSize(values.size, set);
  return {
    width,
    height,
    samples: wholeNumber('samples', values.samples, 64, 1_000_000),
    seed: wholeNumber('seed', values.seed, 1, 2 ** 31 - 1),
    threads: wholeNumber('threads', values.threads, availableParallelism(), 256),
  };
}

interface FilmOptions {
  width: number;
  height: number;
  samples: number;
  seed: number;
  wholePaths?: boolean;
  /** Filtered as on the bench. */
  smooth: boolean;
}

/** The films of a set; none where it has no light. */
export async function traceFilms(
  pool: WorkerPool,
  keyed: KeyedSet,
  { smooth, ...options }: FilmOptions,
): Promise<Films> {
  const { width, height } = options;
  if (keyed.set.lights.length === 0) return createFilms(width, height, 0);
  const plain = await renderProgressively(pool, keyed, options);
  if (!smooth) return plain;
  const films = createFilms(plain.width, plain.height, plain.channels);
  smoothFilms(films, plain, await wholeFeatures(pool, keyed, width, height));
  return films;
}
