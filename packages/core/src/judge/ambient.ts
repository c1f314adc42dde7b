import type { Vector } from '@fendrix/contract';
import { Sampler } from '../engine/sampler.js';
import { createLook, isShiny, look } from '../render/look.js';
import type { Tracing } from '../render/prepareTracing.js';
import { rayThrough } from '../render/view.js';
import { illuminanceByLight, mean } from './illuminance.js';

/** Places of the picture at which bounced light is read. */
const PLACES = 24;
const SAMPLES_A_PLACE = 96;

/**
 * Mean luminance of the bounced light round the matte surfaces in the picture, for each film at unit luminance.
 * One number for the whole picture: good enough for the tone of a quick picture, no more.
 */
export function ambientByLight(tracing: Tracing, seed: number): number[] {
  const sampler = new Sampler(seed);
  const direction = new Float64Array(3);
  const seen = createLook();
  const readings: number[][] = [];
  for (let i = 0; i < PLACES; i++) {
    sampler.start(0, i);
    sampler.next();
    rayThrough(direction, tracing.view, sampler.uv[0] as number, sampler.uv[1] as number);
    look(seen, tracing, tracing.view.origin, direction);
    if (seen.surface < 0 || isShiny(tracing, seen.surface)) continue;
    const triple = (from: number) => [...seen.geometry.subarray(from, from + 3)] as Vector;
    const options = { samples: SAMPLES_A_PLACE, seed: seed + i, directOnly: false };
    const shares = illuminanceByLight(tracing, triple(0), triple(3), options);
    readings.push(shares.map(({ indirect }) => indirect / Math.PI));
  }
  return Array.from({ length: tracing.scene.channelCount }, (_, channel) =>
    readings.length === 0 ? 0 : mean(readings.map((row) => row[channel] ?? 0)),
  );
}
