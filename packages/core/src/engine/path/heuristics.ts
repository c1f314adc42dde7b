import type { i32 } from '../portable.js';

/** From this bounce on one light, picked at random, is sampled instead of all of them. */
export const ONE_LIGHT_FROM: i32 = 2;

/**
 * Share of one way of sampling where another could have found the same, by the power heuristic with exponent 2: it
 * trusts the denser way more than the balance heuristic does, which pays where a large light fills much of the view.
 * Source: Veach 1997 sec. 9.2.4
 */
export function powerShare(own: number, rival: number): number {
  const r = rival / own;
  return 1 / (1 + r * r);
}
