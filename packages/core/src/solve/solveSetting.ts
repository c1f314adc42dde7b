import type { SetDocument } from '@fendrix/contract';
import { ISO_SPEEDS, SHUTTERS } from '../exposure/series.js';
import { type SpotTrace, spotReading } from '../judge/readSpot.js';
import { lightLuminance } from '../photometry/output.js';
import type { SolvedTone, ToneWish } from './solvePowers.js';

/** What is turned for all lights at once. */
export type SolvedSetting = 'shutter' | 'iso';

export interface SettingSolution {
  by: SolvedSetting;
  /** Setting of the dial, s or ISO. */
  value: number;
  printed: string;
  tones: SolvedTone[];
  /** Spots that the lens does not see: they cannot be solved for. */
  unseen: string[];
  /** Faster than the body's flash sync while a flash is on: the frame would be cut. */
  overSync: boolean;
}

/**
 * The shutter or the ISO, on its dial, at which spots are recorded nearest to wanted tones: every setting of the dial is
 * tried, and the least sum of squares in stops counts. For windows and lamps, whose power cannot be turned; flash does not
 * follow the shutter, and is reckoned so. No ray is traced.
 * @returns null where none of the spots is seen
 */
export function solveSetting(
  set: SetDocument,
  traces: readonly SpotTrace[],
  wishes: readonly ToneWish[],
  by: SolvedSetting,
): SettingSolution | null {
  const traceOf = (spot: string) => traces.find((trace) => trace.name === spot && trace.seen);
  const seen = wishes.filter(({ spot }) => traceOf(spot));
  if (seen.length === 0) return null;
  const flash = set.lights.some((light) => light.on && lightLuminance(light).time === 'flash');
  let best: SettingSolution | null = null;
  let least = Number.POSITIVE_INFINITY;
  for (const { printed, value } of by === 'shutter' ? SHUTTERS : ISO_SPEEDS) {
    const camera = { ...set.camera, ...(by === 'shutter' ? { shutterS: value } : { iso: value }) };
    const tones = seen.map(({ spot, from, to }): SolvedTone => {
      const reading = spotReading({ ...set, camera }, traceOf(spot) as SpotTrace);
      return { spot, from, to, reachedStops: reading.stopsFromMidTone };
    });
    const miss = tones.reduce((sum, tone, i) => sum + (seen[i]?.weight ?? 1) * missOf(tone) ** 2, 0);
    if (miss >= least - 1e-9) continue;
    least = miss;
    const overSync = flash && camera.shutterS < camera.body.syncSpeedS * 0.98;
    const unseen = wishes.filter((wish) => !seen.includes(wish)).map(({ spot }) => spot);
    best = { by, value, printed, tones, unseen, overSync };
  }
  return best;
}

/** Black is told as missed by this much, stops. */
const BLACK_STOPS = 30;

function missOf({ from, to, reachedStops }: SolvedTone): number {
  if (reachedStops === null) return BLACK_STOPS;
  return Math.max(0, from - reachedStops, reachedStops - to);
}
