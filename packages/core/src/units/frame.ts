import type { Vector } from '@fendrix/contract';
import { degrees, radians } from './angle.js';
import { add, cross, dot, length, normalise, scale, subtract } from './vector.js';

/** Unit axes of something that stands at a point and faces another. */
export interface Frame {
  right: Vector;
  up: Vector;
  forward: Vector;
}

/**
 * Nearer to straight up or down than the first angle, degrees, things are turned as if they had been tilted from there; further than
 * the second they are level. Level alone would spin what faces straight down by any angle when it is moved by a hair.
 */
const [UPRIGHT_DEG, LEVEL_DEG] = [8, 16];

/**
 * Axes of a camera, light or sheet that faces `aim`, level unless rolled.
 * Roll is clockwise seen from behind. Facing straight up or down, right is +x, and near to that it is as near to +x as it can be: the axes
 * go on smoothly when a thing is moved over its aim (but for a jump of half a turn, which the top of a sphere cannot do without).
 */
export function aimFrame(position: Vector, aim: Vector, rollDeg = 0): Frame {
  const forward = normalise(subtract(aim, position));
  const level = levelRight(forward);
  const upright = cross(level, forward);
  const c = Math.cos(radians(rollDeg));
  const s = Math.sin(radians(rollDeg));
  return {
    right: subtract(scale(level, c), scale(upright, s)),
    up: add(scale(upright, c), scale(level, s)),
    forward,
  };
}

/** To the right of what faces a way, before it is rolled. */
function levelRight(forward: Vector): Vector {
  const across = cross(forward, [0, 0, 1]);
  const offDeg = degrees(Math.atan2(length(across), Math.abs(forward[2])));
  if (offDeg >= LEVEL_DEG) return normalise(across);
  const tilted = normalise(subtract([1, 0, 0], scale(forward, forward[0])));
  if (offDeg <= UPRIGHT_DEG) return tilted;
  const part = (offDeg - UPRIGHT_DEG) / (LEVEL_DEG - UPRIGHT_DEG);
  const turn = Math.atan2(dot(cross(tilted, across), forward), dot(tilted, across));
  return turnAbout(tilted, forward, part * part * (3 - 2 * part) * turn);
}

/** Where a body stands and how it is turned: its own x, y and z axes, right-handed, unit, in the mark's frame. */
export interface Pose {
  origin: Vector;
  x: Vector;
  y: Vector;
  z: Vector;
}

/**
 * The pose of a body that is first turned about its upright axis (towards camera right as seen from the front),
 * then leaned over towards a bearing.
 */
export function standingPose(
  origin: Vector,
  turnDeg: number,
  lean?: { deg: number; bearingDeg: number },
): Pose {
  const c = Math.cos(radians(turnDeg));
  const s = Math.sin(radians(turnDeg));
  const pose: Pose = { origin, x: [c, s, 0], y: [-s, c, 0], z: [0, 0, 1] };
  if (!lean || lean.deg === 0) return pose;
  const bearing = radians(lean.bearingDeg);
  const axis: Vector = [Math.cos(bearing), Math.sin(bearing), 0];
  const turn = (v: Vector) => turnAbout(v, axis, radians(lean.deg));
  return { origin, x: turn(pose.x), y: turn(pose.y), z: turn(pose.z) };
}

/** The pose of something whose z axis points from a place to an aim, as sheets and heads are aimed. */
export function aimedPose(position: Vector, aim: Vector, rollDeg = 0): Pose {
  const { right, up, forward } = aimFrame(position, aim, rollDeg);
  return { origin: position, x: right, y: scale(up, -1), z: forward };
}

/** A vector of the body in the mark's frame. */
export function turned(pose: Pose, [x, y, z]: Vector): Vector {
  return add(add(scale(pose.x, x), scale(pose.y, y)), scale(pose.z, z));
}

/** A point of the body in the mark's frame. */
export function placed(pose: Pose, point: Vector): Vector {
  return add(pose.origin, turned(pose, point));
}

/** The pose of a body that stands at `origin` within another, with axes along x and z of that one. */
export function within(pose: Pose, origin: Vector, x: Vector = [1, 0, 0], z: Vector = [0, 0, 1]): Pose {
  const right = normalise(turned(pose, x));
  const up = normalise(turned(pose, z));
  return { origin: placed(pose, origin), x: right, y: cross(up, right), z: up };
}

/** Rodrigues' turn of a vector about a unit axis. */
export function turnAbout(v: Vector, axis: Vector, angleRad: number): Vector {
  const c = Math.cos(angleRad);
  const s = Math.sin(angleRad);
  const along = (axis[0] * v[0] + axis[1] * v[1] + axis[2] * v[2]) * (1 - c);
  return add(add(scale(v, c), scale(cross(axis, v), s)), scale(axis, along));
}
