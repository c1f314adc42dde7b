import { fillSheen, SHEEN_ENTRIES } from '../engine/sheen.js';

/** The sheen of a cloth made ready for shading. */
export interface Sheen {
  /** Part of the lobe. */
  part: number;
  /** Part of light from a direction that the whole lobe sends back, see `tableAlbedo`, and its mean over even light. */
  albedo: Float64Array;
  mean: number;
}

/** The whole lobe: the same for all cloths. */
let whole: Sheen | null = null;

/** @param part of the lobe, 0 to 1 */
export function makeSheen(part: number): Sheen {
  if (!whole) {
    const albedo = new Float64Array(SHEEN_ENTRIES);
    whole = { part: 1, albedo, mean: fillSheen(albedo) };
  }
  return { ...whole, part };
}
