import { illuminanceByLight, lightLuminance, prepareTracing, vector } from '@fendrix/core';
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

  let illuminanceLx = 0;
  let flashExposureLxS = 0;
  const lights = set.lights.map((light, index) => {
    const { time, luminance } = lightLuminance(light);
    const share = shares[index] ?? { direct: 0, indirect: 0, standardError: 0 };
    const value = luminance * (share.direct + share.indirect);
    if (light.on && time === 'flash') flashExposureLxS += value;
    if (light.on && time === 'continuous') illuminanceLx += value;
    return {
      tag: light.tag,
      on: light.on,
      time,
      unit: time === 'flash' ? 'lx s' : 'lx',
      value,
      direct: luminance * share.direct,
      indirect: directOnly ? null : luminance * share.indirect,
      standardError: luminance * share.standardError,
    };
  });
  return { point, normal, directOnly, lights, illuminanceLx, flashExposureLxS, samples };
}
