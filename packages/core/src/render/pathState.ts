/** Places in `PathState.numbers`. */
export const LAST_PDF = 0;
export const COS_OUT = 1;
/** Places in `PathState.whole`. */
export const INSIDE = 0;
export const BOUNCE = 1;
export const BRANCH_INSIDE = 2;

/** State of one path, kept in arrays so that no number is boxed between the steps. */
export interface PathState {
  /** The next ray and its throughput in red, green, blue. */
  origin: Float64Array;
  direction: Float64Array;
  weight: Float64Array;
  /** The surface met: where, its own normal and its shading normal, both towards the path. */
  point: Float64Array;
  flat: Float64Array;
  normal: Float64Array;
  /**
   * LAST_PDF: density of the direction, per sr; 0 where light sampling had no part (start, mirror, glass).
   * COS_OUT: cosine towards the viewer.
   */
  numbers: Float64Array;
  /** INSIDE: a bit for each medium the path is in, the highest fills the space; BOUNCE: surfaces met so far. */
  whole: Int32Array;
  /** The mirrored ray of the first surface, waiting for its turn; throughput 0 where there is none. */
  branchOrigin: Float64Array;
  branchDirection: Float64Array;
  branchWeight: Float64Array;
}

export function createPathState(): PathState {
  return {
    origin: new Float64Array(3),
    direction: new Float64Array(3),
    weight: new Float64Array(3),
    point: new Float64Array(3),
    flat: new Float64Array(3),
    normal: new Float64Array(3),
    numbers: new Float64Array(2),
    whole: new Int32Array(3),
    branchOrigin: new Float64Array(3),
    branchDirection: new Float64Array(3),
    branchWeight: new Float64Array(3),
  };
}
