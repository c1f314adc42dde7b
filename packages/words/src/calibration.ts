import type { Calibration, Fitted } from '@fendrix/contract';
import {
  F_NUMBERS,
  formatPower,
  type HourStep,
  ISO_SPEEDS,
  type LightFigure,
  printedSetting,
  SHUTTERS,
} from '@fendrix/core';

/** What is to be done at a step of the hour. */
export function hourStepWords(
  step: HourStep,
  light: string,
): { title: string; how: string; settings: string } {
  const away = `${step.distanceM.toFixed(2)} m from the middle of its front to the card`;
  const at = `${light}, power ${formatPower(step.powerStops)}, ${away}.`;
  const how = {
    output: 'The card faces the light and fills the middle of the frame.',
    meter: 'Hold the meter flat on the card, facing the light.',
    dial: 'Only the dial is turned; nothing else is touched.',
    distance: 'Move the light, straight towards the card or away from it, and turn nothing.',
    curve: 'Only f-stop and ISO are changed.',
    corner:
      'Turn the camera until the card is in the upper left corner of the frame, a tenth from its edges.',
    veil: 'Put the card with the black trap in its middle before the lens, so near that it fills the frame.',
  }[step.for];
  const settings = `f/${printedSetting(F_NUMBERS, step.fNumber)}, ${printedSetting(SHUTTERS, step.shutterS)} s, ISO ${printedSetting(ISO_SPEEDS, step.iso)}`;
  return { title: at, how, settings };
}

/** What a step is for, in a word or two. */
export const hourStepName = ({ for: what }: Pick<HourStep, 'for'>): string =>
  ({
    output: 'what it gives',
    meter: 'by the meter',
    dial: 'its dial',
    distance: 'another distance',
    curve: 'how the camera records',
    corner: 'corners of the lens',
    veil: 'veil of the lens',
  })[what];

/** A figure of a light as found, with how sure it is. */
export function lightFigureWords(figure: LightFigure, { value, error }: Fitted): string {
  switch (figure) {
    case 'outputStops':
      return `${signed(value, 2)} ± ${error.toFixed(2)} stops`;
    case 'givesPart':
      return `${value.toFixed(3)} ± ${error.toFixed(3)} stops a stop of its dial`;
    case 'hotCentre':
      return `${value.toFixed(2)} ± ${error.toFixed(2)}, centre over edge`;
    case 'durationFullS':
      return `1/${Math.round(1 / value)} s ± ${Math.max(1, Math.round((100 * error) / value))} %`;
    case 'durationStopsPerStop':
      return `${signed(value, 2)} ± ${error.toFixed(2)} stops a stop of power`;
    case 'temperatureK':
      return `${Math.round(value / 10) * 10} ± ${Math.max(10, Math.round(error / 10) * 10)} K`;
  }
}

export const lightFigureName = (figure: LightFigure): string =>
  ({
    outputStops: 'Gives more',
    givesPart: 'Dial',
    hotCentre: 'Hot centre',
    temperatureK: 'Colour',
    durationFullS: 'Flash duration, full power',
    durationStopsPerStop: 'It follows the power',
  })[figure];

/** What was found of camera, lens and meter: name, words; null where the readings do not tell. */
export function recorderWords(
  found: Calibration,
): { of: 'body' | 'lens' | 'meter'; name: string; words: string | null }[] {
  const row = (
    of: 'body' | 'lens' | 'meter',
    name: string,
    fitted: Fitted | null,
    words: (value: string, error: string) => string,
    digits = 2,
    sign = false,
  ) => ({
    of,
    name,
    words:
      fitted &&
      words(sign ? signed(fitted.value, digits) : fitted.value.toFixed(digits), fitted.error.toFixed(digits)),
  });
  return [
    row('body', 'More than its ISO says', found.isoStops, (v, e) => `${v} ± ${e} stops`, 2, true),
    row('body', 'Contrast at mid-tone', found.slope, (v, e) => `${v} ± ${e} stops a stop of light`, 3),
    row('body', 'Bend of its curve', found.bend, (v, e) => `${v} ± ${e} a stop`, 4, true),
    row('lens', 'Corners under the middle', found.cornerStops, (v, e) => `${v} ± ${e} stops`),
    row(
      'lens',
      'Veil',
      found.veilPart && percent(found.veilPart),
      (v, e) => `${v} ± ${e} % of the frame's light`,
    ),
    row('meter', 'Meter over the truth', found.meterStops, (v, e) => `${v} ± ${e} stops`, 2, true),
  ];
}

const percent = ({ value, error }: Fitted): Fitted => ({ value: 100 * value, error: 100 * error });

function signed(value: number, digits: number): string {
  const text = Math.abs(value).toFixed(digits);
  return Number(text) === 0 ? text : `${value < 0 ? '−' : '+'}${text}`;
}

/** The cautions of an hour with lights at full power. */
export const HOUR_CAUTIONS =
  'Full power from near: do not look into the light, and keep people who are sensitive to flashes away. Let lamps cool before a modifier is taken off; modelling lamps of more than its cloth allows stay off. Weigh down each stand.';
