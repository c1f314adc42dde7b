import { availableParallelism } from 'node:os';
import type { SetDocument } from '@fendrix/contract';
import {
  channelsOf,
  createFilms,
  developFilms,
  displayWeights,
  type Films,
  smoothFilms,
  traceKey,
} from '@fendrix/core';
import { renderProgressively, type WorkerPool, wholeFeatures } from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';

/** Threads that nobody needs for so long are let go, ms. */
const IDLE_MS = 60_000;
const MOST_THREADS = 4;

export interface PictureSize {
  width: number;
  height: number;
}

/** The light of sets, traced on threads beside the server. */
export interface SetLight {
  /** Films of a set, smoothed. */
  films(set: SetDocument, size: PictureSize, samples: number, seed: number): Promise<Films>;
  close(): void;
}

export function createSetLight(): SetLight {
  let pool: WorkerPool | null = null;
  let users = 0;
  let idle: ReturnType<typeof setTimeout> | undefined;
  const letGo = () => {
    pool?.close();
    pool = null;
  };
  return {
    async films(set, { width, height }, samples, seed) {
      clearTimeout(idle);
      users++;
      pool ??= createNodePool(Math.min(MOST_THREADS, availableParallelism()));
      const own = pool;
      try {
        const keyed = { key: traceKey(set), set };
        const plain = await renderProgressively(own, keyed, { width, height, samples, seed });
        const smooth = createFilms(width, height, plain.channels, plain.stokes);
        smoothFilms(smooth, plain, await wholeFeatures(own, keyed, width, height));
        return smooth;
      } finally {
        users--;
        if (users === 0) {
          idle = setTimeout(letGo, IDLE_MS);
          idle.unref();
        }
      }
    },
    close() {
      clearTimeout(idle);
      letGo();
    },
  };
}

/** Linear red, green, blue of a set by its films, mid-tone at 0.18; of one light alone where it is named by its number. */
export function developed(set: SetDocument, films: Films, light: number | null = null): Float32Array {
  const channels = channelsOf(set);
  const weights = displayWeights(set).map((weight, i) =>
    light === null || channels[Math.floor(i / 3)]?.light === light ? weight : 0,
  );
  const out = new Float32Array(films.width * films.height * 3);
  developFilms(out, films, weights);
  return out;
}

/** A picture as large as is wanted across, of the shape of the sensor. */
export function sizeOf({ camera: { body } }: SetDocument, across: number): PictureSize {
  return {
    width: across,
    height: Math.max(1, Math.round((across * body.sensorHeightM) / body.sensorWidthM)),
  };
}
