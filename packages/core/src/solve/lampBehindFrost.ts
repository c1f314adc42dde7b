import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { luminanceOf } from '../exposure/display.js';
import { bareSet } from '../geometry/bareSet.js';
import { aimFrame } from '../geometry/frame.js';
import { channelsOf } from '../photometry/channels.js';
import { prepareTracing } from '../render/prepareTracing.js';
import { add, normalise, scale, subtract } from '../units/vector.js';

/**
 * Distance of a small flat-faced lamp behind an ideal (Lambertian) frost, opposite its bright end and facing it, for a
 * wanted difference between that end and one so far away: luminance falls as cos^4 / d^2 round the lamp's axis, so
 * difference = 2 log2(1 + (length / d)^2) stops. 0.6 m, 4 stops: 0.346 m. A bare bulb falls as cos^3 and stands nearer.
 * @throws {DomainError} a length or difference not above 0
 */
export function frostLampDistanceM(lengthM: number, differenceStops: number): number {
  requireDomain(lengthM > 0 && differenceStops > 0, 'length and difference are above 0');
  return lengthM / Math.sqrt(2 ** (differenceStops / 2) - 1);
}

export interface GradientWish {
  light: string;
  sheet: string;
  /** Side of the sheet that is to be bright, as seen from its front; middle for a glow. */
  bright: 'top' | 'bottom' | 'left' | 'right' | 'middle';
  /** Bright end over dark end, stops. */
  differenceStops: number;
}

export interface GradientAnswer {
  set: SetDocument;
  lampDistanceM: number;
  /** Difference of the ends as traced, stops. */
  reachedStops: number;
  limited: 'nearest' | 'farthest' | null;
}

type Frost = Extract<Sheet, { widthM: number; heightM: number }>;

const NEAREST_M = 0.06;
const FARTHEST_M = 3;
/** Ends are read this far within the edge, parts of the length. */
const INSET = 0.06;
const SAMPLES = 1500;
const ROUNDS = 9;

/**
 * Stands a lamp behind a frost so that its two ends differ by so many stops, seen from straight in front.
 * Starts from the ideal frost, then goes by traced luminance: the beam and size of the lamp and the haze of the frost
 * are in it.
 * @returns null where the light or the sheet is not there, or is not flat
 */
export function lampBehindFrost(set: SetDocument, wish: GradientWish): GradientAnswer | null {
  const light = set.lights.find(({ tag }) => tag === wish.light);
  const sheet = set.sheets.find(({ tag }) => tag === wish.sheet);
  if (!light || light.kind === 'surround' || !sheet) return null;
  if (!('widthM' in sheet && 'heightM' in sheet) || sheet.kind === 'tent' || sheet.kind === 'fold')
    return null;
  const ends = endsOf(sheet as Frost, wish.bright);
  const placed = (distance: number): SetDocument => {
    const positionM = add(ends.bright, scale(ends.behind, distance)).map(
      (v) => Math.round(v * 1e4) / 1e4,
    ) as Vector;
    const moved = {
      ...light,
      positionM,
      ...('aimM' in light ? { aimM: ends.bright } : {}),
      on: true,
    } as Light;
    return { ...set, lights: set.lights.map((other) => (other.tag === light.tag ? moved : other)) };
  };
  const difference = (distance: number) => measured(placed(distance), wish.light, sheet as Frost, ends);
  let near = NEAREST_M;
  let far = FARTHEST_M;
  let distance = Math.max(near, Math.min(far, frostLampDistanceM(ends.lengthM, wish.differenceStops)));
  let reached = difference(distance);
  for (let i = 0; i < ROUNDS && Math.abs(reached - wish.differenceStops) > 0.04; i++) {
    if (reached > wish.differenceStops) near = distance;
    else far = distance;
    distance = Math.sqrt(near * far);
    reached = difference(distance);
  }
  const missed = reached - wish.differenceStops;
  return {
    set: placed(distance),
    lampDistanceM: distance,
    reachedStops: reached,
    limited: Math.abs(missed) < 0.15 ? null : missed < 0 ? 'nearest' : 'farthest',
  };
}

interface Ends {
  bright: Vector;
  dark: Vector;
  behind: Vector;
  lengthM: number;
}

function endsOf(sheet: Frost, bright: GradientWish['bright']): Ends {
  const { right, up, forward } = aimFrame(sheet.positionM, sheet.aimM, sheet.rollDeg);
  // Seen from its front, left and right change sides.
  const sides = {
    top: scale(up, sheet.heightM / 2),
    bottom: scale(up, -sheet.heightM / 2),
    left: scale(right, sheet.widthM / 2),
    right: scale(right, -sheet.widthM / 2),
    middle: [0, 0, 0] as Vector,
  };
  const inwards = 1 - 2 * INSET;
  const from = scale(sides[bright], inwards);
  const far =
    bright === 'middle'
      ? scale(sheet.widthM > sheet.heightM ? sides.right : sides.top, inwards)
      : scale(from, -1);
  return {
    bright: add(sheet.positionM, from),
    dark: add(sheet.positionM, far),
    behind: scale(forward, -1),
    lengthM: Math.hypot(...subtract(from, far)),
  };
}

/** Luminance of the bright end over the dark one by this lamp alone, seen along the sheet's normal, stops. */
function measured(set: SetDocument, tag: string, sheet: Frost, ends: Ends): number {
  const bare = bareSet(set, { sheets: [sheet], lights: set.lights.filter((light) => light.tag === tag) });
  const { kernel } = prepareTracing(bare);
  const films = channelsOf(bare).length;
  const towards = normalise(ends.behind);
  const seen = (point: Vector) => {
    kernel.reseed(1);
    kernel.setMode({});
    kernel.films.fill(0);
    for (let i = 0; i < SAMPLES; i++) {
      kernel.startSample(0, i);
      kernel.point.set(add(point, scale(towards, -0.02)));
      kernel.direction.set(towards);
      kernel.trace(false);
    }
    let sum = 0;
    for (let film = 0; film < films; film++) {
      sum += luminanceOf(
        kernel.films[3 * film] as number,
        kernel.films[3 * film + 1] as number,
        kernel.films[3 * film + 2] as number,
      );
    }
    return sum;
  };
  return Math.log2(seen(ends.bright) / Math.max(1e-12, seen(ends.dark)));
}
