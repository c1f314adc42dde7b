import { writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import type { SetDocument } from '@fendrix/contract';
import {
  developFilms,
  displayWeights,
  encodePfm,
  encodePicture,
  encodeRadiance,
  luminanceWeights,
  traceKey,
} from '@fendrix/core';
import { createNodePool } from '@fendrix/workers/node';
import sharp from 'sharp';
import { InputError, readSet, readWords } from '../input.js';
import { TRACE_WORDS, traceFilms, traceWords } from '../traceFilms.js';

/** Pictures for the eye, and linear ones in absolute units. */
const FORMATS = ['.png', '.pfm', '.hdr'];

/** Renders a set to a file on all cores and reports what it took. */
export async function render(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(
    words,
    {
      out: { type: 'string' },
      ...TRACE_WORDS,
      light: { type: 'string' },
      'whole-paths': { type: 'boolean' },
      smooth: { type: 'boolean' },
    },
    1,
  );
  const out = values.out ?? '';
  const format = extname(out).toLowerCase();
  if (!FORMATS.includes(format)) throw new InputError(`--out: name a ${FORMATS.join(', ')} file`);
  const wholePaths = values['whole-paths'] === true;
  const smooth = values.smooth === true;
  const set = await readSet(positionals[0] ?? '');
  const { width, height, samples, seed, threads } = traceWords(values, set);
  const shown = values.light === undefined ? set : onlyLight(set, values.light);

  const pool = createNodePool(threads);
  const start = performance.now();
  try {
    const keyed = { key: traceKey(set), set };
    const films = await traceFilms(pool, keyed, { width, height, samples, seed, wholePaths, smooth });
    const seconds = (performance.now() - start) / 1000;
    const linear = new Float32Array(width * height * 3);
    const { weights, unit } =
      format === '.png'
        ? { weights: displayWeights(shown), unit: 'sRGB, mid-tone at 0.18' }
        : luminanceWeights(shown);
    developFilms(linear, films, weights);
    await writePicture(out, format, width, height, linear);
    return { out, width, height, samples, seed, threads, unit, smooth, rays: pool.rays, seconds };
  } finally {
    pool.close();
  }
}

async function writePicture(
  out: string,
  format: string,
  width: number,
  height: number,
  linear: Float32Array,
): Promise<void> {
  try {
    if (format !== '.png') {
      const encode = format === '.pfm' ? encodePfm : encodeRadiance;
      await writeFile(out, encode(width, height, linear));
      return;
    }
    const pixels = new Uint8ClampedArray(width * height * 4);
    encodePicture(pixels, linear);
    const png = sharp(Buffer.from(pixels.buffer), { raw: { width, height, channels: 4 } });
    await writeFile(out, await png.removeAlpha().png().toBuffer());
  } catch (error) {
    throw new InputError(`--out: ${out} cannot be written. ${error instanceof Error ? error.message : ''}`);
  }
}

function onlyLight(set: SetDocument, tag: string): SetDocument {
  if (!set.lights.some((light) => light.tag === tag)) {
    const tags = set.lights.map((light) => light.tag).join(', ');
    throw new InputError(`--light: there is no light "${tag}"; there are: ${tags || 'none'}`);
  }
  return { ...set, lights: set.lights.map((light) => ({ ...light, on: light.tag === tag })) };
}
