import type { Light, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { RAY_TO } from '../engine/layouts.js';
import { requireDomain } from '../errors.js';
import { luminanceOf } from '../exposure/display.js';
import type { Scene, Thing } from '../geometry/scene.js';
import { channelsOf } from '../photometry/channels.js';
import { prepareTracing, type Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';
import { aimFrame } from '../units/frame.js';
import { add, distance, normalise, scale, subtract } from '../units/vector.js';
import { showsInFrame } from './comesIntoFrame.js';
import { changeBetween, type SetChange } from './setChange.js';

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
  change: SetChange;
  lampDistanceM: number;
  /** Difference of the ends as traced in the whole set, stops. */
  reachedStops: number;
  /** Why it is not what was wanted; cramped: something stands behind the frost, `by` says what. */
  limited: 'nearest' | 'farthest' | 'cramped' | null;
  by: Thing | null;
  /** What stands before the frost so that neither the lens nor anything it mirrors shows it; null where it is shown. */
  hiddenBy: Thing | null;
}

/** Why no gradient can be made here: what was traced says so. */
export interface NoGradient {
  /** opaque: the sheet lets no light through; no-room: something stands right behind it; dark: none arrives. */
  refused: 'opaque' | 'no-room' | 'dark';
  by: Thing | null;
}

type Frost = Extract<Sheet, { widthM: number; heightM: number }>;

const NEAREST_M = 0.06;
const FARTHEST_M = 3;
/** Ends are read this far within the edge, parts of the length. */
const INSET = 0.06;
const SAMPLES = 1500;
/** From the frost to where it is looked at, and past its own thickness, m. */
const BEFORE_M = 0.02;
const OFF_SHEET_M = 0.002;
/** A frame that reaches below the bench top is read from here up, m. */
const OVER_BENCH_M = 0.01;
/** What stands behind the frost leaves this much for the lamp's own depth, m. */
const CLEAR_M = 0.05;
const ROUNDS = 9;

/**
 * Stands a lamp behind a frost so that its two ends differ by so many stops, seen from straight in front.
 * Starts from the ideal frost, then goes by luminance traced in the whole set: the beam and size of the lamp, the haze of
 * the frost, what stands between them and what bounces are in it. The lamp stays before what stands behind the frost.
 * @returns null where the light or the sheet is not there, or is not flat
 */
export function lampBehindFrost(set: SetDocument, wish: GradientWish): GradientAnswer | NoGradient | null {
  const light = set.lights.find(({ tag }) => tag === wish.light);
  const sheet = set.sheets.find(({ tag }) => tag === wish.sheet);
  if (!light || light.kind === 'surround' || !sheet) return null;
  if (!('widthM' in sheet && 'heightM' in sheet) || sheet.kind === 'tent' || sheet.kind === 'fold')
    return null;
  if (sheet.front.kind !== 'translucent') return { refused: 'opaque', by: null };
  const ends = endsOf(sheet as Frost, wish.bright, set.bench ? OVER_BENCH_M : Number.NEGATIVE_INFINITY);
  const cleared = prepareTracing({ ...set, lights: set.lights.filter((other) => other !== light) });
  const behind = firstBehind(cleared, ends);
  const farthest = Math.min(FARTHEST_M, behind.distanceM - CLEAR_M);
  if (farthest < NEAREST_M) return { refused: 'no-room', by: behind.thing };
  const placed = (distanceM: number): SetDocument => {
    const positionM = add(ends.bright, scale(ends.behind, distanceM)).map(
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
  const difference = (distanceM: number) => measured(placed(distanceM), wish.light, ends);
  let near = NEAREST_M;
  let far = farthest;
  let distanceM = Math.max(near, Math.min(far, frostLampDistanceM(ends.lengthM, wish.differenceStops)));
  let reached = difference(distanceM);
  for (let i = 0; i < ROUNDS && reached !== null && Math.abs(reached - wish.differenceStops) > 0.04; i++) {
    if (reached > wish.differenceStops) near = distanceM;
    else far = distanceM;
    distanceM = Math.sqrt(near * far);
    reached = difference(distanceM);
  }
  if (reached === null) return { refused: 'dark', by: behind.thing };
  const missed = reached - wish.differenceStops;
  const tooMuch = farthest < FARTHEST_M ? 'cramped' : 'farthest';
  const limited = Math.abs(missed) < 0.15 ? null : missed < 0 ? 'nearest' : tooMuch;
  return {
    change: changeBetween(set, placed(distanceM)),
    lampDistanceM: distanceM,
    reachedStops: reached,
    limited,
    by: limited === 'cramped' ? behind.thing : null,
    hiddenBy: hiddenBy(cleared, sheet as Frost),
  };
}

/** What a lamp behind the bright end would run into, and how far behind the frost it stands, m. */
function firstBehind({ engine, scene }: Tracing, ends: Ends): { thing: Thing | null; distanceM: number } {
  const way = normalise(ends.behind);
  setRay(engine.ray, add(ends.bright, scale(way, OFF_SHEET_M)), way);
  const primitive = engine.closestHit();
  if (primitive < 0) return { thing: null, distanceM: Number.POSITIVE_INFINITY };
  return { thing: thingOf(scene, primitive), distanceM: OFF_SHEET_M + (engine.ray[RAY_TO] as number) };
}

const thingOf = ({ things, table }: Scene, primitive: number): Thing | null =>
  things[table.thing[primitive] as number] ?? null;

/** What covers a sheet from the lens; null where the lens sees it, mirrored or through glass too, or sees past it. */
function hiddenBy(tracing: Tracing, sheet: Frost): Thing | null {
  const { engine, scene, view } = tracing;
  if (showsInFrame(tracing, { kind: 'sheet', key: sheet.tag })) return null;
  const way = normalise(subtract(sheet.positionM, view.origin));
  setRay(engine.ray, view.origin, way, distance(sheet.positionM, view.origin) - OFF_SHEET_M);
  const primitive = engine.closestHit();
  return primitive < 0 ? null : thingOf(scene, primitive);
}

interface Ends {
  bright: Vector;
  dark: Vector;
  behind: Vector;
  lengthM: number;
}

/** @param lowestM what lies lower is covered by the bench: the frost ends there */
function endsOf(sheet: Frost, bright: GradientWish['bright'], lowestM: number): Ends {
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
  const seen = (offset: Vector): Vector => {
    const below = lowestM - (sheet.positionM[2] + offset[2]);
    const part = below > 0 && offset[2] < 0 ? Math.max(0, 1 + below / offset[2]) : 1;
    return add(sheet.positionM, scale(offset, part));
  };
  const [start, end] = [seen(from), seen(far)];
  return { bright: start, dark: end, behind: scale(forward, -1), lengthM: distance(start, end) };
}

/**
 * Luminance of the bright end over the dark one by this lamp alone, in the whole set, seen along the sheet's normal,
 * stops; null where none of its light comes through.
 */
function measured(set: SetDocument, tag: string, ends: Ends): number | null {
  const { engine } = prepareTracing(set);
  const own = channelsOf(set).flatMap(({ light }, film) => (set.lights[light]?.tag === tag ? [film] : []));
  const towards = normalise(ends.behind);
  const seen = (point: Vector) => {
    engine.reseed(1);
    engine.setMode({});
    engine.films.fill(0);
    for (let i = 0; i < SAMPLES; i++) {
      engine.startSample(0, i);
      engine.point.set(add(point, scale(towards, -BEFORE_M)));
      engine.direction.set(towards);
      engine.trace(false);
    }
    const sumOf = (film: number) =>
      luminanceOf(...([...engine.films.subarray(3 * film, 3 * film + 3)] as Vector));
    return own.reduce((sum, film) => sum + sumOf(film), 0);
  };
  const [bright, dark] = [seen(ends.bright), seen(ends.dark)];
  return bright > 0 ? Math.log2(bright / Math.max(1e-12, dark)) : null;
}
