import { availableParallelism } from 'node:os';
import {
  developFilms,
  displayWeights,
  exposureWeights,
  type Films,
  luminanceOf,
  mirrorMapTile,
  prepareTracing,
  rayThrough,
  setRay,
  type Tracing,
  traceKey,
} from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { renderProgressively } from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';
import { readWords, wholeNumber } from '../input.js';

const RUNS = 5;
const RAYS = 200_000;
const WIDTH = 320;
const HEIGHT = 240;
const SAMPLES = 16;
const WANTED_ERROR = 0.05;

/** Speed of the ray kernel, the mirror map and the picture on the demo scene. Absolute times vary by machine. */
export async function bench(words: string[]): Promise<unknown> {
  const { values } = readWords(words, { threads: { type: 'string' } }, 0);
  const threads = wholeNumber('threads', values.threads, availableParallelism(), 256);
  const tracing = prepareTracing(demoSet('cordial'));
  const rays = makeRays(tracing);
  return {
    scene: 'cordial',
    primitives: tracing.scene.table.count,
    kernel: {
      engine: 'plain TypeScript, exact primitives',
      primaryRaysPerSecond: medianRate(tracing, rays.primary, false),
      bounceRaysPerSecond: medianRate(tracing, rays.bounce, false),
      shadowRaysPerSecond: medianRate(tracing, rays.shadow, true),
    },
    mirrorMap: { width: WIDTH, height: HEIGHT, milliseconds: mirrorMapTime(tracing) },
    reweigh: { width: WIDTH, height: HEIGHT, milliseconds: reweighTime(), rays: 0 },
    picture: await pictureTime(threads),
  };
}

/** Rays as 8 numbers each, as the kernel takes them. */
function makeRays({ view, kernel, scene }: Tracing) {
  const primary = new Float64Array(RAYS * 8);
  const bounce = new Float64Array(RAYS * 8);
  const shadow = new Float64Array(RAYS * 8);
  const direction = new Float64Array(3);
  const random = lcg(1);
  const lamp = scene.emitters[0]?.data ?? new Float64Array([0, 0, 1]);
  let hits = 0;
  while (hits < RAYS) {
    rayThrough(direction, view, random(), random());
    setRay(kernel.ray, view.origin, direction);
    primary.set(kernel.ray, hits * 8);
    if (kernel.closestHit() < 0) continue;
    const distance = (kernel.ray[7] as number) - 1e-5;
    const point = [0, 1, 2].map((a) => (kernel.ray[a] as number) + distance * (kernel.ray[3 + a] as number));
    const z = 2 * random() - 1;
    const phi = 2 * Math.PI * random();
    const flat = Math.sqrt(1 - z * z);
    setRay(kernel.ray, point, [flat * Math.cos(phi), flat * Math.sin(phi), z]);
    bounce.set(kernel.ray, hits * 8);
    const to = [0, 1, 2].map((a) => (lamp[a] as number) + 0.4 * (random() - 0.5) - (point[a] as number));
    const away = Math.hypot(...to);
    setRay(
      kernel.ray,
      point,
      to.map((t) => t / away),
      away * 0.999,
    );
    shadow.set(kernel.ray, hits * 8);
    hits++;
  }
  return { primary, bounce, shadow };
}

function medianRate({ kernel }: Tracing, rays: Float64Array, any: boolean): number {
  const seconds = median(() => {
    for (let i = 0; i < RAYS; i++) {
      for (let a = 0; a < 8; a++) kernel.ray[a] = rays[8 * i + a] as number;
      if (any) kernel.anyHit();
      else kernel.closestHit();
    }
  });
  return Math.round(RAYS / seconds);
}

function mirrorMapTime(tracing: Tracing): number {
  const tile = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  return 1000 * median(() => mirrorMapTile(tracing, WIDTH, HEIGHT, tile));
}

/** Time to apply a new power or exposure to films that are there. */
function reweighTime(): number {
  const set = demoSet('cordial');
  const lights = set.lights.length;
  const films: Films = {
    width: WIDTH,
    height: HEIGHT,
    channels: lights,
    data: new Float32Array(WIDTH * HEIGHT * 3 * lights).fill(1),
    samples: new Uint32Array(WIDTH * HEIGHT).fill(16),
  };
  const linear = new Float32Array(WIDTH * HEIGHT * 3);
  return 1000 * median(() => developFilms(linear, films, displayWeights(set)));
}

async function pictureTime(threads: number) {
  const set = demoSet('cordial');
  const keyed = { key: traceKey(set), set };
  const pool = createNodePool(threads);
  try {
    const size = { width: WIDTH, height: HEIGHT };
    await renderProgressively(pool, keyed, { ...size, samples: 1, seed: 99 });
    const start = performance.now();
    const first = await renderProgressively(pool, keyed, { ...size, samples: SAMPLES, seed: 1 });
    const seconds = (performance.now() - start) / 1000;
    const second = await renderProgressively(pool, keyed, { ...size, samples: SAMPLES, seed: 2 });
    const error = relativeError(first, second, exposureWeights(set));
    return {
      ...size,
      threads,
      samples: SAMPLES,
      seconds,
      relativeError: error,
      secondsTo5PercentExtrapolated: seconds * (error / WANTED_ERROR) ** 2,
      note: 'error: root mean square over pixels above 1 % of the maximum, from two independent pictures; time to 5 % taken as falling with the square root of the samples',
    };
  } finally {
    pool.close();
  }
}

/** Relative error of one of two independent pictures. */
function relativeError(a: Films, b: Films, weights: Float64Array): number {
  const [one, two] = [a, b].map((films) => {
    const linear = new Float32Array(films.width * films.height * 3);
    developFilms(linear, films, weights);
    return Float64Array.from({ length: films.width * films.height }, (_, i) =>
      luminanceOf(linear[3 * i] as number, linear[3 * i + 1] as number, linear[3 * i + 2] as number),
    );
  }) as [Float64Array, Float64Array];
  const means = one.map((value, i) => (value + (two[i] as number)) / 2);
  const least = 0.01 * means.reduce((most, value) => Math.max(most, value), 0);
  let sum = 0;
  let count = 0;
  means.forEach((middle, i) => {
    if (middle < least) return;
    sum += (((one[i] as number) - (two[i] as number)) / middle) ** 2 / 2;
    count++;
  });
  return Math.sqrt(sum / Math.max(1, count));
}

function median(work: () => unknown): number {
  work();
  const times = Array.from({ length: RUNS }, () => {
    const start = performance.now();
    work();
    return (performance.now() - start) / 1000;
  });
  return times.sort((a, b) => a - b)[RUNS >> 1] as number;
}

function lcg(seed: number): () => number {
  let state = seed;
  return () => {
    state = (Math.imul(state, 1664525) + 1013904223) | 0;
    return (state >>> 0) / 4294967296;
  };
}
