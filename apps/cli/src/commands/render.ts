import { writeFile } from 'node:fs/promises';
import { extname } from 'node:path';
import type { SetDocument } from '@fendrix/contract';
import {
  developFilms,
  displayWeights,
  encodePfm,
  encodePicture,
  encodePicture16,
  encodeRadiance,
  type Films,
  lightLayers,
  luminanceWeights,
  traceKey,
  weightsOfChannels,
} from '@fendrix/core';
import { type ExrLayer, encodeOpenExr } from '@fendrix/files';
import { createNodePool } from '@fendrix/workers/node';
import sharp from 'sharp';
import { InputError, readSet, readWords } from '../input.js';
import { TRACE_WORDS, traceFilms, traceWords } from '../traceFilms.js';

/** Pictures for the eye, and linear ones: in absolute units, OpenEXR with a layer a light as it is exposed. */
const FORMATS = ['.png', '.jpg', '.tif', '.exr', '.pfm', '.hdr'];
const ABSOLUTE = ['.pfm', '.hdr'];

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
    const { weights, unit } = ABSOLUTE.includes(format)
      ? luminanceWeights(shown)
      : {
          weights: displayWeights(shown),
          unit: format === '.exr' ? 'linear, mid-tone at 0.18' : 'sRGB, mid-tone at 0.18',
        };
    developFilms(linear, films, weights);
    const layers = format === '.exr' ? layersOf(shown, films, weights) : [];
    await writePicture(out, format, { width, height }, linear, layers);
    return { out, width, height, samples, seed, threads, unit, smooth, rays: pool.rays, seconds };
  } finally {
    pool.close();
  }
}

async function writePicture(
  out: string,
  format: string,
  { width, height }: { width: number; height: number },
  linear: Float32Array,
  layers: readonly ExrLayer[],
): Promise<void> {
  try {
    switch (format) {
      case '.pfm':
        return await writeFile(out, encodePfm(width, height, linear));
      case '.hdr':
        return await writeFile(out, encodeRadiance(width, height, linear));
      case '.exr':
        return await writeFile(out, encodeOpenExr(width, height, [{ name: '', rgb: linear }, ...layers]));
      case '.tif':
        return await writeFile(
          out,
          await sharp(encodePicture16(linear), { raw: { width, height, channels: 3 } })
            .toColourspace('rgb16')
            .tiff({ compression: 'deflate' })
            .toBuffer(),
        );
      default: {
        const pixels = new Uint8ClampedArray(width * height * 4);
        encodePicture(pixels, linear);
        const whole = sharp(Buffer.from(pixels.buffer), {
          raw: { width, height, channels: 4 },
        }).removeAlpha();
        const file =
          format === '.jpg' ? whole.jpeg({ quality: 92, chromaSubsampling: '4:4:4' }) : whole.png();
        return await writeFile(out, await file.toBuffer());
      }
    }
  } catch (error) {
    throw new InputError(`--out: ${out} cannot be written. ${error instanceof Error ? error.message : ''}`);
  }
}

/** The picture of each light alone: all of them together are the picture. */
function layersOf(set: SetDocument, films: Films, weights: Float64Array): ExrLayer[] {
  return lightLayers(set).map(({ name, channels }) => {
    const rgb = new Float32Array(films.width * films.height * 3);
    developFilms(rgb, films, weightsOfChannels(weights, channels));
    return { name, rgb };
  });
}

function onlyLight(set: SetDocument, tag: string): SetDocument {
  if (!set.lights.some((light) => light.tag === tag)) {
    const tags = set.lights.map((light) => light.tag).join(', ');
    throw new InputError(`--light: there is no light "${tag}"; there are: ${tags || 'none'}`);
  }
  return { ...set, lights: set.lights.map((light) => ({ ...light, on: light.tag === tag })) };
}
