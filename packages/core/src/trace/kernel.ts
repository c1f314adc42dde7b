/**
 * The ray kernel: what every picture, map and reading asks of the geometry.
 * Narrow on purpose, so that a faster engine can stand behind it. A ray is written to `ray`, then asked about;
 * going by an array avoids boxed numbers and fits memory shared with other engines.
 */
export interface RayKernel {
  /** The ray to ask about: 0-2 origin m, 3-5 unit direction, 6 nearest and 7 farthest distance, m. */
  readonly ray: Float64Array;

  /**
   * Nearest primitive between the two distances.
   * @returns its index, with its distance written to `ray[7]`; -1 for none
   */
  closestHit(): number;

  /** Whether anything at all stands between the two distances; `ray[7]` is then undefined. */
  anyHit(): boolean;

  /** One number: rays traced since the kernel was made. */
  readonly rays: Float64Array;
}

/** Rays start this far from the surface they leave, m: thinner than the 0.1 mm of a label. */
export const RAY_START_M = 1e-6;

/** Writes a ray from a point, from just off its surface to any distance. */
export function setRay(
  ray: Float64Array,
  origin: ArrayLike<number>,
  direction: ArrayLike<number>,
  farthest = Number.POSITIVE_INFINITY,
): void {
  ray[0] = origin[0] as number;
  ray[1] = origin[1] as number;
  ray[2] = origin[2] as number;
  ray[3] = direction[0] as number;
  ray[4] = direction[1] as number;
  ray[5] = direction[2] as number;
  ray[6] = RAY_START_M;
  ray[7] = farthest;
}
