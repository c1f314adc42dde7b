import { requireDomain } from '../errors.js';
import { METER_C_FLAT } from './exposure.js';

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

export interface AmbientShare {
  /** Ambient under flash, stops; -Infinity without ambient, Infinity without flash. */
  stops: number;
  /** Of the whole exposure, 0 to 1; null when there is no light at all. */
  fraction: number | null;
}

/** Share of the continuous light in an exposure. @throws {DomainError} an exposure is not >= 0 */
export function ambientShare(continuousLxS: number, flashLxS: number): AmbientShare {
  requireDomain(continuousLxS >= 0 && flashLxS >= 0, 'exposures are not negative');
  const total = continuousLxS + flashLxS;
  return {
    stops: Math.log2(continuousLxS / flashLxS),
    fraction: total > 0 ? continuousLxS / total : null,
  };
}

/** Power below full as on a head: 0 is "1/1", -2 is "1/4", -1/3 is "1/1 −0.3". */
export function formatPower(powerStops: number): string {
  const whole = Math.ceil(powerStops - 1e-9);
  const rest = powerStops - whole;
  const fraction = `1/${2 ** -whole}`;
  return Math.abs(rest) < 0.05 ? fraction : `${fraction} −${Math.abs(rest).toFixed(1)}`;
}
