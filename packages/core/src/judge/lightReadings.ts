import type { SetDocument } from '@fendrix/contract';
import { lightLuminance } from '../photometry/output.js';
import type { LightShare } from './illuminance.js';

export interface LightReading {
  tag: string;
  on: boolean;
  time: 'flash' | 'continuous';
  /** lx for continuous light, lx s for flash; as if switched on. */
  reading: number;
  directReading: number;
  indirectReading: number;
  standardError: number;
}

export interface LightReadings {
  lights: LightReading[];
  /** Sums of the lights that are on: continuous light, lx, and flash, lx s. */
  illuminanceLx: number;
  flashExposureLxS: number;
}

/** Applies outputs, powers and switches to shares of unit luminance. No rays. */
export function lightReadings(set: SetDocument, shares: readonly LightShare[]): LightReadings {
  const lights = set.lights.map((light, index): LightReading => {
    const { time, luminance } = lightLuminance(light);
    const { direct, indirect, standardError } = shares[index] ?? { direct: 0, indirect: 0, standardError: 0 };
    return {
      tag: light.tag,
      on: light.on,
      time,
      reading: luminance * (direct + indirect),
      directReading: luminance * direct,
      indirectReading: luminance * indirect,
      standardError: luminance * standardError,
    };
  });
  const sumOf = (wanted: LightReading['time']) =>
    lights.reduce((sum, { on, time, reading }) => (on && time === wanted ? sum + reading : sum), 0);
  return { lights, illuminanceLx: sumOf('continuous'), flashExposureLxS: sumOf('flash') };
}
