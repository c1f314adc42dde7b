import { type PrimitiveTable, STRIDE } from '../geometry/primitives.js';
import { buildBoundingTree } from './boundingTree.js';
import { intersectPrimitive } from './intersect.js';
import type { RayKernel } from './kernel.js';

/** Deepest tree the kernel walks; a balanced tree of a million primitives needs 20. */
const STACK = 128;

/** The ray kernel in plain TypeScript over typed arrays: the readable reference and the fallback. */
export function createPlainKernel(table: PrimitiveTable): RayKernel {
  const { boxes, children, leaves, order } = buildBoundingTree(table);
  const { kind, data } = table;
  const stack = new Int32Array(STACK);
  const entries = new Float64Array(STACK);
  const ray = new Float64Array(8);
  const rays = new Float64Array(1);
  const empty = table.count === 0;

  /** The nearest hit, or the first found when any will do; -1 for none. */
  function walk(any: boolean): number {
    rays[0] = (rays[0] as number) + 1;
    if (empty) return -1;
    const ox = ray[0] as number;
    const oy = ray[1] as number;
    const oz = ray[2] as number;
    const ix = 1 / (ray[3] as number);
    const iy = 1 / (ray[4] as number);
    const iz = 1 / (ray[5] as number);
    const tMin = ray[6] as number;
    let nearest = ray[7] as number;
    // Offsets of the near and far planes of a box, by the ray's sign.
    const nearX = ix < 0 ? 3 : 0;
    const nearY = iy < 0 ? 4 : 1;
    const nearZ = iz < 0 ? 5 : 2;
    const farX = 3 - nearX;
    const farY = 5 - nearY;
    const farZ = 7 - nearZ;
    let hit = -1;
    let top = 0;
    let node = 0;
    for (;;) {
      if (node >= 0) {
        // A zero direction on a box plane gives NaN, which fails no test: the box is then entered.
        const a = node * 12;
        let enterA = tMin;
        let leaveA = nearest;
        const ax0 = ((boxes[a + nearX] as number) - ox) * ix;
        const ax1 = ((boxes[a + farX] as number) - ox) * ix;
        const ay0 = ((boxes[a + nearY] as number) - oy) * iy;
        const ay1 = ((boxes[a + farY] as number) - oy) * iy;
        const az0 = ((boxes[a + nearZ] as number) - oz) * iz;
        const az1 = ((boxes[a + farZ] as number) - oz) * iz;
        if (ax0 > enterA) enterA = ax0;
        if (ay0 > enterA) enterA = ay0;
        if (az0 > enterA) enterA = az0;
        if (ax1 < leaveA) leaveA = ax1;
        if (ay1 < leaveA) leaveA = ay1;
        if (az1 < leaveA) leaveA = az1;
        const b = a + 6;
        let enterB = tMin;
        let leaveB = nearest;
        const bx0 = ((boxes[b + nearX] as number) - ox) * ix;
        const bx1 = ((boxes[b + farX] as number) - ox) * ix;
        const by0 = ((boxes[b + nearY] as number) - oy) * iy;
        const by1 = ((boxes[b + farY] as number) - oy) * iy;
        const bz0 = ((boxes[b + nearZ] as number) - oz) * iz;
        const bz1 = ((boxes[b + farZ] as number) - oz) * iz;
        if (bx0 > enterB) enterB = bx0;
        if (by0 > enterB) enterB = by0;
        if (bz0 > enterB) enterB = bz0;
        if (bx1 < leaveB) leaveB = bx1;
        if (by1 < leaveB) leaveB = by1;
        if (bz1 < leaveB) leaveB = bz1;
        const first = children[2 * node] as number;
        const second = children[2 * node + 1] as number;
        if (enterA <= leaveA) {
          if (enterB <= leaveB) {
            if (enterA <= enterB) {
              entries[top] = enterB;
              stack[top++] = second;
              node = first;
            } else {
              entries[top] = enterA;
              stack[top++] = first;
              node = second;
            }
          } else node = first;
          continue;
        }
        if (enterB <= leaveB) {
          node = second;
          continue;
        }
      } else {
        const leaf = -2 - 2 * node;
        const start = leaves[leaf] as number;
        const end = start + (leaves[leaf + 1] as number);
        for (let i = start; i < end; i++) {
          const primitive = order[i] as number;
          if (intersectPrimitive(kind[primitive] as number, data, primitive * STRIDE, ray)) {
            if (any) return primitive;
            hit = primitive;
            nearest = ray[7] as number;
          }
        }
      }
      do {
        if (top === 0) return hit;
        top--;
      } while ((entries[top] as number) > nearest);
      node = stack[top] as number;
    }
  }

  return { ray, closestHit: () => walk(false), anyHit: () => walk(true) >= 0, rays };
}
