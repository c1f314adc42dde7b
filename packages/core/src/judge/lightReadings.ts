import type { SetDocument } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { channelLuminance } from '../exposure/recording.js';
import { channelsOf } from '../photometry/channels.js';
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

/**
 * Applies outputs, powers and switches to shares of unit luminance. No rays.
 * A flash with its modelling lamp on gives its flash as the reading; the lamp is added to the sum of continuous light.
 * @param shares one a film
 */
export function lightReadings(set: SetDocument, shares: readonly LightShare[]): LightReadings {
  const channels = channelsOf(set);
  let modellingLx = 0;
  const lights = set.lights.map((light, index): LightReading => {
    const reading: LightReading = {
      tag: light.tag,
      on: light.on,
      time: 'continuous',
      reading: 0,
      directReading: 0,
      indirectReading: 0,
      standardError: 0,
    };
    channels.forEach((channel, place) => {
      const share = shares[place];
      if (channel.light !== index || !share) return;
      const { flash, continuous } = channelLuminance(set.camera, light, channel);
      const flashed = luminanceOf(...flash);
      const steady = luminanceOf(...continuous);
      if (flashed > 0) {
        reading.time = 'flash';
        if (light.on) modellingLx += steady * (share.direct + share.indirect);
      }
      const unit = flashed > 0 ? flashed : steady;
      reading.directReading += unit * share.direct;
      reading.indirectReading += unit * share.indirect;
      reading.standardError = Math.hypot(reading.standardError, unit * share.standardError);
    });
    reading.reading = reading.directReading + reading.indirectReading;
    return reading;
  });
  const sumOf = (wanted: LightReading['time']) =>
    lights.reduce((sum, { on, time, reading }) => (on && time === wanted ? sum + reading : sum), 0);
  return { lights, illuminanceLx: sumOf('continuous') + modellingLx, flashExposureLxS: sumOf('flash') };
}
