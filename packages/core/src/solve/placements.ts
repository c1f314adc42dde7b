import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { standsInRoom } from '../geometry/roomBounds.js';
import { degrees, radians } from '../units/angle.js';
import { add, distance, dot, normalise, scale, subtract, turnUpright } from '../units/vector.js';

/** Something about a set that can be run through a range, to see what it does. */
export type Placement =
  | { vary: 'light-bearing'; light: string }
  | { vary: 'light-distance'; light: string }
  | { vary: 'light-height'; light: string }
  | { vary: 'backdrop-distance' };

/** A backdrop keeps this much from the wall, m. */
const BEFORE_WALL_M = 0.03;

/**
 * The set with one placement changed: a light turned round its aim point by so many degrees, at so many metres from
 * it, so many metres higher; or the backdrop so many metres further back. The light faces its aim point throughout.
 * @returns null where there is no such light or backdrop
 */
export function withPlacement(set: SetDocument, placement: Placement, value: number): SetDocument | null {
  if (placement.vary === 'backdrop-distance') return withBackdropAt(set, value);
  const light = aimedLight(set, placement.light);
  if (!light) return null;
  const offset = subtract(light.positionM, light.aimM);
  const to: Record<typeof placement.vary, () => Vector> = {
    'light-bearing': () => turnUpright(offset, radians(value)),
    'light-distance': () => scale(normalise(offset), value),
    'light-height': () => add(offset, [0, 0, value]),
  };
  const moved = { ...light, positionM: add(light.aimM, to[placement.vary]()) } as Light;
  return { ...set, lights: set.lights.map((other) => (other.tag === light.tag ? moved : other)) };
}

/** Values worth trying of a placement, in the unit of `withPlacement`, from one end of its range to the other. */
export function placementSteps(set: SetDocument, placement: Placement): number[] {
  const steps = (from: number, to: number, count: number) =>
    Array.from({ length: count }, (_, i) => from + (i * (to - from)) / (count - 1));
  switch (placement.vary) {
    case 'light-bearing':
      return steps(-90, 90, 13);
    case 'light-distance': {
      const light = aimedLight(set, placement.light);
      return light ? steps(0.5, 2, 9).map((factor) => factor * distance(light.positionM, light.aimM)) : [];
    }
    case 'light-height':
      return steps(-0.4, 0.6, 9);
    case 'backdrop-distance':
      return steps(0, Math.max(0.01, mostBackM(set)), 8);
  }
}

/** Whether what a placement moves stands in the room; a light in a wall does not. */
export function placementStands(set: SetDocument, placement: Placement): boolean {
  if (placement.vary === 'backdrop-distance') return true;
  const light = aimedLight(set, placement.light);
  return light !== null && standsInRoom(set, light.positionM);
}

/** Turned by less than this a light faces the products as before, degrees. */
const SAME_AIM_DEG = 2;

/** Which way a placement goes; distances m, angles degrees. */
export type PlacementWay =
  | { code: 'as-it-is' }
  | { code: 'from-aim'; distanceM: number }
  | { code: 'height'; upM: number }
  | { code: 'back'; byM: number }
  /** To which side of the camera the light goes, and whether it then faces the products more or less. */
  | { code: 'round'; deg: number; side: 'left' | 'right'; faces: 'more' | 'less' | 'same' };

/** Which way a placement goes by a value from where the set stands. */
export function placementWay(set: SetDocument, placement: Placement, value: number): PlacementWay {
  if (Math.abs(value) < 1e-6) return { code: 'as-it-is' };
  switch (placement.vary) {
    case 'light-distance':
      return { code: 'from-aim', distanceM: value };
    case 'light-height':
      return { code: 'height', upM: value };
    case 'backdrop-distance':
      return { code: 'back', byM: value };
    case 'light-bearing': {
      const moved = withPlacement(set, placement, value) ?? set;
      const [before, after] = [set, moved].map((own) => aimedLight(own, placement.light));
      const right = (after?.positionM[0] ?? 0) > (before?.positionM[0] ?? 0);
      const off = offProductDeg(moved, after ?? null) - offProductDeg(set, before ?? null);
      const faces = Math.abs(off) < SAME_AIM_DEG ? 'same' : off > 0 ? 'less' : 'more';
      return { code: 'round', deg: Math.abs(value), side: right ? 'right' : 'left', faces };
    }
  }
}

/** How far off the first product a light faces, degrees; 0 without either. */
function offProductDeg({ products: [product] }: SetDocument, light: AimedLight | null): number {
  if (!product || !light) return 0;
  const way = (to: Vector) => normalise(subtract(to, light.positionM));
  return degrees(Math.acos(Math.max(-1, Math.min(1, dot(way(light.aimM), way(product.positionM))))));
}

type AimedLight = Extract<Light, { aimM: Vector }>;

function aimedLight({ lights }: SetDocument, tag: string): AimedLight | null {
  const light = lights.find((own) => own.tag === tag);
  return light && 'aimM' in light ? light : null;
}

/** How far back the backdrop can go, m: to just before the wall; three metres without a room. */
export function mostBackM({ backdrop, room }: SetDocument): number {
  if (!backdrop) return 0;
  const here = backdrop.kind === 'panel' ? backdrop.centreM[1] : backdrop.backM;
  return room ? Math.max(0, room.depthM - room.markFromFrontM - BEFORE_WALL_M - here) : 3;
}

function withBackdropAt(set: SetDocument, byM: number): SetDocument | null {
  const { backdrop } = set;
  if (!backdrop) return null;
  if (backdrop.kind === 'panel') {
    return { ...set, backdrop: { ...backdrop, centreM: add(backdrop.centreM, [0, byM, 0]) } };
  }
  const bendM = backdrop.kind === 'sweep' ? backdrop.radiusM : 0;
  const backM = Math.max(backdrop.frontM + bendM + 0.01, backdrop.backM + byM);
  return { ...set, backdrop: { ...backdrop, backM } };
}

/** Where a falling curve first comes down to a level, by straight lines between its points; null where it does not. */
export function firstBelow(points: readonly (readonly [number, number])[], level: number): number | null {
  for (let i = 0; i < points.length; i++) {
    const [x, y] = points[i] as readonly [number, number];
    if (y > level) continue;
    const before = points[i - 1];
    if (!before) return x;
    return before[0] + ((before[1] - level) / (before[1] - y)) * (x - before[0]);
  }
  return null;
}
