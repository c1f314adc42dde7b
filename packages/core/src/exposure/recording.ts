import type { Camera, SetDocument } from '@fendrix/contract';
import { lensFigures } from '../optics/lens.js';
import { lightLuminance } from '../photometry/output.js';
import { METER_K, MID_TONE } from './exposure.js';

/** Luminance times time, cd s/m2, that this camera records as mid-tone, the close-focus loss included. */
export function recordedMidToneCdSM2(camera: Camera): number {
  return (METER_K * lensFigures(camera).effectiveFNumber ** 2) / camera.iso;
}

/**
 * For each light the factor from its film (unit luminance) to luminance times time, cd s/m2:
 * flash as it is, continuous light times the shutter, nothing when switched off.
 */
export function exposureWeights(set: SetDocument): Float64Array {
  return Float64Array.from(set.lights, (light) => {
    if (!light.on) return 0;
    const { time, luminance } = lightLuminance(light);
    return time === 'flash' ? luminance : luminance * set.camera.shutterS;
  });
}

/** For each light the factor from its film to the recorded linear value, mid-tone at 0.18. */
export function displayWeights(set: SetDocument): Float64Array {
  const toLinear = MID_TONE / recordedMidToneCdSM2(set.camera);
  return exposureWeights(set).map((weight) => weight * toLinear);
}
