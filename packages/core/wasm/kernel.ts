/**
 * The ray kernel in WebAssembly: a tree of eight boxes a node over packs of four primitives, each tested at once in
 * 32-bit numbers with room for their rounding. What may be hit is tested in 64-bit numbers by the formulas of
 * engine/intersect.ts, so that both kernels give the same hits; what is hit for sure waits until it is known to be the
 * nearest. Raw loads, no allocation after the constructor.
 * Compiled by AssemblyScript only, in place of engine/kernel.ts.
 */
import { Frustum } from './frustum';
import { testPack } from './packs';
import { ball, cone, flat, flatDistance, triangle, triangleDistance } from './intersect';
import { Room, WALLS } from './room';
import { CONE, FLAT, TRIANGLE, PRIMITIVE_STRIDE, RAY_DIRECTION, RAY_FROM, RAY_ORIGIN, RAY_START_M, RAY_STRIDE, RAY_TO } from './layouts';
import { SceneTables } from './tables';
import {
  HIGH,
  INVERSE,
  LANES_AT,
  LEAVES,
  LOW,
  NEAR,
  ORIGIN,
  REACH,
  ROUNDED_UP,
  START,
  WIDE_RAY,
  widenRay,
} from './wideRay';
import {
  aligned,
  LANES,
  LAST,
  NODE,
  PACK,
  PACK_KIND,
  PLANES,
  PRIMITIVES,
  REFERENCES,
  WideTree,
} from './wideTree';

/** Distance of a hit that is none. */
const NO_HIT: f64 = -1;

/** A distance times this is the next one or the one after. */
const JUST_BEYOND: f64 = 1 + 2.220446049250313e-16;

/** A distance as 32 bits know it lies between these parts of it. */
const EARLY: f32 = 0.999999;
const LATE: f32 = 1.000001;

/** Deepest stack: seven waiting children a level. */
const STACK = 512;

/** The far planes of an axis lie so far from a node, less where its near ones lie: bytes. */
const FAR_X: usize = 3 * PLANES;
const FAR_Y: usize = 5 * PLANES;
const FAR_Z: usize = 7 * PLANES;

export class Kernel {
  ray: StaticArray<f64> = new StaticArray<f64>(RAY_STRIDE);
  rays: StaticArray<f64> = new StaticArray<f64>(1);
  private tree: WideTree;
  private frustum: Frustum;
  private viewStart: i32 = 0;
  private room: Room;
  private roomAt: i32 = -1;
  private stack: usize = 0;
  private wide: usize = 0;
  private kinds: StaticArray<i32>;
  private data: usize = 0;

  constructor(tables: SceneTables) {
    this.kinds = tables.kind;
    this.data = changetype<usize>(tables.data);
    this.room = new Room(tables);
    this.roomAt = tables.room;
    const tree = new WideTree(tables);
    this.tree = tree;
    this.frustum = new Frustum(tree);
    this.stack = aligned(STACK * 8);
    this.wide = aligned(WIDE_RAY);
  }

