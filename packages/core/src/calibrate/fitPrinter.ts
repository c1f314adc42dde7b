import type { PrintedWedge, PrinterTone } from '@fendrix/contract';
import { decodeSrgb, encodeSrgb } from '../exposure/display.js';
import { linearOfRecorded, PLAIN_RESPONSE, type Response } from '../exposure/response.js';

/** Values of the patches of the printed wedge, of 255: from solid ink to bare paper. */
export const WEDGE_GREYS = [0, 26, 51, 77, 102, 128, 153, 179, 204, 230, 255] as const;

/** A mean of a patch read off a file, of 255, one deviation; and how even patches of one value are printed and lit, part. */
const READ_TO = 0.4;
const EVEN_TO = 0.005;
/** Fewer patches tell no curve. */
export const FEWEST_PATCHES = 3;

/** What a printed wedge says. */
export interface PrinterFit {
  /** From solid ink to bare paper, never darker where a brighter value was printed. */
  tones: PrinterTone[];
  /** How much more light the upper row had than the lower, and the right end than the left, stops: taken out. */
  upperStops: number;
  rightStops: number;
  /** Each patch as read, against the curve, stops. */
  residualStops: number[];
}

/**
 * The tone curve of a printer: what each printed value sends back. The same wedge is printed in two rows that run against each other, so light that
 * falls off across the sheet shows as a slope of their ratio, and is taken out; what is left of it says how sure a patch is. The rest is isotonic
 * regression (pool adjacent violators; Barlow 1972), which asks for no form of the curve.
 * Limits: greys; light that falls off evenly; the card lies between the two rows, in the middle.
 * @param response of the camera by its own calibration
 * @returns null where too few patches were read, or the card shows nothing
 */
export function fitPrinter(
  { patches, card, cardReflectance }: PrintedWedge,
  response: Pick<Response, 'slope' | 'bend'> = PLAIN_RESPONSE,
): PrinterFit | null {
  const light = (value: number) => linearOfRecorded(decodeSrgb(value / 255), response);
  const ordered = [...patches].sort((a, b) => a.grey - b.grey);
  const whole = light(card);
  if (ordered.length < FEWEST_PATCHES || !(whole > 0)) return null;
  if (ordered.some(({ upper, lower }) => !(light(upper) > 0 && light(lower) > 0))) return null;
  const last = ordered.length - 1;
  // In the upper row a patch lies so far right of the middle, in the lower one as far left: -1 to 1.
  const across = ordered.map((_, i) => (2 * i) / last - 1);
  const ratios = ordered.map(({ upper, lower }) => Math.log2(light(upper) / light(lower)));
  const row = mean(ratios);
  const slope =
    ratios.reduce((sum, ratio, i) => sum + ratio * (across[i] as number), 0) /
    across.reduce((sum, at) => sum + at * at, 0);
  const left = ratios.map((ratio, i) => ratio - row - slope * (across[i] as number));
  const scatter = Math.sqrt(left.reduce((sum, value) => sum + value * value, 0) / Math.max(1, last - 1)) / 2;
  const read = ordered.map(({ grey, upper, lower }): PrinterTone => {
    const reflectance = (cardReflectance * Math.sqrt(light(upper) * light(lower))) / whole;
    const middle = (upper + lower) / 2;
    const step = light(Math.min(255, middle + READ_TO)) / light(middle) - 1;
    const part = Math.hypot(scatter * Math.LN2, step / Math.SQRT2, EVEN_TO);
    return { grey, reflectance, error: reflectance * part };
  });
  const tones = rising(read);
  return {
    tones,
    upperStops: row,
    rightStops: slope,
    residualStops: tones.map(({ reflectance }, i) =>
      Math.log2((read[i] as PrinterTone).reflectance / reflectance),
    ),
  };
}

/** Neighbours that fall where they should rise are taken together, by how sure each is. */
function rising(read: readonly PrinterTone[]): PrinterTone[] {
  const pools: { members: PrinterTone[]; reflectance: number; weight: number }[] = [];
  for (const one of read) {
    pools.push({ members: [one], reflectance: one.reflectance, weight: 1 / one.error ** 2 });
    for (;;) {
      const [before, own] = [pools.at(-2), pools.at(-1)];
      if (!before || !own || before.reflectance <= own.reflectance) break;
      const weight = before.weight + own.weight;
      pools.splice(-2, 2, {
        members: [...before.members, ...own.members],
        reflectance: (before.weight * before.reflectance + own.weight * own.reflectance) / weight,
        weight,
      });
    }
  }
  return pools.flatMap(({ members, reflectance, weight }) =>
    members.map(({ grey, error }) => ({
      grey,
      reflectance: Math.min(1, reflectance),
      error: members.length > 1 ? Math.sqrt(1 / weight) : error,
    })),
  );
}

/** What a printed value sends back: between the patches even steps to the eye (sRGB). */
export function printedReflectance(tones: readonly PrinterTone[], grey: number): number {
  return decodeSrgb(
    between(
      tones.map((one) => one.grey),
      tones.map(({ reflectance }) => encodeSrgb(reflectance)),
      grey,
    ),
  );
}

/** The value to print for a reflectance, of 255; null where ink is not as dark, or paper not as bright. */
export function greyToPrint(tones: readonly PrinterTone[], reflectance: number): number | null {
  const shown = tones.map((one) => encodeSrgb(one.reflectance));
  const wanted = encodeSrgb(reflectance);
  if (wanted < (shown[0] as number) || wanted > (shown.at(-1) as number)) return null;
  return between(
    shown,
    tones.map(({ grey }) => grey),
    wanted,
  );
}

/** Along a line of points whose `x` never falls; beyond its ends as at them. */
function between(x: readonly number[], y: readonly number[], at: number): number {
  const above = x.findIndex((value) => value >= at);
  if (above < 0) return y.at(-1) as number;
  if (above === 0) return y[0] as number;
  const [x0, x1] = [x[above - 1] as number, x[above] as number];
  const [y0, y1] = [y[above - 1] as number, y[above] as number];
  return x1 > x0 ? y0 + ((at - x0) / (x1 - x0)) * (y1 - y0) : y1;
}

const mean = (values: readonly number[]): number =>
  values.reduce((sum, value) => sum + value, 0) / values.length;
