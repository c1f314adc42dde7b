import type { CameraLens } from '@fendrix/contract';
import { requireDomain } from '../errors.js';

/** One setting of a dial: its printed figure and its true value, a whole number of third stops. */
export interface DialStep {
  printed: string;
  value: number;
}

/** Printed third-stop f-numbers from f/1; true value 2^(i/6). Source: ISO 517 and usual engraving. */
const PRINTED_F =
  '1 1.1 1.2 1.4 1.6 1.8 2 2.2 2.5 2.8 3.2 3.5 4 4.5 5 5.6 6.3 7.1 8 9 10 11 13 14 16 18 20 22 25 29 32 36 40 45 51 57 64'.split(
    ' ',
  );
/** Printed third-stop shutters from 1/8000 s to 30 s; true value 2^(i/3 - 13). */
const PRINTED_T =
  '1/8000 1/6400 1/5000 1/4000 1/3200 1/2500 1/2000 1/1600 1/1250 1/1000 1/800 1/640 1/500 1/400 1/320 1/250 1/200 1/160 1/125 1/100 1/80 1/60 1/50 1/40 1/30 1/25 1/20 1/15 1/13 1/10 1/8 1/6 1/5 1/4 0.3 0.4 0.5 0.6 0.8 1 1.3 1.6 2 2.5 3.2 4 5 6 8 10 13 15 20 25 30'.split(
    ' ',
  );
/** Printed third-stop sensitivities from ISO 50. Source: ISO 12232 table of reported speeds. */
const PRINTED_S =
  '50 64 80 100 125 160 200 250 320 400 500 640 800 1000 1250 1600 2000 2500 3200 4000 5000 6400 8000 10000 12800 16000 20000 25600'.split(
    ' ',
  );

export const F_NUMBERS: readonly DialStep[] = PRINTED_F.map((printed, i) => ({
  printed,
  value: 2 ** (i / 6),
}));
export const SHUTTERS: readonly DialStep[] = PRINTED_T.map((printed, i) => ({
  printed,
  value: 2 ** (i / 3 - 13),
}));
export const ISO_SPEEDS: readonly DialStep[] = PRINTED_S.map((printed, i) => ({
  printed,
  value: 100 * 2 ** (i / 3 - 1),
}));

/** f-stops that a lens has: all of the series where its limits are not known. */
export function fStopsOf({
  widestFNumber = 0,
  smallestFNumber = Number.POSITIVE_INFINITY,
}: Pick<CameraLens, 'widestFNumber' | 'smallestFNumber'>): readonly DialStep[] {
  // Printed and true figures differ by up to 4 %.
  return F_NUMBERS.filter(({ value }) => value > widestFNumber * 0.95 && value < smallestFNumber * 1.05);
}

/** Index of the dial step nearest to a value, in stops. @throws {DomainError} value not above 0 */
export function nearestStep(dial: readonly DialStep[], value: number): number {
  requireDomain(value > 0, 'a setting is above 0');
  let best = 0;
  let least = Number.POSITIVE_INFINITY;
  dial.forEach((step, index) => {
    const gap = Math.abs(Math.log2(step.value / value));
    if (gap < least) {
      least = gap;
      best = index;
    }
  });
  return best;
}

/** The printed figure of a value on a dial, or the plain value when it lies between two steps. */
export function printedSetting(dial: readonly DialStep[], value: number): string {
  const step = dial[nearestStep(dial, value)];
  if (step && Math.abs(Math.log2(step.value / value)) < 0.09) return step.printed;
  return value >= 1 ? String(Number(value.toPrecision(3))) : `1/${Number((1 / value).toPrecision(3))}`;
}
