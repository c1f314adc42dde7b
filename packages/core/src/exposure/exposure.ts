import { requireDomain } from '../errors.js';
import { METER_C_FLAT } from '../photometry/guideNumber.js';

/** Reflected-light meter constant, cd s/m2 at ISO 1. Source: ISO 2720:1974, 12.5 within its range. */
export const METER_K = 12.5;
/** Incident-light meter constant for a dome receptor. Source: ISO 2720:1974, 330 as used. */
export const METER_C_DOME = 330;
/** Lens transmission, vignetting and cosine together. Source: ISO 12232:2019, q. */
export const LENS_Q = 0.65;
/** Focal-plane exposure that saturates the sensor, lx s at ISO 1. Source: ISO 12232:2019, 78/S. */
export const SATURATION_LX_S = 78;
/** Linear value the metered mid-tone is shown at. */
export const MID_TONE = 0.18;
/** Stops from the metered mid-tone to sensor clipping: log2(78 / (0.65 * 12.5)) = 3.26. */
export const CLIP_STOPS = Math.log2(SATURATION_LX_S / (LENS_Q * METER_K));
/** Stops from the metered mid-tone to paper white, linear 1: 2.47. */
export const PAPER_WHITE_STOPS = -Math.log2(MID_TONE);

export interface ExposureSettings {
  fNumber: number;
  shutterS: number;
  iso: number;
}

function requireSettings({ fNumber, shutterS, iso }: ExposureSettings): void {
  requireDomain(fNumber > 0 && shutterS > 0 && iso > 0, 'f-number, shutter and ISO are above 0');
}

/** Exposure value log2(N^2/t) of the settings alone, without ISO. Source: ISO 2720. @throws {DomainError} */
export function exposureValue(settings: ExposureSettings): number {
  requireSettings(settings);
  return Math.log2(settings.fNumber ** 2 / settings.shutterS);
}

/** The exposure value at ISO 100 that these settings are right for. @throws {DomainError} */
export function exposureValue100(settings: ExposureSettings): number {
  return exposureValue(settings) - Math.log2(settings.iso / 100);
}

/** Luminance, cd/m2, that a reflected-light meter answers with these settings. @throws {DomainError} */
export function meteredLuminanceCdM2(settings: ExposureSettings): number {
  return midToneExposureCdSM2(settings) / settings.shutterS;
}

/** Luminance times time, cd s/m2, recorded as mid-tone: K N^2 / S. @throws {DomainError} */
export function midToneExposureCdSM2(settings: ExposureSettings): number {
  requireSettings(settings);
  return (METER_K * settings.fNumber ** 2) / settings.iso;
}

/** Illuminance times time, lx s, that an incident meter answers with these settings: C N^2 / S. @throws {DomainError} */
export function incidentExposureLxS(settings: ExposureSettings, meterC = METER_C_FLAT): number {
  requireSettings(settings);
  return (meterC * settings.fNumber ** 2) / settings.iso;
}

/** Illuminance, lx, that an incident meter answers with these settings. @throws {DomainError} */
export function incidentIlluminanceLx(settings: ExposureSettings, meterC = METER_C_FLAT): number {
  return incidentExposureLxS(settings, meterC) / settings.shutterS;
}

/** Focal-plane exposure H = q L t / N_eff^2, lx s. Source: ISO 12232. @throws {DomainError} */
export function focalPlaneExposureLxS(luminanceTimeCdSM2: number, effectiveFNumber: number): number {
  requireDomain(effectiveFNumber > 0, 'the f-number is above 0');
  return (LENS_Q * luminanceTimeCdSM2) / effectiveFNumber ** 2;
}

/** Stops between two f-numbers at the same shutter; positive when the second passes less light. */
export function stopsBetweenFNumbers(from: number, to: number): number {
  requireDomain(from > 0 && to > 0, 'f-numbers are above 0');
  return 2 * Math.log2(to / from);
}
