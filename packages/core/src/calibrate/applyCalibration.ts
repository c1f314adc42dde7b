import type { Calibration, FittedLight, LightOutput } from '@fendrix/contract';
import { PLAIN_RESPONSE } from '../exposure/response.js';
import type { KitLight } from '../plan/kitLight.js';

/** Figures of a light that can be taken over one by one. */
export const LIGHT_FIGURES = [
  'outputStops',
  'givesPart',
  'hotCentre',
  'temperatureK',
  'durationFullS',
  'durationStopsPerStop',
] as const;
export type LightFigure = (typeof LIGHT_FIGURES)[number];

/**
 * A light of the kit with what was found of it in place of its figures.
 * @param light as its figures were before  @param take which of them
 */
export function calibratedLight(
  light: KitLight,
  found: FittedLight,
  take: readonly LightFigure[] = LIGHT_FIGURES,
): KitLight {
  const has = (figure: LightFigure) => take.includes(figure) && found[figure] !== null;
  const own = { ...light } as KitLight;
  if (has('outputStops')) own.output = timesOutput(light.output, 2 ** found.outputStops.value);
  if (has('givesPart') && light.dial)
    own.dial = { ...light.dial, givesPart: rounded(found.givesPart?.value as number) };
  if (has('hotCentre') && 'hotCentre' in own)
    own.hotCentre = Math.max(1, rounded(found.hotCentre?.value as number));
  if (has('temperatureK') && light.colour)
    own.colour = { ...light.colour, temperatureK: Math.round(found.temperatureK?.value as number) };
  const { duration } = light;
  if (has('durationFullS') || (duration && has('durationStopsPerStop')))
    own.duration = {
      fullS: has('durationFullS')
        ? rounded(found.durationFullS?.value as number)
        : (duration?.fullS as number),
      stopsPerStop: has('durationStopsPerStop')
        ? rounded(found.durationStopsPerStop?.value as number)
        : (duration?.stopsPerStop ?? 0),
    };
  return own;
}

/** An output that gives so many times as much. What leaves a modifier is laid to it, where it takes anything. */
export function timesOutput(output: LightOutput, by: number): LightOutput {
  switch (output.kind) {
    case 'flash-energy': {
      const efficiency = output.modifierEfficiency < 1 ? modifierTimes(output.modifierEfficiency, by) : 1;
      const rest = (by * output.modifierEfficiency) / efficiency;
      return {
        ...output,
        modifierEfficiency: rounded(efficiency),
        efficacyLmSPerJ: rounded(output.efficacyLmSPerJ * rest),
      };
    }
    case 'lumens': {
      const efficiency = output.modifierEfficiency < 1 ? modifierTimes(output.modifierEfficiency, by) : 1;
      const rest = (by * output.modifierEfficiency) / efficiency;
      return { ...output, modifierEfficiency: rounded(efficiency), lumens: rounded(output.lumens * rest) };
    }
    case 'guide-number':
      return { ...output, guideNumberM: rounded(output.guideNumberM * Math.sqrt(by)) };
    case 'flash-exposure':
      return { ...output, luxSecondsAt1M: rounded(output.luxSecondsAt1M * by) };
    case 'illuminance':
      return { ...output, luxAt1M: rounded(output.luxAt1M * by) };
    case 'luminance':
      return { ...output, luminanceCdM2: rounded(output.luminanceCdM2 * by) };
  }
}

const modifierTimes = (efficiency: number, by: number) => Math.min(1, Math.max(0.001, efficiency * by));

/** To four figures: more are not known. */
const rounded = (value: number) => Number(value.toPrecision(4));

/** How a body records, by what was found; null where nothing was. */
export function calibratedResponse({ isoStops, slope, bend }: Calibration) {
  if (!isoStops && !slope && !bend) return null;
  return {
    isoStops: rounded(isoStops?.value ?? PLAIN_RESPONSE.isoStops),
    slope: rounded(slope?.value ?? PLAIN_RESPONSE.slope),
    bend: rounded(bend?.value ?? PLAIN_RESPONSE.bend),
  };
}

/** What a lens takes and adds, by what was found; null where nothing was. */
export function calibratedLosses({ cornerStops, veilPart }: Calibration) {
  if (!cornerStops && !veilPart) return null;
  return {
    cornerStops: Math.max(0, rounded(cornerStops?.value ?? 0)),
    veilPart: Math.max(0, rounded(veilPart?.value ?? 0)),
  };
}
