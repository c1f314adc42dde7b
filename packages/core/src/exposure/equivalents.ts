import type { Camera } from '@fendrix/contract';
import { depthOfField, lensFigures } from '../optics/lens.js';
import { type DialStep, F_NUMBERS, fStopsOf, ISO_SPEEDS, nearestStep, SHUTTERS } from './series.js';

/** One way to the same exposure. */
export interface Equivalent {
  fNumber: DialStep;
  shutter: DialStep;
  iso: DialStep;
  /** Depth within the circle, m. */
  depthM: number;
  /** Airy disc on the sensor over the pixel pitch. */
  airyPixels: number;
  /** Shutter against what the hand holds; above 0 is too slow by so many stops. */
  shakeStops: number;
}

/**
 * Whole-stop f-numbers of the lens with the shutter (continuous light) or the ISO (flash, whose light the shutter does not
 * change) that gives the same exposure as the camera now.
 * @param by what is changed against the f-stop  @param handHeldS slowest shutter held by hand, s
 */
export function equivalents(
  camera: Camera,
  { by, circleM, handHeldS }: { by: 'shutter' | 'iso'; circleM: number; handHeldS: number },
): Equivalent[] {
  const found: Equivalent[] = [];
  const ofLens = fStopsOf(camera.lens);
  for (let index = 0; index < F_NUMBERS.length; index += 3) {
    const fNumber = F_NUMBERS[index] as DialStep;
    if (!ofLens.includes(fNumber)) continue;
    const stops = 2 * Math.log2(fNumber.value / camera.fNumber);
    const shutterS = by === 'shutter' ? camera.shutterS * 2 ** stops : camera.shutterS;
    const isoSpeed = by === 'iso' ? camera.iso * 2 ** stops : camera.iso;
    const shutter = SHUTTERS[nearestStep(SHUTTERS, shutterS)] as DialStep;
    const iso = ISO_SPEEDS[nearestStep(ISO_SPEEDS, isoSpeed)] as DialStep;
    // Beyond the ends of the dial there is no such setting.
    if (
      Math.abs(Math.log2(shutter.value / shutterS)) > 0.4 ||
      Math.abs(Math.log2(iso.value / isoSpeed)) > 0.4
    )
      continue;
    const set = { ...camera, fNumber: fNumber.value };
    const { nearM, farM } = depthOfField(set, circleM);
    const { airyDiameterM, pixelPitchM } = lensFigures(set);
    found.push({
      fNumber,
      shutter,
      iso,
      depthM: farM - nearM,
      airyPixels: airyDiameterM / pixelPitchM,
      shakeStops: Math.log2(shutter.value / handHeldS),
    });
  }
  return found;
}