  setRay(origin: StaticArray<f64>, direction: StaticArray<f64>, farthest: f64): void {
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

  closestHit(): i32 {
    return this.walk(false, 0);
  }

  openView(view: StaticArray<f64>, left: f64, right: f64, top: f64, bottom: f64): void {
    this.viewStart = this.frustum.open(view, left, right, top, bottom);
  }

  closestInView(): i32 {
    return this.walk(false, this.viewStart);
  }

  anyHit(): boolean {
    return this.walk(true, 0) >= 0;
  }

  /** Distance of a hit of one primitive nearer than `to`, in 64-bit numbers; `NO_HIT` for none. */
  private exactly(primitive: i32, kind: i32, ray: StaticArray<f64>, to: f64): f64 {
    const d = this.row(primitive);
    ray[RAY_TO] = to;
    let isHit: bool;
    if (kind === FLAT) isHit = flat(d, 0, ray);
    else if (kind === TRIANGLE) isHit = triangle(d, 0, ray);
    else if (kind === CONE) isHit = cone(d, 0, ray);
    else isHit = ball(d, 0, ray);
    return isHit ? ray[RAY_TO] : NO_HIT;
  }

  /** The same of a flat or a triangle that is hit for sure. */
  private measured(primitive: i32, ray: StaticArray<f64>): f64 {
    const d = this.row(primitive);
    return this.kinds[primitive] === FLAT ? flatDistance(d, 0, ray) : triangleDistance(d, 0, ray);
  }

  /** The numbers of a primitive as an array of their own. */
  // @ts-ignore: decorator
  @inline
  private row(primitive: i32): StaticArray<f64> {
    return changetype<StaticArray<f64>>(this.data + <usize>primitive * (PRIMITIVE_STRIDE * 8));
  }

  /** @param start where in the tree */
  private walk(any: bool, start: i32): i32 {
    this.rays[0]++;
    const ray = this.ray;
    const wide = this.wide;
    let nearest = ray[RAY_TO];
    widenRay(wide, ray, this.tree.extent);
    const nodes = this.tree.nodes;
    const packs = this.tree.packs;
    const stack = this.stack;
    let limit = beyond(nearest);
    let top = stack;
    let reference = start;
    let hit = -1;
    // Hit for sure, and nearer than `hit`, but not yet measured in 64 bits: between these two distances.
    let waiting = -1;
    let waitingLow: f32 = 0;
    if (this.roomAt >= 0) {
      const wall = this.room.exit(ray, wide);
      const exit = load<f32>(wide, LEAVES);
      if (wall >= 0 && exit * LATE < nearest) {
        if (any) return this.roomAt + wall;
        waiting = this.roomAt + wall;
        waitingLow = exit * EARLY;
        limit = exit * LATE;
      } else if (wall < 0 || exit * EARLY < limit) {
        const from = wall < 0 ? this.roomAt : this.roomAt + wall;
        const end = wall < 0 ? from + WALLS : from + 1;
        for (let i = from; i < end; i++) {
          const t = this.exactly(i, FLAT, ray, nearest);
          if (!(t > NO_HIT)) continue;
          if (any) return i;
          hit = i;
          nearest = t;
          limit = beyond(nearest);
        }
      }
    }
    v128.store(wide, f32x4.splat(limit), REACH);
    while (true) {
      if (reference >= 0) {
        const at = nodes + <usize>reference * NODE;
        const ox = v128.load(wide, ORIGIN);
        const oy = v128.load(wide, ORIGIN + 16);
        const oz = v128.load(wide, ORIGIN + 32);
        const ix = v128.load(wide, INVERSE);
        const iy = v128.load(wide, INVERSE + 16);
        const iz = v128.load(wide, INVERSE + 32);
        const nearX: usize = load<u32>(wide, NEAR);
        const nearY: usize = load<u32>(wide, NEAR + 4);
        const nearZ: usize = load<u32>(wide, NEAR + 8);
        const early = v128.load(wide, START);
        const reach = v128.load(wide, REACH);
        const up = v128.load(wide, ROUNDED_UP);
        const x0 = f32x4.mul(f32x4.sub(v128.load(at + nearX), ox), ix);
        const y0 = f32x4.mul(f32x4.sub(v128.load(at + nearY), oy), iy);
        const z0 = f32x4.mul(f32x4.sub(v128.load(at + nearZ), oz), iz);
        const x1 = f32x4.mul(f32x4.sub(v128.load(at - nearX, FAR_X), ox), ix);
        const y1 = f32x4.mul(f32x4.sub(v128.load(at - nearY, FAR_Y), oy), iy);
        const z1 = f32x4.mul(f32x4.sub(v128.load(at - nearZ, FAR_Z), oz), iz);
        const enter = f32x4.pmax(f32x4.pmax(x0, y0), f32x4.pmax(z0, early));
        const leave = f32x4.pmin(f32x4.pmin(x1, y1), f32x4.pmin(z1, reach));
        const x2 = f32x4.mul(f32x4.sub(v128.load(at + nearX, 16), ox), ix);
        const y2 = f32x4.mul(f32x4.sub(v128.load(at + nearY, 16), oy), iy);
        const z2 = f32x4.mul(f32x4.sub(v128.load(at + nearZ, 16), oz), iz);
        const x3 = f32x4.mul(f32x4.sub(v128.load(at - nearX, FAR_X + 16), ox), ix);
        const y3 = f32x4.mul(f32x4.sub(v128.load(at - nearY, FAR_Y + 16), oy), iy);
        const z3 = f32x4.mul(f32x4.sub(v128.load(at - nearZ, FAR_Z + 16), oz), iz);
        const enterNext = f32x4.pmax(f32x4.pmax(x2, y2), f32x4.pmax(z2, early));
        const leaveNext = f32x4.pmin(f32x4.pmin(x3, y3), f32x4.pmin(z3, reach));
        // Rounding in 32 bits may part what touches: the far side is moved out by as much.
        let mask =
          i32x4.bitmask(f32x4.le(enter, f32x4.mul(leave, up))) |
          (i32x4.bitmask(f32x4.le(enterNext, f32x4.mul(leaveNext, up))) << 4);
        if (mask !== 0) {
          const first = ctz(mask);
          mask &= mask - 1;
          let best = load<i32>(at + (<usize>first << 2), REFERENCES);
          if (mask !== 0) {
            v128.store(wide, enter, LANES_AT);
            v128.store(wide, enterNext, LANES_AT + 16);
            let bestAt = load<f32>(wide + (<usize>first << 2), LANES_AT);
            do {
              const other = ctz(mask);
              mask &= mask - 1;
              const otherAt = load<f32>(wide + (<usize>other << 2), LANES_AT);
              const otherReference = load<i32>(at + (<usize>other << 2), REFERENCES);
              if (otherAt < bestAt) {
                store<i32>(top, best);
                store<f32>(top, bestAt, 4);
                best = otherReference;
                bestAt = otherAt;
              } else {
                store<i32>(top, otherReference);
                store<f32>(top, otherAt, 4);
              }
              top += 8;
            } while (mask !== 0);
          }
          reference = best;
          continue;
        }
      } else {
        let at = packs + <usize>(-1 - reference) * PACK;
        while (true) {
          const kind = load<i32>(at, PACK_KIND);
          let mask = load<i32>(at, LANES);
          let sure = testPack(kind, at, wide);
          mask &= sure;
          if (mask !== 0) {
            sure = sure >> 4;
            if (any && (sure & mask) !== 0) return load<i32>(at + (<usize>ctz(sure & mask) << 2), PRIMITIVES);
            const byDistance = kind === CONE && (mask & (mask - 1)) !== 0;
            do {
              const bit = byDistance ? earliest(mask, wide) : mask & -mask;
              const lane = <usize>ctz(bit) << 2;
              const isSure = (sure & bit) !== 0;
              mask &= ~bit;
              if (byDistance && load<f32>(wide + lane, LOW) > limit) break;
              const primitive = load<i32>(at + lane, PRIMITIVES);
              if (isSure) {
                const low = load<f32>(wide + lane, LOW);
                const high = load<f32>(wide + lane, HIGH);
                if (low > limit) continue;
                if (high < (waiting < 0 ? limit * <f32>0.999998 - <f32>2e-6 : waitingLow)) {
                  waiting = primitive;
                  waitingLow = low;
                  limit = high;
                  v128.store(wide, f32x4.splat(limit), REACH);
                  continue;
                }
              }
              // Of two in one place the first of the table is met, whatever the tree.
              let t = this.exactly(primitive, kind, ray, primitive < hit ? nearest * JUST_BEYOND : nearest);
              if (!(t > NO_HIT && t <= nearest)) continue;
              if (any) return primitive;
              let found = primitive;
              if (waiting >= 0) {
                if (t > limit) continue;
                if (t >= waitingLow) {
                  // Too close to tell: the one that waits is measured too.
                  const other = this.measured(waiting, ray);
                  if (other < t || (other === t && waiting < primitive)) {
                    found = waiting;
                    t = other;
                  }
                }
                waiting = -1;
              }
              hit = found;
              nearest = t;
              limit = beyond(nearest);
              v128.store(wide, f32x4.splat(limit), REACH);
            } while (mask !== 0);
          }
          if (load<i32>(at, LAST) !== 0) break;
          at += PACK;
        }
      }
      do {
        if (top === stack) {
          if (waiting >= 0) {
            hit = waiting;
            nearest = this.measured(waiting, ray);
          }
          ray[RAY_TO] = nearest;
          return hit;
        }
        top -= 8;
      } while (!(load<f32>(top, 4) <= limit));
      reference = load<i32>(top);
    }
  }
}

/** Of some lanes the one whose least distance is least, as a bit. */
function earliest(mask: i32, wide: usize): i32 {
  let best = mask & -mask;
  let low = load<f32>(wide + (<usize>ctz(best) << 2), LOW);
  for (let rest = mask & (mask - 1); rest !== 0; rest &= rest - 1) {
    const other = load<f32>(wide + (<usize>ctz(rest) << 2), LOW);
    if (!(other < low)) continue;
    best = rest & -rest;
    low = other;
  }
  return best;
}

/** A distance in 32 bits that is not shorter. */
// @ts-ignore: decorator
@inline
function beyond(t: f64): f32 {
  return f32(t) * 1.000001 + 1e-6;
}
