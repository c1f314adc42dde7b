import type { CalibrationHour, CardReading } from '@fendrix/contract';
import { METER_K } from '../exposure/exposure.js';
import { type LensLosses, type Response, recordedStops } from '../exposure/response.js';
import { lightLuminance, onAxisLx } from '../photometry/output.js';
import type { KitLight } from '../plan/kitLight.js';
import { TRAP_REFLECTANCE } from './cardSet.js';

/** What a card is lit by, apart from what the light gives: of the room, over what comes straight, by the distance of the light. */
export type RoomShare = (entry: string, distanceM: number) => number;

/** A light as it is taken to be: figures of the kit, and what they are off by. */
export interface LightTaken {
  light: KitLight;
  /** More light than by its figures, stops. */
  outputStops: number;
  givesPart: number;
  hotCentre: number | null;
}

/** A camera, its lens, and the meter, as they are taken to be. */
export interface RecorderTaken extends Response, LensLosses {
  /** What the meter reads over the truth, stops. */
  meterStops: number;
}

/** Part of a frame, by its light, that the card fills where it stands in a corner: the rest of the frame is dark. */
const FILLED_IN_CORNER = 0.3;
/** The card in a corner has its middle here: square of its distance from the middle of the frame, 1 in the very corner. */
export const CORNER_R2 = 0.64;

/** Light on the card over an exposure, lx s. */
export function lightOnCard(
  { light, outputStops, givesPart, hotCentre }: LightTaken,
  reading: Pick<CardReading, 'distanceM' | 'powerStops' | 'shutterS'>,
  roomShare: number,
): number {
  const taken: KitLight = {
    ...light,
    powerStops: 0,
    ...(hotCentre !== null && 'hotCentre' in light ? { hotCentre } : {}),
  } as KitLight;
  const { luminance, time } = lightLuminance(taken);
  const straight = luminance * 2 ** (outputStops + givesPart * reading.powerStops) * axisLx(taken, reading);
  return straight * (1 + roomShare) * (time === 'continuous' ? reading.shutterS : 1);
}

const axisLx = (light: KitLight, { distanceM }: Pick<CardReading, 'distanceM'>) =>
  onAxisLx(light as Parameters<typeof onAxisLx>[0], distanceM);

/** Stops from mid-tone that light on a card is by the settings of a camera, as its ISO says. */
export function cardStops(
  luxSeconds: number,
  reflectance: number,
  { fNumber, iso }: Pick<CardReading, 'fNumber' | 'iso'>,
): number {
  return Math.log2((luxSeconds * reflectance * iso) / (Math.PI * METER_K * fNumber ** 2));
}

/**
 * What is expected of a reading, stops: of a meter, over 1 lx s; of a frame, what its file holds there, from mid-tone.
 * Limits: the card is matte, the lens is focused far off, the frame of a trap is filled by the card.
 */
export function expectedReading(
  reading: CardReading,
  { cardReflectance }: Pick<CalibrationHour, 'cardReflectance'>,
  light: LightTaken,
  recorder: RecorderTaken,
  roomShare: number,
): number {
  const luxSeconds = lightOnCard(light, reading, roomShare);
  if (reading.luxSeconds !== undefined) return Math.log2(luxSeconds) + recorder.meterStops;
  const onCard = 2 ** (cardStops(luxSeconds, cardReflectance, reading) + recorder.isoStops);
  const { cornerStops, veilPart } = recorder;
  const seen = {
    middle: 1 + veilPart,
    corner: 2 ** (-cornerStops * CORNER_R2) + veilPart * FILLED_IN_CORNER,
    trap: TRAP_REFLECTANCE / cardReflectance + veilPart,
  }[reading.place];
  return recordedStops(Math.log2(onCard * seen), recorder);
}
