/**
 * The ray kernel in WebAssembly: a tree of four boxes a node over packs of four primitives, each tested at once in
 * 32-bit numbers with room for their rounding; what may be hit is then tested in 64-bit numbers by the formulas of
 * engine/intersect.ts, so that both kernels give the same hits. Raw loads, no allocation after the constructor.
 * Compiled by AssemblyScript only, in place of engine/kernel.ts.
 */
import { ballPack, conePack, flatPack, packBall, packCone, packFlat, packTriangle, trianglePack } from './packs';
import { ball, cone, flat, NO_HIT, triangle } from './primitives';
import { BALL, CONE, FLAT, SceneTables, STRIDE, TRIANGLE } from './tables';
import {
  HIGH,
  INVERSE,
  LANES_AT,
  LOW,
  NEAR,
  ORIGIN,
  REACH,
  ROUNDED_UP,
  START,
  WIDE_RAY,
  widenRay,
} from './wideRay';

export const RAY_START_M = 1e-6;

/** Bytes of a node: six rows of four 32-bit planes (least x y z, most x y z), four references. */
const NODE: usize = 112;
const REFERENCES: usize = 96;
/** Bytes of a pack: its rows, four primitives, kind, lanes in use, 1 at the last of a leaf; see packs.ts. */
const PACK: usize = 240;
const PRIMITIVES: usize = 208;
const PACK_KIND: usize = 224;
const LANES: usize = 228;
const LAST: usize = 232;
const PLAIN: usize = 236;
/** Deepest stack: three waiting children a level. */
const STACK = 256;

