import type { SetDocument, Vector } from '@fendrix/contract';
import { aimFacing, facingOf } from '../geometry/aim.js';
import { productBounds } from '../geometry/shape.js';
import { add, length, scale } from '../units/vector.js';

/** A thing whose place was measured when the set was built. */
export interface PlacedThing {
  kind: 'light' | 'sheet' | 'product' | 'camera';
  /** Tag of a light or sheet, id of a product; empty for the camera. */
  key: string;
}

/**
 * What is measured of a thing: its distance from the centre of the set, how far it stands to the side of that line, its height,
 * and which way it faces, level and tilted.
 */
export const NUDGE_WAYS = ['out', 'aside', 'up', 'turn', 'tilt'] as const;
export type NudgeWay = (typeof NUDGE_WAYS)[number];

/** One figure of one thing that may be off. */
export interface Nudge {
  thing: PlacedThing;
  way: NudgeWay;
}

/** How far a figure is put off to see what that does: 1 cm, or 1 degree. Both ways, so that curves do not count. */
export const nudgeStep = (way: NudgeWay): number => (way === 'turn' || way === 'tilt' ? 1 : 0.01);

/** Nearer to the centre than this, what is further out is further away from the camera, m. */
const AT_CENTRE_M = 0.02;
/** Places and heights alone: a round foot has no side, and the camera is aimed by its picture. */
const PLACE_WAYS: readonly NudgeWay[] = ['out', 'aside'];
const CAMERA_WAYS: readonly NudgeWay[] = ['out', 'aside', 'up'];

/** All that was measured of a set: lights that are on, cards and flags, products, the camera. Windows stay where they are. */
export function nudgesOf({ lights, sheets, products }: SetDocument): Nudge[] {
  const of = (kind: PlacedThing['kind'], key: string, ways: readonly NudgeWay[]): Nudge[] =>
    ways.map((way) => ({ thing: { kind, key }, way }));
  return [
    ...of('camera', '', CAMERA_WAYS),
    ...products.flatMap(({ id }) => of('product', id, PLACE_WAYS)),
    ...lights
      .filter((light) => light.on && light.kind !== 'surround' && light.kind !== 'window')
      .flatMap((light) => of('light', light.tag, 'aimM' in light ? NUDGE_WAYS : CAMERA_WAYS)),
    ...sheets.flatMap((sheet) => of('sheet', sheet.tag, 'aimM' in sheet ? NUDGE_WAYS : CAMERA_WAYS)),
  ];
}

/**
 * The set with one figure off. What is moved stays aimed at the point it was aimed at, as a stand is moved and turned in again;
 * spots on a product go with it.
 * @param by m, or degrees
 */
export function nudged(set: SetDocument, { thing, way }: Nudge, by: number): SetDocument {
  const own =
    (is: boolean) =>
    <T>(one: T): T =>
      is ? putOff(one, way, by) : one;
  switch (thing.kind) {
    case 'camera':
      return { ...set, camera: own(true)(set.camera) };
    case 'light':
      return { ...set, lights: set.lights.map((light) => own(light.tag === thing.key)(light)) };
    case 'sheet':
      return { ...set, sheets: set.sheets.map((sheet) => own(sheet.tag === thing.key)(sheet)) };
    case 'product': {
      const product = set.products.find(({ id }) => id === thing.key);
      if (!product) return set;
      const moved = putOff(product, way, by);
      const step = moved.positionM.map((value, i) => value - (product.positionM[i] as number)) as Vector;
      const { low, high } = productBounds(product);
      const isOnIt = (point: Vector) =>
        point.every(
          (value, i) => value > (low[i] as number) - ON_IT_M && value < (high[i] as number) + ON_IT_M,
        );
      return {
        ...set,
        products: set.products.map((other) => (other === product ? moved : other)),
        spots: set.spots.map((spot) =>
          isOnIt(spot.pointM) ? { ...spot, pointM: add(spot.pointM, step) } : spot,
        ),
      };
    }
  }
}

const ON_IT_M = 0.002;

function putOff<T>(thing: T, way: NudgeWay, by: number): T {
  const { positionM, aimM } = thing as { positionM?: Vector; aimM?: Vector };
  if (!positionM) return thing;
  if (way === 'turn' || way === 'tilt') {
    if (!aimM) return thing;
    const facing = facingOf(positionM, aimM);
    const turned =
      way === 'turn'
        ? { ...facing, bearingDeg: facing.bearingDeg + by }
        : { ...facing, tiltDeg: Math.max(-90, Math.min(90, facing.tiltDeg + by)) };
    return { ...thing, aimM: aimFacing(positionM, turned) };
  }
  return { ...thing, positionM: add(positionM, scale(wayOf(positionM, way), by)) };
}

function wayOf([x, y]: Vector, way: 'out' | 'aside' | 'up'): Vector {
  if (way === 'up') return [0, 0, 1];
  const far = length([x, y, 0]);
  const out: Vector = far < AT_CENTRE_M ? [0, 1, 0] : [x / far, y / far, 0];
  return way === 'out' ? out : [out[1], -out[0], 0];
}
