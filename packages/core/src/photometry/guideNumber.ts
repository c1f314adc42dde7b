import { requireDomain } from '../errors.js';

/** Incident-light meter constant for a flat receptor, lx s at ISO 1. Source: ISO 2720:1974, 250 as used. */
export const METER_C_FLAT = 250;

/**
 * On-axis intensity times time of a flash from its guide number, cd s: C GN^2 / 100.
 * Far field: valid where the flash looks small. GN 40 gives 4000 cd s.
 * Source: ISO 1230 with C of ISO 2720.
 * @throws {DomainError} guide number not above 0
 */
export function intensityTimeFromGuideNumberCdS(guideNumberM: number): number {
  requireDomain(guideNumberM > 0, 'a guide number is above 0');
  return (METER_C_FLAT * guideNumberM ** 2) / 100;
}

/** The inverse: guide number, m at ISO 100, of an on-axis intensity times time. @throws {DomainError} */
export function guideNumberM(intensityTimeCdS: number): number {
  requireDomain(intensityTimeCdS >= 0, 'an intensity is not negative');
  return Math.sqrt((100 * intensityTimeCdS) / METER_C_FLAT);
}
