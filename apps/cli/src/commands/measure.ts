import { cameraFigures, mirrorBand, prepareTracing, spotReading, traceSpot } from '@fendrix/core';
import { readSet, readWords, wholeNumber } from '../input.js';

/** Camera figures, light at the pinned spots and mirror bands of a set. */
export async function measure(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(
    words,
    { samples: { type: 'string' }, seed: { type: 'string' } },
    1,
  );
  const samples = wholeNumber('samples', values.samples, 8192, 10_000_000);
  const seed = wholeNumber('seed', values.seed, 1, 2 ** 31 - 1);
  const set = await readSet(positionals[0] ?? '');
  const tracing = prepareTracing(set);
  return {
    set: set.name,
    camera: cameraFigures(set.camera),
    spots: set.spots.map((spot) => spotReading(set, traceSpot(tracing, spot, samples, seed))),
    bands: set.products.map(
      (product) => mirrorBand(tracing, product) ?? { product: product.id, seen: false, lengths: [] },
    ),
    samples,
    rays: tracing.engine.rays[0],
  };
}
