import type { Vector } from '@fendrix/contract';
import { radians } from '../units/angle.js';
import { add, cross, length, normalise, scale, subtract } from '../units/vector.js';

/** Unit axes of something that stands at a point and faces another. */
export interface Frame {
  right: Vector;
  up: Vector;
  forward: Vector;
}

/**
 * Axes of a camera, light or sheet that faces `aim`, level unless rolled.
 * Roll is clockwise seen from behind. Facing straight up or down, right is +x.
 */
export function aimFrame(position: Vector, aim: Vector, rollDeg = 0): Frame {
  const forward = normalise(subtract(aim, position));
  const across = cross(forward, [0, 0, 1]);
  const level: Vector = length(across) < 1e-9 ? [1, 0, 0] : normalise(across);
  const upright = cross(level, forward);
  const c = Math.cos(radians(rollDeg));
  const s = Math.sin(radians(rollDeg));
  return {
    right: subtract(scale(level, c), scale(upright, s)),
    up: add(scale(upright, c), scale(level, s)),
    forward,
  };
}
