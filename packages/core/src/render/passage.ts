import type { Scene } from '../geometry/scene.js';
import { letsThroughStraight, TRANSLUCENT } from '../geometry/surface.js';
import { RAY_START_M, type RayKernel, setRay } from '../trace/kernel.js';
import { netOpenness } from './surfaceHit.js';

/** More sheets than this in a row stop the light. */
const MOST_SHEETS = 32;

/** What gets through between two points: blocked or not, or weakened by nets and thin frost on the way. */
export interface Passage {
  /**
   * @param out 0-2 part that passes, red green blue
   * @returns whether any light passes
   */
  between(out: Float64Array, point: Float64Array, direction: Float64Array, distance: number): boolean;
}

export function createPassage(scene: Scene, kernel: RayKernel): Passage {
  const { table, surfaces } = scene;
  const sheets = surfaces.some(letsThroughStraight);
  const at = new Float64Array(3);

  function between(
    out: Float64Array,
    point: Float64Array,
    direction: Float64Array,
    distance: number,
  ): boolean {
    out[0] = 1;
    out[1] = 1;
    out[2] = 1;
    setRay(kernel.ray, point, direction, distance - 2 * RAY_START_M);
    if (!sheets) return !kernel.anyHit();
    for (let a = 0; a < 3; a++) at[a] = point[a] as number;
    let left = distance;
    for (let i = 0; i < MOST_SHEETS; i++) {
      setRay(kernel.ray, at, direction, left - 2 * RAY_START_M);
      const primitive = kernel.closestHit();
      if (primitive < 0) return true;
      const surface = surfaces[table.front[primitive] as number];
      // What lets light through straight is the same on both sides.
      if (surface === undefined || !letsThroughStraight(surface)) return false;
      const step = kernel.ray[7] as number;
      for (let a = 0; a < 3; a++) at[a] = (at[a] as number) + step * (direction[a] as number);
      left -= step;
      const open = netOpenness(scene, surface, primitive, at);
      for (let c = 0; c < 3; c++) {
        out[c] = (out[c] as number) * (surface.kind === TRANSLUCENT ? (surface.straight[c] as number) : open);
      }
      if (!((out[0] as number) + (out[1] as number) + (out[2] as number) > 1e-9)) return false;
    }
    return false;
  }

  return { between };
}
