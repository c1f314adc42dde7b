import type { Spot } from '@fendrix/contract';
import type { SpotReading } from './readSpot.js';

/** Where a spot is against the tone that is wanted there. */
export interface TargetVerdict {
  name: string;
  /** Stops from mid-tone or from the spot it is counted from; null where one of them is not read. */
  stops: number | null;
  from: number;
  to: number;
  against: string | null;
  /** Stops to go: 0 within, above 0 brighter is wanted. */
  missing: number;
}

/** Tones are told in tenths of a stop: less than half of one is not missing. */
const TOLD_STOPS = 0.05;

/** Spots with a target, read against it. */
export function targetVerdicts(
  spots: readonly Spot[],
  readings: readonly Pick<SpotReading, 'name' | 'stopsFromMidTone'>[],
): TargetVerdict[] {
  const stopsOf = (name: string) =>
    readings.find((reading) => reading.name === name)?.stopsFromMidTone ?? null;
  return spots.flatMap(({ name, target }) => {
    if (!target) return [];
    const own = stopsOf(name);
    const base = target.against === undefined ? 0 : stopsOf(target.against);
    const stops = own === null || base === null ? null : own - base;
    const { from, to } = target;
    const off = stops === null ? 0 : stops < from ? from - stops : stops > to ? to - stops : 0;
    const missing = Math.abs(off) < TOLD_STOPS ? 0 : off;
    return [{ name, stops, from, to, against: target.against ?? null, missing }];
  });
}

/** Key and fill at a spot: what the key gives together with the fill, over the fill alone. */
export interface KeyToFill {
  /** "4" of 4 : 1; infinite without fill. */
  ratio: number;
  stops: number;
}

/** Key to fill ratio at a spot, one light being the key and all others that are on the fill. */
export function keyToFill(reading: SpotReading, key: string): KeyToFill | null {
  const on = reading.lights.filter((light) => light.on);
  const exposure = (time: 'flash' | 'continuous') =>
    on.filter((light) => light.time === time).length > 0 ? time : null;
  // Flash and continuous light are counted together by what is recorded, where the lens sees the spot.
  const mixed = exposure('flash') !== null && exposure('continuous') !== null;
  const amount = (light: SpotReading['lights'][number]) =>
    mixed ? (light.stopsFromMidTone === null ? 0 : 2 ** light.stopsFromMidTone) : light.reading;
  const whole = on.reduce((sum, light) => sum + amount(light), 0);
  const own = on.filter(({ tag }) => tag === key).reduce((sum, light) => sum + amount(light), 0);
  if (!(whole > 0) || !(own > 0)) return null;
  const ratio = whole / (whole - own);
  return { ratio, stops: Math.log2(ratio) };
}
