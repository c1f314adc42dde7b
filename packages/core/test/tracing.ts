import type { SetDocument, Vector } from '@fendrix/contract';
import { lightSheets, luminanceOf, prepareTracing, type Tracing, vector } from '../src/index.js';

/**
 * Luminance for one film at unit luminance that arrives at a point from a target, by so many paths.
 * @param sheets paths end on lit sheets, as in pictures  @param quick as in the quick picture, without ambient light
 */
export function luminanceFrom(
  tracing: Tracing,
  from: Vector,
  target: Vector,
  { samples = 256, channel = 0, sheets = false, quick = false } = {},
): number {
  const { kernel } = tracing;
  if (sheets) lightSheets(tracing);
  kernel.reseed(1);
  kernel.setMode({ sheets, quick });
  let sum = 0;
  for (let i = 0; i < samples; i++) {
    kernel.startSample(0, i);
    kernel.point.set(from);
    kernel.direction.set(vector.normalise(vector.subtract(target, from)));
    kernel.films.fill(0);
    kernel.trace(false);
    const [r = 0, g = 0, b = 0] = kernel.films.subarray(3 * channel, 3 * channel + 3);
    sum += luminanceOf(r, g, b);
  }
  kernel.setMode({});
  return sum / samples;
}

/** The same for a set, once. */
export function seenLuminance(
  set: SetDocument,
  from: Vector,
  target: Vector,
  samples = 256,
  channel = 0,
): number {
  return luminanceFrom(prepareTracing(set), from, target, { samples, channel });
}
