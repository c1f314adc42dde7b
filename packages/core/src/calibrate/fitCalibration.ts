import type { Calibration, CalibrationHour, CardReading, Fitted } from '@fendrix/contract';
import { miredOf } from '../colour/whitePoint.js';
import { decodeSrgb, luminanceOf } from '../exposure/display.js';
import { MID_TONE } from '../exposure/exposure.js';
import { linearOfRecorded } from '../exposure/response.js';
import type { KitLight } from '../plan/kitLight.js';
import { solveLinear } from '../units/solveLinear.js';
import { expectedReading, type LightTaken, type RecorderTaken, type RoomShare } from './expectedReading.js';
import { fitDuration } from './fitDuration.js';

/** What is taken to be likely before anything is read: as the figures say, give or take one deviation of it. */
export const LIKELY_OFF = {
  outputStops: 0.4,
  givesPart: 0.04,
  /** Of its logarithm to base 2. */
  hotCentre: 0.4,
  isoStops: 0.3,
  slope: 0.12,
  bend: 0.012,
  /** Of a corner as a usual lens has, and of its veil. */
  cornerStops: 0.4,
  veilPart: 0.01,
  meterStops: 0.1,
} as const;

const USUAL_CORNER_STOPS = 0.35;
const USUAL_VEIL_PART = 0.005;

/** What a reading is sure to: a tape to 5 mm, a dial and a flash from pop to pop to a fiftieth of a stop, meters and files alike. */
export const READ_TO = { tapeM: 0.005, powerStops: 0.02, meterStops: 0.02, frameStops: 0.015, trapPart: 0.2 };
/** A reading that is off by so many of its deviations counts as far as its square root (Huber 1964): a number misread spoils nothing. */
const HUBER = 2.5;
const ROUNDS = 12;
/** A figure is told where the readings left less of what it was taken to be off by. */
const TOLD_BELOW = 0.6;
/** Camera and card agree on a colour to so much, mired. */
const COLOUR_TO_MIRED = 3;

/** A light of the hour, by the figures that the kit had before. */
export interface HourLight {
  entry: string;
  light: KitLight;
}

type Figure = keyof typeof LIKELY_OFF;
interface Unknown {
  of: Figure;
  /** Entry of the light; null for camera, lens and meter. */
  entry: string | null;
  start: number;
  likelyOff: number;
}

/**
 * What an hour of readings says of lights, camera, lens and meter: all of them at once, the most likely figures by the readings and by
 * what is likely anyhow (Gauss-Newton on the posterior; errors from its curvature). What the readings hardly tell is not told.
 */
