import type { Light } from '@fendrix/contract';
import { timesOutput } from '../calibrate/applyCalibration.js';
import { createNormal } from './asItStands.js';
import { type Recorder, USUAL_RECORDER } from './recordFrame.js';

/**
 * What lamps, cameras and lenses are off their figures by, one deviation: tubes, cloths and capacitors age and differ, a dial is not
 * quite a stop to the stop, ISO is told to a third, each maker has a curve of his own. Usual spreads between pieces.
 */
export const PIECES_DIFFER = {
  outputStops: 0.25,
  givesPart: 0.025,
  /** Of the logarithm of the hot centre to base 2. */
  hotCentre: 0.3,
  temperatureK: 120,
  isoStops: 0.15,
  slope: 0.06,
  bend: 0.006,
  cornerStops: 0.2,
  veilPart: 0.004,
  meterStops: 0.05,
} as const;

/** A light as this piece of it really is: the same for the same seed and name. Its figures are those of the kit. */
export function ownLight(light: Light, seed: number): Light {
  const normal = createNormal(seed ^ hashOf(light.name));
  const by = 2 ** (PIECES_DIFFER.outputStops * normal());
  const gives = 1 + PIECES_DIFFER.givesPart * normal();
  const hotter = 2 ** (PIECES_DIFFER.hotCentre * normal());
  const warmer = PIECES_DIFFER.temperatureK * normal();
  const own = { ...light } as Extract<Light, { hotCentre: number }>;
  own.output = timesOutput(light.output, by) as typeof own.output;
  if (light.dial) own.dial = { ...light.dial, givesPart: (light.dial.givesPart ?? 1) * gives };
  if ('hotCentre' in light) own.hotCentre = Math.min(10, Math.max(1, light.hotCentre * hotter));
  if (light.colour) own.colour = { ...light.colour, temperatureK: light.colour.temperatureK + warmer };
  return own;
}

/**
 * A light of a set as this piece of it really is.
 * @param nominal the light in the kit by its figures before any calibration; those of the set where the kit has none of its name
 */
export function pieceOf(light: Light, nominal: Light | undefined, seed: number): Light {
  const figures = nominal?.kind === light.kind ? nominal : light;
  const own = ownLight({ ...figures, name: light.name } as Light, seed);
  const piece = { ...light, output: own.output } as Extract<Light, { hotCentre: number }>;
  if (own.dial) piece.dial = own.dial;
  else delete piece.dial;
  if ('hotCentre' in own && 'hotCentre' in piece) piece.hotCentre = own.hotCentre;
  if (light.colour && own.colour) piece.colour = { ...light.colour, temperatureK: own.colour.temperatureK };
  return piece;
}

/** A camera with its lens as this piece of them really is. */
export function ownRecorder(seed: number): Recorder {
  const normal = createNormal(seed ^ hashOf('camera'));
  return {
    ...USUAL_RECORDER,
    response: {
      isoStops: PIECES_DIFFER.isoStops * normal(),
      slope: 1 + PIECES_DIFFER.slope * normal(),
      bend: PIECES_DIFFER.bend * normal(),
    },
    cornerStops: Math.max(0.05, USUAL_RECORDER.cornerStops + PIECES_DIFFER.cornerStops * normal()),
    veilPart: Math.abs(0.005 + PIECES_DIFFER.veilPart * normal()),
  };
}

/** What this meter reads over the truth, stops. */
export const ownMeterStops = (seed: number): number =>
  PIECES_DIFFER.meterStops * createNormal(seed ^ hashOf('meter'))();

/** A number of a name. Source: FNV-1a. */
function hashOf(name: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < name.length; i++) hash = Math.imul(hash ^ name.charCodeAt(i), 0x01000193);
  return hash | 0;
}
