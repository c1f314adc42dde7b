import { requireDomain } from '../errors.js';

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
