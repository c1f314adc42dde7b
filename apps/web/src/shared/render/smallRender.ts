import type { SetDocument } from '@fendrix/contract';
import {
  channelsOf,
  type DenoiseFeatures,
  displayWeights,
  stokesOf,
  type Tile,
  tilesOf,
  traceKey,
} from '@fendrix/core';
import { featureParts, renderProgressively, type WorkerPool } from '@fendrix/workers';
import { createBrowserPool } from '@fendrix/workers/browser';
import { LRUCache } from 'lru-cache';
import type { DevelopedSmall, ToSmallDeveloper } from './smallDeveloper';

let pool: WorkerPool | null = null;
let held = false;

/** Workers for small pictures, and for judging what is not on the bench; started when the first is asked for. */
export function smallPool(): WorkerPool {
  if (!pool) {
    pool = createBrowserPool();
    pool.hold(held);
  }
  return pool;
}

/** Lets small pictures wait while a large one is on its way: they would take half of the cores from it. */
export function holdSmallPictures(hold: boolean): void {
  if (hold === held) return;
  held = hold;
  pool?.hold(hold);
}

/** Side of a tile, px; time between two shown states, ms. */
const TILE = 64;
const SHOW_EVERY_MS = 500;

export interface SmallRenderOptions {
  width: number;
  height: number;
  /** Only this part of a picture of that size: the picture given out is as large as the part. */
  part?: Tile;
  samples: number;
  signal: AbortSignal;
  /** Shows it as bright as fits instead of as the camera would record it. */
  levelled: boolean;
  /** Bounced light estimated instead of traced, so that it is there at once. */
  quick?: boolean;
  /** Takes the picture each time it has become better, at most every half second. */
  onPicture(picture: ImageData, linear: Float32Array): void;
  /** Keeps the finished picture in memory, for small ones that are shown again and again. */
  kept?: boolean;
}

/**
 * A small picture of a set, whole, from the workers, developed in one of its own. The first comes when every pixel has one sample. Rejects when aborted.
 */
export async function renderSmall(set: SetDocument, options: SmallRenderOptions): Promise<void> {
  const { samples, signal, part } = options;
  const keyed = { key: traceKey(set), set };
  const weights = displayWeights(set);
  const name = `${keyed.key} ${weights.join()} ${options.width} ${samples} ${options.levelled} ${options.quick === true}`;
  const known = options.kept ? finished.get(name) : undefined;
  if (known) {
    options.onPicture(known.picture, known.linear);
    return;
  }
  const size = { width: part?.width ?? options.width, height: part?.height ?? options.height };
  const channels = channelsOf(set).length;
  const stokes = stokesOf(set.camera).length;
  const drawing = begin(
    { ...size, channels, stokes, weights, levelled: options.levelled },
    options.onPicture,
  );
  const whole = tilesOf(size.width, size.height, TILE).length;
  let shownAt = 0;
  try {
    const ambient = options.quick ? await smallPool().run(keyed, { kind: 'ambient' }, { signal }) : null;
    if (!ambient) {
      const seen = { x: 0, y: 0, ...size, ...part };
      for (const one of await featureParts(smallPool(), keyed, options, seen, { signal }))
        drawing.see(one.tile, one.features);
    }
    await renderProgressively(smallPool(), keyed, {
      ...(ambient ? { ambient } : {}),
      width: options.width,
      height: options.height,
      ...(part ? { window: part } : {}),
      samples,
      seed: 1,
      signal,
      tileSize: TILE,
      onTile: (tile, sums, count) => drawing.add(tile, sums, count),
      onProgress({ done }) {
        if (done < whole || performance.now() - shownAt < SHOW_EVERY_MS) return;
        shownAt = performance.now();
        drawing.show();
      },
    });
  } catch (error) {
    drawing.drop();
    throw error;
  }
  const last = await drawing.finish();
  if (signal.aborted) return;
  if (options.kept) finished.set(name, last);
}

type Shown = (picture: ImageData, linear: Float32Array) => void;

let developer: Worker | null = null;
let nextId = 1;
/** Who waits for which picture. */
const waiting = new Map<number, { shown: Shown; finish?: (last: Finished) => void }>();

function smallDeveloper(): Worker {
  if (developer) return developer;
  developer = new Worker(new URL('./smallDevelopWorker.ts', import.meta.url), { type: 'module' });
  developer.addEventListener('message', ({ data }: MessageEvent<DevelopedSmall>) => {
    const own = waiting.get(data.id);
    if (!own) return;
    const picture = new ImageData(data.pixels, data.width, data.height);
    own.shown(picture, data.linear);
    if (!data.last) return;
    waiting.delete(data.id);
    own.finish?.({ picture, linear: data.linear });
  });
  return developer;
}

/** Starts a picture in the worker that develops them. */
function begin(start: Omit<Extract<ToSmallDeveloper, { type: 'begin' }>, 'type' | 'id'>, shown: Shown) {
  const id = nextId++;
  const tell = (message: ToSmallDeveloper, transfer: ArrayBuffer[] = []) =>
    smallDeveloper().postMessage(message, transfer);
  waiting.set(id, { shown });
  tell({ type: 'begin', id, ...start });
  return {
    add: (tile: Tile, sums: Float32Array, samples: number) =>
      tell({ type: 'tile', id, tile, sums, samples }, [sums.buffer as ArrayBuffer]),
    see: (tile: Tile, features: DenoiseFeatures) => tell({ type: 'features', id, tile, features }),
    show: () => tell({ type: 'show', id, last: false }),
    drop() {
      waiting.delete(id);
      tell({ type: 'drop', id });
    },
    finish: () =>
      new Promise<Finished>((finish) => {
        waiting.set(id, { shown, finish });
        tell({ type: 'show', id, last: true });
      }),
  };
}

interface Finished {
  picture: ImageData;
  linear: Float32Array;
}

/** Finished pictures that are shown again and again. */
const finished = new LRUCache<string, Finished>({ max: 120 });
