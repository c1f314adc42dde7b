import { availableParallelism } from 'node:os';
import type { SetDocument } from '@fendrix/contract';
import {
  bakeLightmaps,
  channelsOf,
  createFilms,
  developFilms,
  displayWeights,
  mirrorMapTile,
  prepareTracing,
} from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { judgeBench } from '../bench/judgeBench.js';
import { kernelBench } from '../bench/kernelBench.js';
import { filmBytes, pictureBench, QUICK_MEASURE, USUAL_MEASURE } from '../bench/pictureBench.js';
import { medianSeconds } from '../bench/timing.js';
import { InputError, readWords, wholeNumber } from '../input.js';

/** All scenes and the demo set of each. */
const SCENES = {
  mill: 'mill',
  cordial: 'cordial-frost',
  tart: 'tart',
  tent: 'tent',
  bottle: 'bottle',
  vinegar: 'vinegar',
  perry: 'perry',
  pepper: 'pepper',
  'one-light': 'cordial',
} as const;
const WIDTH = 320;
const HEIGHT = 240;
const REFERENCE_SAMPLES = 256;
const QUICK_REFERENCE_SAMPLES = 64;

type SceneName = keyof typeof SCENES;

/**
 * Speed of the ray kernel, of the mirror map, of a new weight of the films and of the picture on all scenes; with `--pictures` of
 * the picture alone, with `--quick` of a small one.
 * Absolute times vary by machine: compare within one run.
 */
export async function bench(words: string[]): Promise<unknown> {
  const options = {
    threads: { type: 'string' },
    scene: { type: 'string' },
    reference: { type: 'string' },
    kernel: { type: 'boolean' },
    pictures: { type: 'boolean' },
    quick: { type: 'boolean' },
    judge: { type: 'boolean' },
    cures: { type: 'boolean' },
    shift: { type: 'string' },
  } as const;
  const { values } = readWords(words, options, 0);
  if (values.judge) return judgeBench(wholeNumber('shift', values.shift, 0, 1000), values.cures === true);
  const threads = wholeNumber('threads', values.threads, availableParallelism(), 256);
  const usual = values.quick ? QUICK_REFERENCE_SAMPLES : REFERENCE_SAMPLES;
  const reference = wholeNumber('reference', values.reference, usual, 1 << 16);
  const measure = values.quick ? QUICK_MEASURE : USUAL_MEASURE;
  const figures: Record<string, unknown> = {};
  for (const name of scenesOf(values.scene)) {
    const set = demoSet(SCENES[name]);
    if (values.pictures || values.quick) {
      figures[name] = { picture: await pictureBench(set, threads, reference, measure) };
      continue;
    }
    const rest = values.kernel ? {} : await wholeFigures(set, threads, reference);
    figures[name] = { kernel: kernelBench(set), ...rest };
  }
  return figures;
}

function scenesOf(wanted: string | undefined): SceneName[] {
  const names = Object.keys(SCENES) as SceneName[];
  if (wanted === undefined) return names;
  const found = names.find((name) => name === wanted);
  if (!found) throw new InputError(`--scene: there is no "${wanted}"; take one of ${names.join(', ')}`);
  return [found];
}

async function wholeFigures(set: SetDocument, threads: number, reference: number) {
  const tracing = prepareTracing(set);
  const tile = { x: 0, y: 0, width: WIDTH, height: HEIGHT };
  const bakeStart = performance.now();
  bakeLightmaps(tracing);
  const bakeMilliseconds = performance.now() - bakeStart;
  return {
    mirrorMap: {
      width: WIDTH,
      height: HEIGHT,
      milliseconds: 1000 * medianSeconds(() => mirrorMapTile(tracing, WIDTH, HEIGHT, tile)),
    },
    reweigh: { width: WIDTH, height: HEIGHT, milliseconds: 1000 * reweighSeconds(set), rays: 0 },
    lightmaps: { patches: tracing.lightmapLayout.patches, milliseconds: bakeMilliseconds },
    memory: { engineBytes: tracing.engine.memoryBytes(), filmBytes: filmBytes(set) },
    picture: await pictureBench(set, threads, reference),
  };
}

/** Time to apply a new power or exposure to films that are there. */
function reweighSeconds(set: SetDocument): number {
  const channels = channelsOf(set).length;
  const films = createFilms(WIDTH, HEIGHT, channels);
  films.data.fill(1);
  films.samples.fill(16);
  const linear = new Float32Array(WIDTH * HEIGHT * 3);
  return medianSeconds(() => developFilms(linear, films, displayWeights(set)));
}