export function fitCalibration(
  hour: CalibrationHour,
  lights: readonly HourLight[],
  roomShare: RoomShare,
): Calibration {
  const readings = hour.readings.filter(({ light }) => lights.some(({ entry }) => entry === light));
  const unknowns = unknownsOf(
    lights.filter(({ entry }) => readings.some((one) => one.light === entry)),
    readings,
  );
  const shares = readings.map(({ light, distanceM }) => roomShare(light, distanceM));
  const read = readings.map(readStops);
  const expected = (x: readonly number[], i: number) => {
    const reading = readings[i] as CardReading;
    const light = lights.find(({ entry }) => entry === reading.light) as HourLight;
    return expectedReading(
      reading,
      hour,
      lightOf(light, unknowns, x),
      recorderOf(unknowns, x),
      shares[i] as number,
    );
  };
  const sure = readings.map(sureStops);
  const start = unknowns.map(({ start: at }) => at);
  let x = [...start];
  let normal: Float64Array[] = [];
  for (let round = 0; round < ROUNDS; round++) {
    normal = unknowns.map(({ likelyOff }, i) => {
      const row = new Float64Array(unknowns.length + 1);
      row[i] = 1 / likelyOff ** 2;
      row[unknowns.length] = ((start[i] as number) - (x[i] as number)) / likelyOff ** 2;
      return row;
    });
    readings.forEach((_, i) => {
      const now = expected(x, i);
      const off = (read[i] as number) - now;
      const slope = unknowns.map((unknown, j) => {
        if (unknown.entry !== null && unknown.entry !== readings[i]?.light) return 0;
        const step = unknown.likelyOff * 0.05;
        const moved = [...x];
        moved[j] = (x[j] as number) + step;
        return (expected(moved, i) - now) / step;
      });
      const deviation = sure[i] as number;
      const far = Math.abs(off) / deviation;
      const weight = (far > HUBER ? HUBER / far : 1) / deviation ** 2;
      slope.forEach((value, j) => {
        if (value === 0) return;
        const row = normal[j] as Float64Array;
        slope.forEach((other, k) => {
          row[k] = (row[k] as number) + weight * value * other;
        });
        row[unknowns.length] = (row[unknowns.length] as number) + weight * value * off;
      });
    });
    const step = solveLinear(normal.map((row) => row.slice()));
    x = x.map((value, i) => value + (step[i] as number));
    if (step.every((value, i) => Math.abs(value) < 1e-3 * (unknowns[i] as Unknown).likelyOff)) break;
  }
  const errors = unknowns.map((_, i) => {
    const rows = normal.map((row, j) => {
      const own = row.slice();
      own[unknowns.length] = i === j ? 1 : 0;
      return own;
    });
    return Math.sqrt(Math.max(0, solveLinear(rows)[i] as number));
  });
  const found = (of: Figure, entry: string | null): Fitted | null => {
    const i = unknowns.findIndex((unknown) => unknown.of === of && unknown.entry === entry);
    if (i < 0) return null;
    const error = errors[i] as number;
    return error < TOLD_BELOW * (unknowns[i] as Unknown).likelyOff ? { value: x[i] as number, error } : null;
  };
  const recorder = recorderOf(unknowns, x);
  return {
    lights: lights.flatMap(({ entry, light }) => {
      const output = found('outputStops', entry);
      if (!output) return [];
      const hot = found('hotCentre', entry);
      return [
        {
          entry,
          outputStops: output,
          givesPart: found('givesPart', entry),
          hotCentre: hot && { value: 2 ** hot.value, error: 2 ** hot.value * Math.LN2 * hot.error },
          temperatureK: temperatureOf(
            light,
            readings.filter((one) => one.light === entry),
            recorder,
            hour.whiteBalanceK,
          ),
          ...fitDuration(
            light,
            readings.filter((one) => one.light === entry),
          ),
        },
      ];
    }),
    isoStops: found('isoStops', null),
    slope: found('slope', null),
    bend: found('bend', null),
    cornerStops: found('cornerStops', null),
    veilPart: found('veilPart', null),
    meterStops: found('meterStops', null),
    readings: readings.map(({ id }, i) => ({
      reading: id,
      beforeStops: (read[i] as number) - expected(start, i),
      afterStops: (read[i] as number) - expected(x, i),
      sureStops: sure[i] as number,
    })),
  };
}

function unknownsOf(lights: readonly HourLight[], readings: readonly CardReading[]): Unknown[] {
  const of = (figure: Figure, entry: string | null, start: number): Unknown => ({
    of: figure,
    entry,
    start,
    likelyOff: LIKELY_OFF[figure],
  });
  const hasFrames = readings.some(({ rgb }) => rgb);
  const hasMeter = readings.some(({ luxSeconds }) => luxSeconds !== undefined);
  return [
    ...lights.flatMap(({ entry, light }) => [
      of('outputStops', entry, 0),
      of('givesPart', entry, light.dial?.givesPart ?? 1),
      ...('hotCentre' in light ? [of('hotCentre', entry, Math.log2(light.hotCentre))] : []),
    ]),
    // Without a meter nothing tells a sensitive camera from strong lights: all is against the camera then.
    ...(hasFrames && hasMeter ? [of('isoStops', null, 0)] : []),
    ...(hasFrames
      ? [
          of('slope', null, 1),
          of('bend', null, 0),
          of('cornerStops', null, USUAL_CORNER_STOPS),
          of('veilPart', null, USUAL_VEIL_PART),
        ]
      : []),
    ...(hasMeter ? [of('meterStops', null, 0)] : []),
  ];
}

