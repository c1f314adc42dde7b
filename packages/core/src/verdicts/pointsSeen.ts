import { alongLens, rayThrough, type View } from '../render/view.js';

/**
 * Points that the lens sees at the middles of a grid of places.
 * @param depthM of each place along the lens axis, m; NaN where nothing is seen
 * @returns 3 a place, m; NaN where nothing is
 */
export function pointsSeen(
  view: View,
  across: number,
  down: number,
  depthM: ArrayLike<number>,
): Float32Array {
  const points = new Float32Array(3 * across * down);
  const way = new Float64Array(3);
  for (let place = 0; place < across * down; place++) {
    const [u, v] = [((place % across) + 0.5) / across, (Math.floor(place / across) + 0.5) / down];
    rayThrough(way, view, u, v);
    const distance = (depthM[place] as number) / alongLens(view, u, v);
    for (let a = 0; a < 3; a++)
      points[3 * place + a] = (view.origin[a] as number) + distance * (way[a] as number);
  }
  return points;
}
