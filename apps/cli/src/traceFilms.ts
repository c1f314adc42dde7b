import { createFilms, type Films, smoothFilms } from '@fendrix/core';
import { type KeyedSet, renderProgressively, type WorkerPool, wholeFeatures } from '@fendrix/workers';

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
