import type { Surface } from '../geometry/surface.js';

/** Places in `PathState.numbers`. */
export const LAST_PDF = 0;
export const COS_OUT = 1;
/** Places in `PathState.whole`. */
export const INSIDE = 0;
export const BOUNCE = 1;
export const BRANCH_INSIDE = 2;
export const KEPT = 3;
export const SHARP = 4;

/** State of one path, kept in arrays so that no number is boxed between the steps. */
export interface PathState {
  /** The next ray and its throughput in red, green, blue. */
  origin: Float64Array;
  direction: Float64Array;
  weight: Float64Array;
  /** The surface met: where, its own normal and its shading normal, both towards the path; colour of its base. */
  point: Float64Array;
  flat: Float64Array;
  normal: Float64Array;
  albedo: Float64Array;
  /** Two axes across the shading normal, the first along any brush marks. */
  frame: Float64Array;
  /** Direction to the viewer, and one to come from or go to, in that frame. */
  out: Float64Array;
  into: Float64Array;
  /** Where the direction was last chosen: light sampling had its say from there. */
  chosenAt: Float64Array;
  /**
   * LAST_PDF: density of the direction, per sr; 0 where light sampling had no part (start, mirror, glass).
   * COS_OUT: cosine towards the viewer.
   */
  numbers: Float64Array;
  /**
   * INSIDE: a bit for each medium the path is in, the highest fills the space; BOUNCE: surfaces met so far;
   * KEPT: 1 until the path has met what takes polarisation away; SHARP: 1 while all it met were mirrors and glass.
   */
  whole: Int32Array;
  /** The mirrored ray of the first surface, waiting for its turn; throughput 0 where there is none. */
  branchOrigin: Float64Array;
  branchDirection: Float64Array;
  branchWeight: Float64Array;
  /** Primitive and surface met; which side. */
  hit: { primitive: number; fromFront: boolean; surface: Surface | null };
}

export function createPathState(): PathState {
  return {
    origin: new Float64Array(3),
    direction: new Float64Array(3),
    weight: new Float64Array(3),
    point: new Float64Array(3),
    flat: new Float64Array(3),
    normal: new Float64Array(3),
    albedo: new Float64Array(3),
    frame: new Float64Array(6),
    out: new Float64Array(3),
    into: new Float64Array(3),
    chosenAt: new Float64Array(3),
    numbers: new Float64Array(2),
    whole: new Int32Array(5),
    branchOrigin: new Float64Array(3),
    branchDirection: new Float64Array(3),
    branchWeight: new Float64Array(3),
    hit: { primitive: -1, fromFront: true, surface: null },
  };
}
