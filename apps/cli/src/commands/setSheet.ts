import { writeFile } from 'node:fs/promises';
import {
  developFilms,
  displayWeights,
  encodePicture,
  planDrawing,
  spotReading,
  traceKey,
} from '@fendrix/core';
import { type Paper, setSheetPdf } from '@fendrix/paper';
import { setSheetWords, sheetMarks } from '@fendrix/words';
import { setTolerances } from '@fendrix/workers';
import { createNodePool } from '@fendrix/workers/node';
import sharp from 'sharp';
import { InputError, readSet, readWords } from '../input.js';
import { TRACE_WORDS, traceFilms, traceWords } from '../traceFilms.js';

const PAPERS: Readonly<Record<string, Paper>> = { a4: 'A4', letter: 'Letter' };
/** Paths at each spot, for tones and tolerances. */
const SPOT_SAMPLES = 4096;

/** Writes the set sheet of a set as PDF, A4 or Letter. */
export async function setSheet(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(
    words,
    { out: { type: 'string' }, paper: { type: 'string' }, ...TRACE_WORDS },
    1,
  );
  const { out } = values;
  if (!out?.toLowerCase().endsWith('.pdf')) throw new InputError('--out: name a .pdf file');
  const paper = PAPERS[(values.paper ?? 'a4').toLowerCase()];
  if (!paper) throw new InputError('--paper: a4 or letter');
  const set = await readSet(positionals[0] ?? '');
  const { width, height, samples, seed, threads } = traceWords(values, set);
  const pool = createNodePool(threads);
  try {
    const keyed = { key: traceKey(set), set };
    const films = await traceFilms(pool, keyed, { width, height, samples, seed, smooth: true });
    const linear = new Float32Array(width * height * 3);
    developFilms(linear, films, displayWeights(set));
    const pixels = new Uint8ClampedArray(width * height * 4);
    encodePicture(pixels, linear);
    const data = await sharp(Buffer.from(pixels.buffer), { raw: { width, height, channels: 4 } })
      .removeAlpha()
      .jpeg({ quality: 90 })
      .toBuffer();
    const spots = await pool.run(keyed, { kind: 'spots', spots: set.spots, samples: SPOT_SAMPLES, seed });
    const tolerances = await setTolerances(pool, set, { samples: SPOT_SAMPLES, seed });
    const pdf = await setSheetPdf(
      {
        words: setSheetWords(set, {
          spots: spots.map((trace) => spotReading(set, trace)),
          tolerances,
          marks: sheetMarks(set),
        }),
        above: planDrawing('above', set),
        side: planDrawing('side', set),
        picture: { data, aspect: width / height },
        foot: 'Set sheet',
      },
      paper,
    );
    await writeFile(out, pdf).catch((error: Error) => {
      throw new InputError(`--out: ${out} cannot be written. ${error.message}`);
    });
    return { out, paper, spots: spots.length, tolerances: tolerances.length };
  } finally {
    pool.close();
  }
}
