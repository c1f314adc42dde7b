import type { Camera } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { AIRY_WAVELENGTH_M, type DepthCamera, depthOfField, lensFigures } from './lens.js';

/** Blur of one point, diameters on the sensor, m. */
export interface PointBlur {
  defocusM: number;
  diffractionM: number;
  /** Root of the sum of squares. */
  totalM: number;
  /** Total over the pixel pitch. */
  pixels: number;
}

/**
 * Blur disc of a point at a depth in front of the entrance pupil.
 * Defocus: pupil f/N times magnification times |depth - focus| / depth; diffraction: Airy disc at the effective f-stop.
 * Limits: thin lens with pupil ratio; no aberrations.
 * @throws {DomainError} depth not above 0
 * Source: docs/physics/camera.md
 */
export function pointBlur(camera: DepthCamera, depthM: number): PointBlur {
  requireDomain(depthM > 0, 'the point lies before the lens');
  const { magnification, effectiveFNumber, pixelPitchM } = lensFigures(camera);
  const pupilM = camera.lens.focalLengthM / camera.fNumber;
  const defocusM = (pupilM * magnification * Math.abs(depthM - camera.focusM)) / depthM;
  const diffractionM = 2.44 * AIRY_WAVELENGTH_M * effectiveFNumber;
  const totalM = Math.hypot(defocusM, diffractionM);
  return { defocusM, diffractionM, totalM, pixels: totalM / pixelPitchM };
}

/**
 * Circle of confusion from what will be looked at: one pixel of the picture as delivered, never finer than the sensor.
 * @param cropPixels sensor pixels across the crop  @param outputPixels pixels across the picture delivered
 */
export function circleOfConfusionM(body: Camera['body'], cropPixels: number, outputPixels: number): number {
  requireDomain(cropPixels > 0 && outputPixels > 0, 'pixels above 0');
  return (body.sensorWidthM / body.pixelsWide) * Math.max(1, cropPixels / outputPixels);
}

/** Focus that blurs a nearest and a farthest depth alike: their harmonic mean. */
export const focusBetween = (nearM: number, farM: number): number => (2 * nearM * farM) / (nearM + farM);

export interface StopChoice {
  fNumber: number;
  /** Worst blur from front to back, pixels, and its parts at that end, m. */
  worst: PointBlur;
}

/**
 * Worst blur between two depths for each f-stop, focused between them; the smallest of them is the sharpest stop.
 * The worst lies at an end, since defocus grows from the focus outwards.
 */
export function sharpestStop(
  camera: DepthCamera,
  nearM: number,
  farM: number,
  stops: readonly number[],
): { best: StopChoice; curve: StopChoice[] } {
  requireDomain(
    stops.length > 0 && nearM > 0 && farM >= nearM,
    'f-stops, and a near depth before the far one',
  );
  const focusM = focusBetween(nearM, farM);
  const curve = stops.map((fNumber): StopChoice => {
    const set = { ...camera, focusM, fNumber };
    const ends = [pointBlur(set, nearM), pointBlur(set, farM)] as const;
    return { fNumber, worst: ends[0].totalM >= ends[1].totalM ? ends[0] : ends[1] };
  });
  const best = curve.reduce((least, choice) => (choice.worst.totalM < least.worst.totalM ? choice : least));
  return { best, curve };
}

export interface FocusStack {
  /** Focus distances from near to far, m. */
  positionsM: number[];
  /** Depth that each frame holds, at the first and last position, m. */
  firstDepthM: number;
  lastDepthM: number;
  minutes: number;
}

/** More frames than this are no plan. */
const MOST_FRAMES = 500;

/**
 * Focus positions that hold everything between two depths within a circle of confusion, each overlapping the last.
 * Exact depth of field at each position, so steps grow with distance.
 * @param overlap part of each frame's depth that the next one covers again, 0 to below 1
 * @returns null where it takes more than 500 frames
 * @throws {DomainError}
 */
export function focusStack(
  camera: DepthCamera,
  nearM: number,
  farM: number,
  circleM: number,
  overlap: number,
  secondsPerFrame: number,
): FocusStack | null {
  requireDomain(
    nearM > 0 && farM > nearM && circleM > 0,
    'a near depth before the far one, a circle above 0',
  );
  requireDomain(overlap >= 0 && overlap < 1, 'overlap from 0 to below 1');
  const depthAt = (focusM: number) => depthOfField({ ...camera, focusM }, circleM);
  const positionsM: number[] = [];
  let from = nearM;
  let firstDepthM = 0;
  let lastDepthM = 0;
  while (positionsM.length < MOST_FRAMES) {
    const focusM = focusWithNear(from, farM, depthAt);
    const held = depthAt(focusM);
    const depthM = held.farM - held.nearM;
    if (positionsM.length === 0) firstDepthM = depthM;
    lastDepthM = depthM;
    positionsM.push(focusM);
    if (held.farM >= farM) {
      return { positionsM, firstDepthM, lastDepthM, minutes: (positionsM.length * secondsPerFrame) / 60 };
    }
    from = held.farM - overlap * depthM;
  }
  return null;
}

/** The focus whose depth of field starts at a depth. */
function focusWithNear(fromM: number, farM: number, depthAt: (focusM: number) => { nearM: number }): number {
  let low = fromM;
  let high = Math.max(2 * farM, 2 * fromM);
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (depthAt(middle).nearM <= fromM) low = middle;
    else high = middle;
  }
  return low;
}

/** Disc of a point behind the plane of focus, part of the frame's width. */
export function backgroundBlur(camera: DepthCamera, behindFocusM: number): number {
  return pointBlur(camera, camera.focusM + behindFocusM).defocusM / camera.body.sensorWidthM;
}

/**
 * Slowest shutter for the hand, s: that of the body with a 50 mm lens at a distance, shorter in proportion to focal
 * length and to 1 + magnification. A rule of thumb; a tripod with self-timer or remote below it.
 */
export function handHeldShutterS(camera: DepthCamera, at50mmS: number): number {
  const { magnification } = lensFigures(camera);
  return (at50mmS * 0.05) / (camera.lens.focalLengthM * (1 + magnification));
}