export class Kernel {
  ray: Float64Array = new Float64Array(8);
  rays: Float64Array = new Float64Array(1);
  private nodes: usize = 0;
  private packs: usize = 0;
  private count: i32 = 0;
  private made: i32 = 0;
  private packed: i32 = 0;
  private stack: usize = 0;
  private wide: usize = 0;
  private extent: f32 = 0;
  private tables: SceneTables;
  private children: usize = 0;
  private kinds: usize = 0;
  private data: usize = 0;

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.count = tables.count;
    this.children = changetype<usize>(tables.children);
    this.kinds = changetype<usize>(tables.kind);
    this.data = changetype<usize>(tables.data);
    this.wide = aligned(WIDE_RAY);
    this.stack = aligned(STACK * 8);
    this.nodes = aligned(<usize>(tables.children.length / 2 + 2) * NODE);
    // No leaf has more packs than primitives, nor fewer than one.
    this.packs = aligned(<usize>(this.count + tables.leaves.length / 2 + 1) * PACK);
    if (this.count > 0) {
      for (let i = 0; i < 12; i++) {
        const plane = f32(Math.abs(tables.boxes[i]));
        if (plane > this.extent) this.extent = plane;
      }
      this.widen(0);
    }
  }

  setRay(origin: Float64Array, direction: Float64Array, farthest: f64): void {
    const to = changetype<usize>(this.ray);
    const o = changetype<usize>(origin);
    const d = changetype<usize>(direction);
    store<f64>(to, load<f64>(o));
    store<f64>(to, load<f64>(o, 8), 8);
    store<f64>(to, load<f64>(o, 16), 16);
    store<f64>(to, load<f64>(d), 24);
    store<f64>(to, load<f64>(d, 8), 32);
    store<f64>(to, load<f64>(d, 16), 40);
    store<f64>(to, RAY_START_M, 48);
    store<f64>(to, farthest, 56);
  }

  closestHit(): i32 {
    return this.walk(false);
  }

  anyHit(): boolean {
    return this.walk(true) >= 0;
  }

  /**
   * Makes a node of up to four children out of a binary node, by opening the largest inner child until there are
   * four; returns its index.
   */
  private widen(node: i32): i32 {
    const index = this.made++;
    const at = this.nodes + <usize>index * NODE;
    const boxes = this.tables.boxes;
    // The children so far: their references, and where their boxes are.
    const child = new StaticArray<i32>(4);
    const box = new StaticArray<i32>(4);
    let filled = 2;
    for (let side = 0; side < 2; side++) {
      child[side] = load<i32>(this.children + (<usize>(2 * node + side) << 2));
      box[side] = node * 12 + side * 6;
    }
    while (filled < 4) {
      let largest = -1;
      let most: f64 = -1;
      for (let i = 0; i < filled; i++) {
        const area = halfArea(boxes, box[i]);
        if (child[i] >= 0 && area > most) {
          largest = i;
          most = area;
        }
      }
      if (largest < 0) break;
      const opened = child[largest];
      child[largest] = load<i32>(this.children + (<usize>(2 * opened) << 2));
      box[largest] = opened * 12;
      child[filled] = load<i32>(this.children + (<usize>(2 * opened + 1) << 2));
      box[filled] = opened * 12 + 6;
      filled++;
    }
    for (let i = 0; i < filled; i++) this.place(at, i, boxes, box[i]);
    for (let i = filled; i < 4; i++) {
      for (let row = 0; row < 6; row++) {
        store<f32>(at + (<usize>(row * 4 + i) << 2), row < 3 ? Infinity : -Infinity);
      }
      store<i32>(at + REFERENCES + (<usize>i << 2), -1);
    }
    for (let i = 0; i < filled; i++) {
      const reference = child[i] >= 0 ? this.widen(child[i]) : this.packLeaf(-1 - child[i]);
      store<i32>(at + REFERENCES + (<usize>i << 2), reference);
    }
    return index;
  }

  /** Lays out the packs of a leaf; returns its reference: -1 - the first pack. */
  private packLeaf(leaf: i32): i32 {
    const first = this.packed;
    this.packKind(leaf, FLAT);
    this.packKind(leaf, TRIANGLE);
    this.packKind(leaf, CONE);
    this.packKind(leaf, BALL);
    if (this.packed === first) this.beginPack(BALL);
    store<i32>(this.packs + <usize>(this.packed - 1) * PACK, 1, LAST);
    return -1 - first;
  }

  private packKind(leaf: i32, kind: i32): void {
    const from = this.tables.leaves[2 * leaf];
    const end = from + this.tables.leaves[2 * leaf + 1];
    let lane = 4;
    let at: usize = 0;
    for (let i = from; i < end; i++) {
      const primitive = this.tables.order[i];
      const own = load<i32>(this.kinds + (<usize>primitive << 2));
      if (own !== kind) continue;
      if (lane === 4) {
        at = this.beginPack(kind);
        lane = 0;
      }
      const d = this.data + <usize>primitive * (STRIDE * 8);
      let plain = kind === TRIANGLE;
      if (kind === FLAT) plain = packFlat(at, lane, d);
      else if (kind === TRIANGLE) packTriangle(at, lane, d);
      else if (kind === CONE) packCone(at, lane, d);
      else packBall(at, lane, d);
      store<i32>(at + PRIMITIVES + (<usize>lane << 2), primitive);
      lane++;
      store<i32>(at, (1 << lane) - 1, LANES);
      if (plain) store<i32>(at, load<i32>(at, PLAIN) | (1 << (lane - 1)), PLAIN);
    }
  }

  private beginPack(kind: i32): usize {
    const at = this.packs + <usize>this.packed * PACK;
    this.packed++;
    memory.fill(at, 0, PACK);
    store<i32>(at, kind, PACK_KIND);
    return at;
  }

  private place(at: usize, slot: i32, boxes: Float64Array, from: i32): void {
    for (let row = 0; row < 3; row++) {
      const low = boxes[from + row];
      const high = boxes[from + row + 3];
      // An empty box of the binary tree is turned inside out and stays so.
      const pad = low <= high ? 1e-6 * (1 + Math.max(Math.abs(low), Math.abs(high))) : 0;
      store<f32>(at + (<usize>(row * 4 + slot) << 2), f32(low - pad));
      store<f32>(at + (<usize>((row + 3) * 4 + slot) << 2), f32(high + pad));
    }
  }

  /** Distance of a hit of one primitive, in 64-bit numbers; `NO_HIT` for none. */
  private exactly(primitive: i32, kind: i32, ray: usize, to: f64): f64 {
    const d = this.data + <usize>primitive * (STRIDE * 8);
    if (kind === FLAT) return flat(d, ray, to);
    if (kind === TRIANGLE) return triangle(d, ray, to);
    if (kind === CONE) return cone(d, ray, to);
    return ball(d, ray, to);
  }

  private walk(any: bool): i32 {
    const counter = changetype<usize>(this.rays);
    store<f64>(counter, load<f64>(counter) + 1);
    if (this.count === 0) return -1;
    const ray = changetype<usize>(this.ray);
    const wide = this.wide;
    let nearest = load<f64>(ray, 56);
    widenRay(wide, ray, this.extent);
    const nodes = this.nodes;
    const stack = this.stack;
    let limit = beyond(nearest);
    v128.store(wide, f32x4.splat(limit), REACH);
    let top = stack;
    let reference = 0;
    let hit = -1;
    // Hit for sure, and nearer than `hit`, but not yet measured in 64 bits: between these two distances.
    let waiting = -1;
    let waitingLow: f32 = 0;
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
        const x0 = f32x4.mul(f32x4.sub(v128.load(at + nearX), ox), ix);
        const y0 = f32x4.mul(f32x4.sub(v128.load(at + nearY), oy), iy);
        const z0 = f32x4.mul(f32x4.sub(v128.load(at + nearZ), oz), iz);
        const x1 = f32x4.mul(f32x4.sub(v128.load(at - nearX, 48), ox), ix);
        const y1 = f32x4.mul(f32x4.sub(v128.load(at - nearY, 80), oy), iy);
        const z1 = f32x4.mul(f32x4.sub(v128.load(at - nearZ, 112), oz), iz);
        const enter = f32x4.pmax(f32x4.pmax(x0, y0), f32x4.pmax(z0, v128.load(wide, START)));
        const leave = f32x4.pmin(f32x4.pmin(x1, y1), f32x4.pmin(z1, v128.load(wide, REACH)));
        // Rounding in 32 bits may part what touches: the far side is moved out by as much.
        let mask = i32x4.bitmask(f32x4.le(enter, f32x4.mul(leave, v128.load(wide, ROUNDED_UP))));
        if (mask !== 0) {
          const first = ctz(mask);
          mask &= mask - 1;
          let best = load<i32>(at + (<usize>first << 2), REFERENCES);
          if (mask !== 0) {
            v128.store(wide, enter, LANES_AT);
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
        let at = this.packs + <usize>(-1 - reference) * PACK;
        while (true) {
          const kind = load<i32>(at, PACK_KIND);
          let mask = load<i32>(at, LANES);
          let sure = 0;
          if (kind === FLAT) sure = flatPack(at, wide);
          else if (kind === CONE) sure = conePack(at, wide);
          else if (kind === TRIANGLE) sure = trianglePack(at, wide);
          else sure = ballPack(at, wide);
          mask &= sure;
          if (mask !== 0) {
            sure = (sure >> 4) & load<i32>(at, PLAIN);
            if (any && (sure & mask) !== 0) return load<i32>(at + (<usize>ctz(sure & mask) << 2), PRIMITIVES);
            do {
              const lane = <usize>ctz(mask) << 2;
              const isSure = (sure & mask & -mask) !== 0;
              mask &= mask - 1;
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
              let t = this.exactly(primitive, kind, ray, nearest);
              if (!(t > NO_HIT)) continue;
              if (any) return primitive;
              let found = primitive;
              if (waiting >= 0) {
                if (t > limit) continue;
                if (t >= waitingLow) {
                  // Too close to tell: the one that waits is measured too. Of two in one place the first stays.
                  const other = this.exactly(waiting, load<i32>(this.kinds + (<usize>waiting << 2)), ray, nearest);
                  if (other > NO_HIT && other <= t) {
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
            const t = this.exactly(waiting, load<i32>(this.kinds + (<usize>waiting << 2)), ray, nearest);
            if (t > NO_HIT) {
              hit = waiting;
              nearest = t;
            }
          }
          store<f64>(ray, nearest, 56);
          return hit;
        }
        top -= 8;
      } while (!(load<f32>(top, 4) <= limit));
      reference = load<i32>(top);
    }
  }
}

/** A distance in 32 bits that is not shorter. */
// @ts-ignore: decorator
@inline
function beyond(t: f64): f32 {
  return f32(t) * 1.000001 + 1e-6;
}

/** Room on a 16-byte boundary. */
function aligned(bytes: usize): usize {
  return (heap.alloc(bytes + 16) + 15) & ~15;
}

function halfArea(boxes: Float64Array, at: i32): f64 {
  const x = Math.max(0, boxes[at + 3] - boxes[at]);
  const y = Math.max(0, boxes[at + 4] - boxes[at + 1]);
  const z = Math.max(0, boxes[at + 5] - boxes[at + 2]);
  return x * y + y * z + z * x;
}
