import type { SetDocument } from '@fendrix/contract';
import {
  developFilms,
  displayWeights,
  encodePicture,
  exposureWeights,
  type Films,
  luminanceOf,
  type Thing,
  type Tile,
  tilesOf,
  traceKey,
} from '@fendrix/core';
import { renderProgressively, type WorkerPool } from '@fendrix/workers';
import { createBrowserPool } from '@fendrix/workers/browser';

let pool: WorkerPool | null = null;

/** Workers for small pictures, started when the first is asked for. */
function smallPool(): WorkerPool {
  pool ??= createBrowserPool();
  return pool;
}

/** Part of the pixels that may be brighter than white when a picture is shown as bright as fits. */
const BRIGHTEST_PART = 0.02;
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
  /** Takes the picture each time it has become better, at most every half second. */
  onPicture(picture: ImageData, linear: Float32Array): void;
  /** Keeps the finished picture in memory, for small ones that are shown again and again. */
  kept?: boolean;
}

/**
 * A small picture of a set, whole, from the workers; developed on the page, which takes about a millisecond at this
 * size. The first comes when every pixel has one sample. Rejects when aborted.
 */
export async function renderSmall(set: SetDocument, options: SmallRenderOptions): Promise<void> {
  const { samples, signal, part } = options;
  const keyed = { key: traceKey(set), set };
  const weights = displayWeights(set);
  const name = `${keyed.key} ${weights.join()} ${options.width} ${samples} ${options.levelled}`;
  const known = options.kept ? finished.get(name) : undefined;
  if (known) {
    options.onPicture(known.picture, known.linear);
    return;
  }
  const whole = tilesOf(part?.width ?? options.width, part?.height ?? options.height, TILE).length;
  let shownAt = 0;
  const films = await renderProgressively(smallPool(), keyed, {
    width: options.width,
    height: options.height,
    ...(part ? { window: part } : {}),
    samples,
    seed: 1,
    signal,
    tileSize: TILE,
    onProgress({ films: growing, done }) {
      if (done < whole || performance.now() - shownAt < SHOW_EVERY_MS) return;
      shownAt = performance.now();
      const { picture, linear } = developed(growing, weights, options);
      options.onPicture(picture, linear);
    },
  });
  const last = developed(films, weights, options);
  if (options.kept) {
    if (finished.size >= MOST_KEPT) finished.clear();
    finished.set(name, last);
  }
  options.onPicture(last.picture, last.linear);
}

const MOST_KEPT = 120;
const finished = new Map<string, { picture: ImageData; linear: Float32Array }>();

function developed(
  films: Films,
  weights: ReturnType<typeof displayWeights>,
  { levelled }: SmallRenderOptions,
): { picture: ImageData; linear: Float32Array } {
  const { width, height } = films;
  const linear = new Float32Array(width * height * 3);
  developFilms(linear, films, weights);
  takeDownSpecks(linear, width, height);
  if (levelled) level(linear);
  const picture = new ImageData(width, height);
  encodePicture(picture.data, linear);
  return { picture, linear };
}

/** A pixel brighter than this many times its brightest neighbour stands alone: a speck of noise. */
const SPECK = 1.3;

/** Takes pixels that stand alone down to their brightest neighbour; for looking only, no number sees it. */
function takeDownSpecks(linear: Float32Array, width: number, height: number): void {
  const tones = new Float32Array(width * height);
  for (let i = 0; i < tones.length; i++) {
    tones[i] = luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number);
  }
  for (let y = 1; y + 1 < height; y++) {
    for (let x = 1; x + 1 < width; x++) {
      const i = y * width + x;
      let most = Math.max(tones[i - 1] as number, tones[i + 1] as number);
      for (let side = -1; side <= 1; side++) {
        most = Math.max(most, tones[i - width + side] as number, tones[i + width + side] as number);
      }
      const own = tones[i] as number;
      if (!(own > SPECK * most && most > 0)) continue;
      for (let c = 0; c < 3; c++) linear[3 * i + c] = ((linear[3 * i + c] as number) * most) / own;
    }
  }
}

/** What a small picture is judged by: what is seen at each pixel, and how bright it is as recorded. */
export async function lookAt(
  set: SetDocument,
  { width, height, samples, signal }: Pick<SmallRenderOptions, 'width' | 'height' | 'samples' | 'signal'>,
): Promise<{ thing: Int16Array; luminance: Float32Array; things: Thing[] }> {
  const keyed = { key: traceKey(set), set };
  const tile = { x: 0, y: 0, width, height };
  const [films, { map, things }] = await Promise.all([
    renderProgressively(smallPool(), keyed, { width, height, samples, seed: 1, signal, tileSize: TILE }),
    smallPool().run(keyed, { kind: 'mirror', width, height, tile }, { signal }),
  ]);
  const linear = new Float32Array(width * height * 3);
  developFilms(linear, films, exposureWeights(set));
  const luminance = new Float32Array(width * height);
  for (let i = 0; i < luminance.length; i++) {
    luminance[i] = luminanceOf(
      linear[3 * i] as number,
      linear[3 * i + 1] as number,
      linear[3 * i + 2] as number,
    );
  }
  return { thing: map.thing, luminance, things };
}

/** Brings all but the brightest part of the pixels under paper white. */
function level(linear: Float32Array): void {
  const tones = new Float32Array(linear.length / 3);
  for (let i = 0; i < tones.length; i++) {
    tones[i] = luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number);
  }
  tones.sort();
  const white = tones[Math.floor((1 - BRIGHTEST_PART) * (tones.length - 1))] as number;
  if (!(white > 0)) return;
  for (let i = 0; i < linear.length; i++) linear[i] = (linear[i] as number) * (0.95 / white);
}
