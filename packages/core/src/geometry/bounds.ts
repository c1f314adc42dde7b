import type { Vector } from '@fendrix/contract';

/** Lowest and highest corner, m from the mark. */
export interface Bounds {
  low: Vector;
  high: Vector;
}

/** The eight corners of a box. */
export function cornersOf({ low, high }: Bounds): Vector[] {
  return Array.from(
    { length: 8 },
    (_, i): Vector => [i & 1 ? high[0] : low[0], i & 2 ? high[1] : low[1], i & 4 ? high[2] : low[2]],
  );
}

/** Bounds of two things together. */
export const joinBounds = (a: Bounds, b: Bounds): Bounds => ({
  low: [Math.min(a.low[0], b.low[0]), Math.min(a.low[1], b.low[1]), Math.min(a.low[2], b.low[2])],
  high: [Math.max(a.high[0], b.high[0]), Math.max(a.high[1], b.high[1]), Math.max(a.high[2], b.high[2])],
});
