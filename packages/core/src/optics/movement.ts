import type { Camera, Light } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { lensFigures } from './lens.js';

/** Standard gravity, m/s2. */
const GRAVITY = 9.80665;

/**
 * Speed of a falling stream or grain after a fall, m/s: sqrt(v0^2 + 2 g h). 0.1 m from rest: 1.40 m/s.
 * Limits: no drag, which slows crumbs and flour by a tenth in half a metre; thick syrup falls slower at first.
 * @throws {DomainError} a height or speed below 0
 */
export function fallSpeedMS(fallM: number, startMS = 0): number {
  requireDomain(fallM >= 0 && startMS >= 0, 'height and speed are not negative');
  return Math.sqrt(startMS ** 2 + 2 * GRAVITY * fallM);
}

export interface MotionBlur {
  /** At the thing, m, and in sensor pixels. */
  blurM: number;
  pixels: number;
}

/** Blur of something that crosses the lens axis at a speed, in focus, in a time. */
export function motionBlur(camera: Camera, speedMS: number, timeS: number): MotionBlur {
  const { magnification, pixelPitchM } = lensFigures(camera);
  const blurM = speedMS * timeS;
  return { blurM, pixels: (blurM * magnification) / pixelPitchM };
}

/** Longest time that keeps a movement within so many pixels, s. */
export function freezingTimeS(camera: Camera, speedMS: number, pixels: number): number {
  return pixels / motionBlur(camera, speedMS, 1).pixels;
}

/**
 * Flash duration t0.1 at a power, s: that at full power times 2^(k p), p the power in stops from full; k above 0 for
 * flashes that are switched off early, below 0 for heads set by their voltage.
 * @returns null for a light whose duration is not known
 */
export function flashDurationS(light: Light, powerStops = light.powerStops): number | null {
  const duration = 'duration' in light ? light.duration : undefined;
  return duration ? duration.fullS * 2 ** (duration.stopsPerStop * powerStops) : null;
}

/** t0.5 of an exponential tail from its t0.1: a third, ln 2 / ln 10. */
export const halfDurationS = (t01S: number): number => (t01S * Math.LN2) / Math.LN10;

/** Words for how a movement looks, by its blur on the sensor. */
export function lookOfBlur(pixels: number): 'frozen' | 'just soft' | 'smeared' | 'flowing' {
  if (pixels <= 2) return 'frozen';
  if (pixels <= 8) return 'just soft';
  return pixels <= 60 ? 'smeared' : 'flowing';
}

/**
 * Chance that one try holds the wanted moment: frames spread over the movement, each hitting a window of it.
 * 1 - (1 - w/T)^n for n frames at times that nobody controls.
 * @param lastsS the whole movement  @param windowS the part of it that is wanted  @param frames in one try
 * @throws {DomainError} a time not above 0, or no frame
 */
export function chanceOfMoment(lastsS: number, windowS: number, frames: number): number {
  requireDomain(lastsS > 0 && windowS > 0 && frames >= 1, 'times above 0 and at least one frame');
  return 1 - (1 - Math.min(1, windowS / lastsS)) ** frames;
}

/**
 * Tries that succeed at least once with a confidence: ceil(ln(1 - c) / ln(1 - p)); p 0.2, c 0.9: 11.
 * @throws {DomainError} a chance not within 0 to 1, or a confidence not below 1
 */
export function triesFor(chance: number, confidence: number): number {
  requireDomain(chance > 0 && chance <= 1, 'a chance is above 0 and at most 1');
  requireDomain(confidence > 0 && confidence < 1, 'a confidence lies between 0 and 1');
  return chance === 1 ? 1 : Math.max(1, Math.ceil(Math.log(1 - confidence) / Math.log(1 - chance)));
}
