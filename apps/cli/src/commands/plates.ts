import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { SetDocument } from '@fendrix/contract';
import {
  developFilms,
  displayWeights,
  encodeMask16,
  encodePicture16,
  type Films,
  layPlate,
  type MaskGround,
  plateMask,
  resizeMask,
  setOfPlate,
  stackedCameras,
  traceKey,
  WHOLE_MASK,
} from '@fendrix/core';
import { fileStem, plateList } from '@fendrix/words';
import { partMapOf, type WorkerPool } from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';
import sharp from 'sharp';
import { InputError, readSet, readWords } from '../input.js';
import { TRACE_WORDS, traceFilms, traceWords } from '../traceFilms.js';

/** Masks are made of pixels half as wide, so that their edges are smooth. */
const FINER = 2;

interface Size {
  width: number;
  height: number;
}

/**
 * Writes the frame of a set, its plates, their masks and all put together into a folder as PNG of 16 bits, with a list
 * to read. With `--masks-only` the masks and the list alone, for frames from a real camera.
 */
export async function plates(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(
    words,
    {
      out: { type: 'string' },
      ...TRACE_WORDS,
      'masks-only': { type: 'boolean' },
    },
    1,
  );
  const { out } = values;
  if (!out) throw new InputError('--out: name the folder that the files are written into');
  const set = await readSet(positionals[0] ?? '');
  if (set.plates.length === 0)
    throw new InputError('plates: this set has none. Add them on the bench, desk Plates.');
  const { width, height, samples, seed, threads } = traceWords(values, set);
  const { sensorWidthM, sensorHeightM } = set.camera.body;
  const high = Math.round((width * sensorHeightM) / sensorWidthM);
  if (Math.abs(high - height) > 1)
    throw new InputError(`--size: masks are of the whole frame. Give its shape, such as ${width}x${high}`);
  const pool = createNodePool(threads);
  try {
    const size = { width, height };
    const masks = await masksOf(pool, set, size);
    const pictures = values['masks-only']
      ? null
      : await picturesOf(pool, set, masks, { ...size, samples, seed, smooth: true });
    const files = await writeAll(out, set, size, masks, pictures);
    return { out, width, height, files };
  } finally {
    pool.close();
  }
}

/** The mask of each plate at the size of the picture. */
async function masksOf(pool: WorkerPool, set: SetDocument, size: Size): Promise<Float32Array[]> {
  const keyed = { key: traceKey(set), set };
  const fine = { width: FINER * size.width, height: FINER * size.height };
  const [map, things] = await Promise.all([
    partMapOf(pool, keyed, fine, { x: 0, y: 0, ...fine }),
    pool.run(keyed, { kind: 'things' }),
  ]);
  const plates = set.plates.map((plate) => ({ ...plate, camera: setOfPlate(set, plate).camera }));
  const ground: MaskGround = {
    map,
    things,
    window: WHOLE_MASK,
    aspect: size.width / size.height,
    cameras: stackedCameras(set.camera, plates),
  };
  return plates.map((plate) => resizeMask(plateMask(ground, plate, plate.camera), fine, size));
}

interface Pictures {
  base: Float32Array;
  plates: Float32Array[];
  together: Float32Array;
}

/** All frames in linear light; sets in which rays take the same paths are traced once. */
async function picturesOf(
  pool: WorkerPool,
  set: SetDocument,
  masks: readonly Float32Array[],
  options: Parameters<typeof traceFilms>[2],
): Promise<Pictures> {
  const traced = new Map<string, Films>();
  const developed = async (own: SetDocument) => {
    const key = traceKey(own);
    const films = traced.get(key) ?? (await traceFilms(pool, { key, set: own }, options));
    traced.set(key, films);
    const linear = new Float32Array(options.width * options.height * 3);
    developFilms(linear, films, displayWeights(own));
    return linear;
  };
  const base = await developed(set);
  const all: Float32Array[] = [];
  for (const plate of set.plates) all.push(await developed(setOfPlate(set, plate)));
  const together = Float32Array.from(base);
  set.plates.forEach(({ laid }, index) => {
    if (laid) layPlate(together, all[index] as Float32Array, masks[index] as Float32Array);
  });
  return { base, plates: all, together };
}

async function writeAll(
  out: string,
  set: SetDocument,
  size: Size,
  masks: readonly Float32Array[],
  pictures: Pictures | null,
): Promise<string[]> {
  const written: string[] = [];
  const write = async (name: string, data: string | Buffer) => {
    await writeFile(join(out, name), data);
    written.push(name);
  };
  try {
    await mkdir(out, { recursive: true });
    await write('list.txt', plateList(set));
    if (pictures) await write('0 set as it stands.png', await png(encodePicture16(pictures.base), size, 3));
    for (const [index, plate] of set.plates.entries()) {
      const name = `${index + 1} ${fileStem(plate.name)}`;
      const linear = pictures?.plates[index];
      if (linear) await write(`${name}.png`, await png(encodePicture16(linear), size, 3));
      const mask = masks[index] as Float32Array;
      await write(`${name}, mask.png`, await png(encodeMask16(mask), size, 1));
    }
    if (pictures) await write('put together.png', await png(encodePicture16(pictures.together), size, 3));
  } catch (error) {
    throw new InputError(
      `--out: ${out} cannot be written into. ${error instanceof Error ? error.message : ''}`,
    );
  }
  return written;
}

const png = (data: Uint16Array, { width, height }: Size, channels: 1 | 3): Promise<Buffer> =>
  sharp(data, { raw: { width, height, channels } })
    .toColourspace(channels === 1 ? 'grey16' : 'rgb16')
    .png()
    .toBuffer();
