import { illuminanceByLight, lightReadings, prepareTracing, vector } from '@fendrix/core';
import { InputError, readSet, readWords, triple, wholeNumber } from '../input.js';

/** Light of each source at any point: lx for continuous light, lx s for flash. */
export async function probe(words: string[]): Promise<unknown> {
  const { values, positionals } = readWords(
    words,
    {
      point: { type: 'string' },
      normal: { type: 'string' },
      direct: { type: 'boolean' },
      samples: { type: 'string' },
      seed: { type: 'string' },
    },
    1,
  );
  const point = triple('point', values.point);
  const direction = triple('normal', values.normal);
  if (!(vector.length(direction) > 1e-9)) throw new InputError('--normal: has no length; try 0,0,1');
  const normal = vector.normalise(direction);
  const directOnly = values.direct === true;
  const samples = wholeNumber('samples', values.samples, 32_768, 10_000_000);
  const seed = wholeNumber('seed', values.seed, 1, 2 ** 31 - 1);
  const set = await readSet(positionals[0] ?? '');
  const shares = illuminanceByLight(prepareTracing(set), point, normal, { samples, seed, directOnly });
  const { lights, ...sums } = lightReadings(set, shares);
  return {
    point,
    normal,
    directOnly,
    lights: lights.map(({ reading, directReading, indirectReading, ...light }) => ({
      ...light,
      unit: light.time === 'flash' ? 'lx s' : 'lx',
      value: reading,
      direct: directReading,
      indirect: directOnly ? null : indirectReading,
    })),
    ...sums,
    samples,
  };
}
