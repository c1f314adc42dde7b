import type { SetDocument, Vector } from '@fendrix/contract';
import { bakeLightmaps, luminanceOf, prepareTracing, type Tracing, vector } from '../src/index.js';

/**
 * Luminance for one film at unit luminance that arrives at a point from a target, by so many paths.
 * @param sheets paths end on lightmaps, as in pictures  @param quick as in the quick picture, without ambient light
 */
export function luminanceFrom(
  tracing: Tracing,
  from: Vector,
  target: Vector,
  { samples = 256, channel = 0, colour = -1, lightmaps = false, quick = false } = {},
): number {
  const { engine } = tracing;
  if (lightmaps) bakeLightmaps(tracing);
  engine.reseed(1);
  engine.setMode({ lightmaps, quick });
  let sum = 0;
  for (let i = 0; i < samples; i++) {
    engine.startSample(0, i);
    engine.point.set(from);
    engine.direction.set(vector.normalise(vector.subtract(target, from)));
    engine.films.fill(0);
    engine.trace(false);
    const [r = 0, g = 0, b = 0] = engine.films.subarray(3 * channel, 3 * channel + 3);
    sum += colour < 0 ? luminanceOf(r, g, b) : ([r, g, b][colour] ?? 0);
  }
  engine.setMode({});
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
