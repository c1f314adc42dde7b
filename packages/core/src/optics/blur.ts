import type { Camera } from '@fendrix/contract';
import { depthOfField, lensFigures } from './lens.js';

/**
 * Blur of a depth on the sensor, px: the circle of confusion that just reaches it. Thin lens, without diffraction.
 * @param depthM from the lens along its axis, m
 */
export function blurPx(camera: Camera, depthM: number): number {
  const { pixelPitchM } = lensFigures(camera);
  // The depth of field grows with the circle: the circle at which it ends at this depth.
  const one = depthOfField(camera, pixelPitchM);
  const share = camera.focusM / one.nearM - 1;
  return Math.abs(1 - camera.focusM / depthM) / share;
}
