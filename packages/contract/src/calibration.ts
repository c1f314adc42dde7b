import { z } from 'zod';
import { partOfWhole } from './partOfWhole.js';

const entryId = z.string().min(1).max(60);
const lengthOfTape = z.number().min(0.1).max(20);

/** What is read of a card: by a frame, or by a hand-held meter laid on it. */
export const cardReading = z
  .strictObject({
    id: z.string().min(1).max(160),
    light: entryId.describe('Entry of the kit that lights the card, alone'),
    distanceM: lengthOfTape.describe('From the middle of its front to the card, m'),
    powerStops: z.number().min(-20).max(0).describe('Power set on the head, stops from full'),
    fNumber: z.number().min(0.5).max(128),
    shutterS: z.number().min(1e-5).max(3600),
    iso: z.number().min(6).max(1e6),
    place: z
      .enum(['middle', 'corner', 'trap'])
      .default('middle')
      .describe(
        'middle and corner: where in the frame the card is; trap: a black hole in a card that fills the frame',
      ),
    rgb: z
      .tuple([partOfWhole(0), partOfWhole(0), partOfWhole(0)])
      .optional()
      .describe('Of a frame: what it holds there, sRGB values from 0 to 1'),
    luxSeconds: z
      .number()
      .min(1e-4)
      .max(1e7)
      .optional()
      .describe('Of a flat meter: light on the card over the exposure, lx s'),
    durationS: z
      .number()
      .min(1e-6)
      .max(1)
      .optional()
      .describe('Flash duration (t0.1) as measured at that power, s; by a meter that has it'),
    frame: z.string().max(200).optional().describe('Name of its file'),
  })
  .superRefine(({ rgb, luxSeconds }, problems) => {
    if ((rgb === undefined) === (luxSeconds === undefined))
      problems.addIssue({
        code: 'custom',
        path: ['rgb'],
        message: 'is of a frame, luxSeconds of a meter. Give one of them.',
      });
  })
  .describe('One reading of a card of known reflectance, lit by one light');

/** The hour in which a studio reads what its own lights, camera and lens give. */
export const calibrationHour = z
  .strictObject({
    body: entryId.describe('Camera body in the kit'),
    lens: entryId.describe('Lens in the kit'),
    focalLengthM: z.number().min(0.002).max(2),
    whiteBalanceK: z.number().min(1000).max(25000).default(5500),
    cardReflectance: partOfWhole(0.01).describe('Grey card 0.18, white card about 0.9'),
    lights: z.array(entryId).max(26).default([]).describe('Entries of the kit that are calibrated'),
    readings: z.array(cardReading).max(600).default([]),
  })
  .describe('Readings of a grey or white card, from which lights, camera and lens are calibrated');

export type CardReading = z.infer<typeof cardReading>;
export type CalibrationHour = z.infer<typeof calibrationHour>;

/** A fitted figure with one deviation. */
export interface Fitted {
  value: number;
  error: number;
}

/** What the readings say of one light, against its figures before. */
export interface FittedLight {
  entry: string;
  /** More light than by its figures, stops. */
  outputStops: Fitted;
  /** Stops of light that a stop of its dial gives; null where the readings do not tell, as with all that follow. */
  givesPart: Fitted | null;
  hotCentre: Fitted | null;
  temperatureK: Fitted | null;
  /** Of its flash, t0.1 at full power, s, and how it follows the power, see `duration` of a light. */
  durationFullS: Fitted | null;
  durationStopsPerStop: Fitted | null;
}

/** One reading against what was expected of it, stops. */
export interface ReadAgainst {
  reading: string;
  /** Read over expected, by the figures before and by the fitted ones. */
  beforeStops: number;
  afterStops: number;
  /** What a reading like this is sure to, one deviation. */
  sureStops: number;
}

/** What an hour of readings says. */
export interface Calibration {
  lights: FittedLight[];
  isoStops: Fitted | null;
  slope: Fitted | null;
  bend: Fitted | null;
  cornerStops: Fitted | null;
  veilPart: Fitted | null;
  /** What the meter reads over the truth, stops. */
  meterStops: Fitted | null;
  readings: ReadAgainst[];
}

/** Body of the question for a reading off the newest picture in the watched folder. */
export const newestCardBody = z.strictObject({
  place: cardReading.shape.place,
  after: z.string().max(40).optional().describe('Only what came after this time, ISO 8601'),
});

/** What a frame holds of a card. */
export interface CardOfFrame {
  frame: string;
  rgb: [number, number, number];
  /** Of its EXIF; null where it says nothing. */
  fNumber: number | null;
  shutterS: number | null;
  iso: number | null;
}

/** Body of the question for a card read by the stand-in camera or meter. */
export const standInCardBody = z.strictObject({
  hour: calibrationHour.omit({ readings: true }),
  by: z.enum(['frame', 'meter']),
  light: entryId,
  distanceM: lengthOfTape,
  powerStops: z.number().min(-20).max(0),
  fNumber: z.number().min(0.5).max(128),
  shutterS: z.number().min(1e-5).max(3600),
  iso: z.number().min(6).max(1e6),
  place: cardReading.shape.place,
});

export type StandInCard = z.input<typeof standInCardBody>;
