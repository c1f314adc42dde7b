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
export function lensFigures(camera: DepthCamera): LensFigures {
  const { focalLengthM, pupilRatio } = camera.lens;
  const magnification = magnificationOf(camera.lens, camera.focusM);
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
  /** From the entrance pupil, m. */
  nearM: number;
  /** Infinity from the hyperfocal distance on. */
  farM: number;
}

/** What depth arithmetic needs of a camera: the rest of it plays no part. */
export type DepthCamera = Pick<Camera, 'body' | 'lens' | 'focusM' | 'fNumber'>;

/**
 * Nearest and farthest depth drawn sharper than a circle of confusion, m from the entrance pupil.
 * Exact inverse of the defocus of `pointBlur`: with k = c N / (f m), near s/(1 + k), far s/(1 - k). At a pupil ratio of 1 this
 * is near s(H - f)/(H + s - 2f), far s(H - f)/(H - s), H = f^2/(N c) + f. 100 mm f/11 at 0.6 m, c 0.03 mm: 0.5903 to 0.6101.
 * Limits: thin lens with pupil ratio; no aberrations, no diffraction.
 * @throws {DomainError} a value not above 0, or focused closer than the lens can form an image
 * Source: ISO 517 practice; docs/physics/camera.md
 */
export function depthOfField(
  { lens, fNumber, focusM }: Pick<DepthCamera, 'lens' | 'fNumber' | 'focusM'>,
  circleOfConfusionM: number,
): DepthOfField {
  requireDomain(fNumber > 0 && circleOfConfusionM > 0, 'f-number and circle above 0');
  const share = (circleOfConfusionM * fNumber) / (lens.focalLengthM * magnificationOf(lens, focusM));
  return {
    nearM: focusM / (1 + share),
    farM: share < 1 ? focusM / (1 - share) : Number.POSITIVE_INFINITY,
  };
}

/** Image over object size in the plane of focus, m = f / (s - f/p). */
function magnificationOf({ focalLengthM, pupilRatio }: Camera['lens'], focusM: number): number {
  requireDomain(
    focalLengthM > 0 && focusM > focalLengthM / pupilRatio,
    'the focus distance is longer than the focal length over the pupil ratio',
  );
  return focalLengthM / (focusM - focalLengthM / pupilRatio);
}