function lightOf(
  { entry, light }: HourLight,
  unknowns: readonly Unknown[],
  x: readonly number[],
): LightTaken {
  const value = (of: Figure) => x[unknowns.findIndex((own) => own.of === of && own.entry === entry)];
  const hot = value('hotCentre');
  return {
    light,
    outputStops: value('outputStops') ?? 0,
    givesPart: value('givesPart') ?? 1,
    // A cloth is not darker in the middle than at its edge, and ten to one is more than any is.
    hotCentre: hot === undefined ? null : Math.max(1, Math.min(10, 2 ** hot)),
  };
}

function recorderOf(unknowns: readonly Unknown[], x: readonly number[]): RecorderTaken {
  const value = (of: Figure) => x[unknowns.findIndex((own) => own.of === of)];
  return {
    isoStops: value('isoStops') ?? 0,
    slope: value('slope') ?? 1,
    bend: value('bend') ?? 0,
    cornerStops: Math.max(0, value('cornerStops') ?? 0),
    veilPart: Math.max(0, value('veilPart') ?? 0),
    meterStops: value('meterStops') ?? 0,
  };
}

/** What was read, stops: of a meter over 1 lx s, of a file from mid-tone. */
function readStops({ rgb, luxSeconds }: CardReading): number {
  if (luxSeconds !== undefined) return Math.log2(luxSeconds);
  const [r, g, b] = (rgb ?? [0, 0, 0]).map(decodeSrgb) as [number, number, number];
  return Math.log2(Math.max(1e-5, luminanceOf(r, g, b)) / MID_TONE);
}

/** One deviation of a reading, stops. */
function sureStops({ distanceM, place, rgb }: CardReading): number {
  const tape = (2 * READ_TO.tapeM) / (distanceM * Math.LN2);
  const own = rgb ? READ_TO.frameStops : READ_TO.meterStops;
  const trap = place === 'trap' ? READ_TO.trapPart : 0;
  return Math.hypot(tape, READ_TO.powerStops, own, trap, rgb ? roundedStops(rgb[1]) : 0);
}

/** What a step of an 8-bit file is at a value, stops, one deviation of rounding with the mean of a patch. */
function roundedStops(value: number): number {
  const at = Math.max(value, 1 / 255);
  return (Math.log2(decodeSrgb(Math.min(1, at + 1 / 255)) / decodeSrgb(at)) || 0) / 4;
}

/** The colour temperature by red over blue of the frames of a light. */
function temperatureOf(
  light: KitLight,
  readings: readonly CardReading[],
  recorder: RecorderTaken,
  whiteBalanceK: number,
): Fitted | null {
  if (light.colour?.temperatureK === undefined) return null;
  const mireds = readings.flatMap(({ rgb, place }) => {
    if (!rgb || place !== 'middle') return [];
    const [red, , blue] = rgb.map((value) => linearOfRecorded(decodeSrgb(value), recorder));
    return red && blue ? [miredOf(Math.log2(red / blue), whiteBalanceK)] : [];
  });
  if (mireds.length === 0) return null;
  const mean = mireds.reduce((sum, value) => sum + value, 0) / mireds.length;
  const spread = mireds.reduce((sum, value) => sum + (value - mean) ** 2, 0) / Math.max(1, mireds.length - 1);
  const error = Math.hypot(COLOUR_TO_MIRED, Math.sqrt(spread / mireds.length));
  // The gels that are on it shift in mired.
  const gels = light.colour.gels.reduce((sum, gel) => sum + gel.miredShift, 0);
  const own = Math.max(40, mean - gels);
  return { value: 1e6 / own, error: (1e6 / own ** 2) * error };
}
