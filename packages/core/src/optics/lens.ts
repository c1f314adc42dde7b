import type { Camera } from '@fendrix/contract';
import { requireDomain } from '../errors.js';

/** Green light, m, for which diffraction is given. */
export const AIRY_WAVELENGTH_M = 0.55e-6;

export interface LensFigures {
  /** Image size over object size in the plane of focus. */
  magnification: number;
  /** Distance at which the sensor subtends the picture, m: f (1 + m/p). */
  imageDistanceM: number;
  angleOfViewDeg: { width: number; height: number };
  /** N (1 + m/p). */
  effectiveFNumber: number;
  /** Light lost by focusing close, stops: 2 log2(1 + m/p). TTL meters see it, hand meters do not. */
  bellowsStops: number;
  pixelPitchM: number;
  /** Diameter of the Airy disc on the sensor at 550 nm, m. */
  airyDiameterM: number;
}

/**
 * Magnification, angle of view, bellows loss and diffraction of a camera focused at a distance.
 * Model: a symmetrical or pupil-ratio lens with flat field and no focus breathing; distances from the
 * entrance pupil, so m = f / (s - f/p).
 * @throws {DomainError} focused closer than the lens can form an image
 * Source: docs/physics/camera.md
 */
export function lensFigures(camera: Camera): LensFigures {
  const { focalLengthM, pupilRatio } = camera.lens;
  requireDomain(
    camera.focusM > focalLengthM / pupilRatio,
    'the focus distance is longer than the focal length over the pupil ratio',
  );
  const magnification = focalLengthM / (camera.focusM - focalLengthM / pupilRatio);
  const extension = 1 + magnification / pupilRatio;
  const imageDistanceM = focalLengthM * extension;
  const { sensorWidthM, sensorHeightM } = camera.body;
  const viewDeg = (sizeM: number) => (2 * Math.atan(sizeM / (2 * imageDistanceM)) * 180) / Math.PI;
  const effectiveFNumber = camera.fNumber * extension;
  return {
    magnification,
    imageDistanceM,
    angleOfViewDeg: { width: viewDeg(sensorWidthM), height: viewDeg(sensorHeightM) },
    effectiveFNumber,
    bellowsStops: 2 * Math.log2(extension),
    pixelPitchM: sensorWidthM / camera.body.pixelsWide,
    airyDiameterM: 2.44 * AIRY_WAVELENGTH_M * effectiveFNumber,
  };
}

export interface DepthOfField {
  nearM: number;
  /** Infinity from the hyperfocal distance on. */
  farM: number;
}

/**
 * Nearest and farthest distance drawn sharper than a circle of confusion, m from the front principal plane.
 * Thin lens; 100 mm f/11 at 0.6 m, c 0.03 mm: 0.5903 to 0.6101.
 * @throws {DomainError} a value not above 0, or focused within the focal length
 * Source: ISO 517 practice; H = f^2/(N c) + f, near s(H-f)/(H+s-2f), far s(H-f)/(H-s).
 */
export function depthOfField(
  focalLengthM: number,
  fNumber: number,
  focusM: number,
  circleOfConfusionM: number,
): DepthOfField {
  requireDomain(
    focalLengthM > 0 && fNumber > 0 && circleOfConfusionM > 0,
    'focal length, f-number, circle above 0',
  );
  requireDomain(focusM > focalLengthM, 'the focus distance is longer than the focal length');
  const hyperfocal = focalLengthM ** 2 / (fNumber * circleOfConfusionM) + focalLengthM;
  const nearM = (focusM * (hyperfocal - focalLengthM)) / (hyperfocal + focusM - 2 * focalLengthM);
  const farM =
    focusM < hyperfocal
      ? (focusM * (hyperfocal - focalLengthM)) / (hyperfocal - focusM)
      : Number.POSITIVE_INFINITY;
  return { nearM, farM };
}
