import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { radians } from '../units/angle.js';
import { add, normalise, scale, subtract, turnUpright } from '../units/vector.js';

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
  const light = set.lights.find(({ tag }) => tag === placement.light);
  if (!light || !('aimM' in light)) return null;
  const offset = subtract(light.positionM, light.aimM);
  const to: Record<typeof placement.vary, () => Vector> = {
    'light-bearing': () => turnUpright(offset, radians(value)),
    'light-distance': () => scale(normalise(offset), value),
    'light-height': () => add(offset, [0, 0, value]),
  };
  const moved = { ...light, positionM: add(light.aimM, to[placement.vary]()) } as Light;
  return { ...set, lights: set.lights.map((other) => (other.tag === light.tag ? moved : other)) };
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
