import { intersectPrimitive } from './intersect.js';
import {
  BOX_STRIDE,
  NODE_STRIDE,
  PRIMITIVE_STRIDE,
  RAY_DIRECTION,
  RAY_FROM,
  RAY_ORIGIN,
  RAY_START_M,
  RAY_STRIDE,
  RAY_TO,
} from './layouts.js';
import type { i32 } from './portable.js';
import { Room, WALLS } from './room.js';
import type { SceneTables } from './tables.js';

/** Deepest tree the kernel walks; a balanced tree of a million primitives needs 20. */
const STACK = 128;

/** A wall is that near at least, of where a ray leaves the room. */
const EARLY = 0.999999;

/** A distance times this is the next one or the one after. */
const JUST_BEYOND = 1 + 2.220446049250313e-16;

/**
 * The ray kernel: what every picture, map and reading asks of the geometry. A ray is written to `ray`, then asked
 * about. Plain and readable; the WebAssembly build puts one in its place that tests eight boxes and four primitives at a time.
 */
export class Kernel {
  /** The ray to ask about: 0-2 origin m, 3-5 unit direction, 6 nearest and 7 farthest distance, m. */
  ray: Float64Array = new Float64Array(RAY_STRIDE);
  /** One number: rays traced since the kernel was made. */
  rays: Float64Array = new Float64Array(1);
  private tables: SceneTables;
  private room: Room;
  private stack: Int32Array = new Int32Array(STACK);
  private entries: Float64Array = new Float64Array(STACK);

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.room = new Room(tables);
  }

  /** Writes a ray from a point, from just off its surface to a distance. */
  setRay(origin: Float64Array, direction: Float64Array, farthest: number): void {
    const ray = this.ray;
    ray[RAY_ORIGIN] = origin[0];
    ray[RAY_ORIGIN + 1] = origin[1];
    ray[RAY_ORIGIN + 2] = origin[2];
    ray[RAY_DIRECTION] = direction[0];
    ray[RAY_DIRECTION + 1] = direction[1];
    ray[RAY_DIRECTION + 2] = direction[2];
    ray[RAY_FROM] = RAY_START_M;
    ray[RAY_TO] = farthest;
  }

  /**
   * Nearest primitive between the two distances.
   * @returns its index, with its distance written to `ray[RAY_TO]`; -1 for none
   */
  closestHit(): i32 {
    return this.walk(false);
  }

  /**
   * Takes up a block of the picture, by its edges from 0 to 1, for `closestInView`. This kernel has no use for it; the one in
   * WebAssembly looks up once what all rays through the block may meet.
   * @param view see `VIEW_ORIGIN` and those below it; rays start at its origin
   */
  openView(_view: Float64Array, _left: number, _right: number, _top: number, _bottom: number): void {}

  /** `closestHit` of a ray that the camera sends through the block taken up last. */
  closestInView(): i32 {
    return this.closestHit();
  }

  /** Whether anything at all stands between the two distances; `ray[RAY_TO]` is then undefined. */
  anyHit(): boolean {
    return this.walk(true) >= 0;
  }

  /** The nearest hit, or the first found when any will do; -1 for none. */
  private walk(any: boolean): i32 {
    this.rays[0] = this.rays[0] + 1;
    const t = this.tables;
    const boxes = t.boxes;
    const children = t.children;
    const leaves = t.leaves;
    const order = t.order;
    const kind = t.kind;
    const data = t.data;
    const ray = this.ray;
    const stack = this.stack;
    const entries = this.entries;
    const ox = ray[RAY_ORIGIN];
    const oy = ray[RAY_ORIGIN + 1];
    const oz = ray[RAY_ORIGIN + 2];
    const ix = 1 / ray[RAY_DIRECTION];
    const iy = 1 / ray[RAY_DIRECTION + 1];
    const iz = 1 / ray[RAY_DIRECTION + 2];
    const tMin = ray[RAY_FROM];
    let nearest = ray[RAY_TO];
    // Offsets of the near and far planes of a box, by the ray's sign.
    const nearX = ix < 0 ? 3 : 0;
    const nearY = iy < 0 ? 4 : 1;
    const nearZ = iz < 0 ? 5 : 2;
    const farX = 3 - nearX;
    const farY = 5 - nearY;
    const farZ = 7 - nearZ;
    let hit: i32 = -1;
    if (t.room >= 0) {
      const wall: i32 = this.room.exit(ray);
      const from: i32 = wall < 0 ? t.room : t.room + wall;
      const count: i32 = wall < 0 ? WALLS : this.room.exitM * EARLY < nearest ? 1 : 0;
      for (let i: i32 = from; i < from + count; i++) {
        if (!intersectPrimitive(kind[i], data, i * PRIMITIVE_STRIDE, ray)) continue;
        if (any) return i;
        hit = i;
        nearest = ray[RAY_TO];
      }
    }
    let top: i32 = 0;
    let node: i32 = 0;
    for (;;) {
      let next: i32 = -1;
      let found = false;
      if (node >= 0) {
        // A zero direction on a box plane gives NaN, which fails no test: the box is then entered.
        const a = node * NODE_STRIDE;
        let enterA = tMin;
        let leaveA = nearest;
        const ax0 = (boxes[a + nearX] - ox) * ix;
        const ax1 = (boxes[a + farX] - ox) * ix;
        const ay0 = (boxes[a + nearY] - oy) * iy;
        const ay1 = (boxes[a + farY] - oy) * iy;
        const az0 = (boxes[a + nearZ] - oz) * iz;
        const az1 = (boxes[a + farZ] - oz) * iz;
        if (ax0 > enterA) enterA = ax0;
        if (ay0 > enterA) enterA = ay0;
        if (az0 > enterA) enterA = az0;
        if (ax1 < leaveA) leaveA = ax1;
        if (ay1 < leaveA) leaveA = ay1;
        if (az1 < leaveA) leaveA = az1;
        const b = a + BOX_STRIDE;
        let enterB = tMin;
        let leaveB = nearest;
        const bx0 = (boxes[b + nearX] - ox) * ix;
        const bx1 = (boxes[b + farX] - ox) * ix;
        const by0 = (boxes[b + nearY] - oy) * iy;
        const by1 = (boxes[b + farY] - oy) * iy;
        const bz0 = (boxes[b + nearZ] - oz) * iz;
        const bz1 = (boxes[b + farZ] - oz) * iz;
        if (bx0 > enterB) enterB = bx0;
        if (by0 > enterB) enterB = by0;
        if (bz0 > enterB) enterB = bz0;
        if (bx1 < leaveB) leaveB = bx1;
        if (by1 < leaveB) leaveB = by1;
        if (bz1 < leaveB) leaveB = bz1;
        const first = children[2 * node];
        const second = children[2 * node + 1];
        if (enterA <= leaveA) {
          found = true;
          next = first;
          if (enterB <= leaveB) {
            const nearA = enterA <= enterB;
            entries[top] = nearA ? enterB : enterA;
            stack[top] = nearA ? second : first;
            top++;
            next = nearA ? first : second;
          }
        } else if (enterB <= leaveB) {
          found = true;
          next = second;
        }
      } else {
        const leaf = -2 - 2 * node;
        const start = leaves[leaf];
        const end = start + leaves[leaf + 1];
        for (let i = start; i < end; i++) {
          const primitive = order[i];
          // Of two in one place the first of the table is met, whatever the tree.
          if (primitive < hit) ray[RAY_TO] = nearest * JUST_BEYOND;
          if (intersectPrimitive(kind[primitive], data, primitive * PRIMITIVE_STRIDE, ray)) {
            if (any) return primitive;
            if (ray[RAY_TO] <= nearest) {
              hit = primitive;
              nearest = ray[RAY_TO];
            }
          }
          ray[RAY_TO] = nearest;
        }
      }
      if (found) {
        node = next;
        continue;
      }
      do top--;
      while (top >= 0 && entries[top] > nearest);
      if (top < 0) break;
      node = stack[top];
    }
    return hit;
  }
}
