/**
 * The ray kernel in WebAssembly: a tree of four boxes a node over packs of four primitives, each tested at once in
 * 32-bit numbers with room for their rounding; what may be hit is then tested in 64-bit numbers by the formulas of
 * engine/intersect.ts, so that both kernels give the same hits. Raw loads, no allocation after the constructor.
 * Compiled by AssemblyScript only, in place of engine/kernel.ts.
 */
import { BALL, CONE, FLAT, SceneTables, STRIDE, TRIANGLE } from './tables';

export const RAY_START_M = 1e-6;

/** Bytes of a node: six rows of four 32-bit planes (least x y z, most x y z), four references. */
const NODE: usize = 112;
const REFERENCES: usize = 96;
/**
 * Bytes of a pack: rows of four 32-bit numbers, then four primitives, kind, lanes in use, 1 at the last of a leaf.
 * FLAT: normal x y z, normal . corner, then for each edge its direction over half its length squared and the place
 * of the corner along it, then the steeper of both. TRIANGLE: corner, edge u, edge v, longer edge, |u| |v|.
 * CONE: axis, foot, height, least and most radius.
 */
const PACK: usize = 240;
const PRIMITIVES: usize = 208;
const PACK_KIND: usize = 224;
const LANES: usize = 228;
const LAST: usize = 232;
/** Rounding of a product of 32-bit numbers over their size, with a margin of about eight. */
const ROUNDING: f32 = 2e-6;
/** Deepest stack: three waiting children a level. */
const STACK = 256;
/** Distance of a hit that is none. */
const NO_HIT: f64 = -1;

export class Kernel {
  ray: Float64Array = new Float64Array(8);
  rays: Float64Array = new Float64Array(1);
  private nodes: usize = 0;
  private packs: usize = 0;
  private count: i32 = 0;
  private made: i32 = 0;
  private packed: i32 = 0;
  private stack: usize = 0;
  private lanes: usize = 0;
  private extent: f32 = 0;
  private tables: SceneTables;
  private children: usize = 0;
  private kinds: usize = 0;
  private data: usize = 0;

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.count = tables.count;
    this.children = tables.children.dataStart;
    this.kinds = tables.kind.dataStart;
    this.data = tables.data.dataStart;
    this.lanes = aligned(16);
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
    const to = this.ray.dataStart;
    const o = origin.dataStart;
    const d = direction.dataStart;
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
      if (kind === FLAT) packFlat(at, lane, d);
      else if (kind === TRIANGLE) packTriangle(at, lane, d);
      else if (kind === CONE) packCone(at, lane, d);
      store<i32>(at + PRIMITIVES + (<usize>lane << 2), primitive);
      lane++;
      store<i32>(at, (1 << lane) - 1, LANES);
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

  private walk(any: bool): i32 {
    const counter = this.rays.dataStart;
    store<f64>(counter, load<f64>(counter) + 1);
    if (this.count === 0) return -1;
    const ray = this.ray.dataStart;
    const ox = load<f64>(ray);
    const oy = load<f64>(ray, 8);
    const oz = load<f64>(ray, 16);
    const dx = load<f64>(ray, 24);
    const dy = load<f64>(ray, 32);
    const dz = load<f64>(ray, 40);
    const from = load<f64>(ray, 48);
    let nearest = load<f64>(ray, 56);
    // Inverse directions are kept finite, so that no plane gives a number that is none.
    const ix = inverse(dx);
    const iy = inverse(dy);
    const iz = inverse(dz);
    const vix = f32x4.splat(ix);
    const viy = f32x4.splat(iy);
    const viz = f32x4.splat(iz);
    const vox = f32x4.splat(f32(ox));
    const voy = f32x4.splat(f32(oy));
    const voz = f32x4.splat(f32(oz));
    // Rows of the near and far planes, by the ray's sign.
    const nearX: usize = ix < 0 ? 48 : 0;
    const nearY: usize = iy < 0 ? 64 : 16;
    const nearZ: usize = iz < 0 ? 80 : 32;
    const farX: usize = 48 - nearX;
    const farY: usize = 80 - nearY;
    const farZ: usize = 112 - nearZ;
    const start = f32x4.splat(f32(from) - 2e-6);
    let reach = f32x4.splat(beyond(nearest));
    const vdx = f32x4.splat(f32(dx));
    const vdy = f32x4.splat(f32(dy));
    const vdz = f32x4.splat(f32(dz));
    const size = this.extent + f32(Math.abs(ox)) + f32(Math.abs(oy)) + f32(Math.abs(oz));
    const slack = f32x4.splat(ROUNDING * size);
    const nodes = this.nodes;
    const stack = this.stack;
    const lanes = this.lanes;
    let top: usize = 0;
    let reference = 0;
    let hit = -1;
    while (true) {
      if (reference >= 0) {
        const at = nodes + <usize>reference * NODE;
        const x0 = f32x4.mul(f32x4.sub(v128.load(at + nearX), vox), vix);
        const y0 = f32x4.mul(f32x4.sub(v128.load(at + nearY), voy), viy);
        const z0 = f32x4.mul(f32x4.sub(v128.load(at + nearZ), voz), viz);
        const x1 = f32x4.mul(f32x4.sub(v128.load(at + farX), vox), vix);
        const y1 = f32x4.mul(f32x4.sub(v128.load(at + farY), voy), viy);
        const z1 = f32x4.mul(f32x4.sub(v128.load(at + farZ), voz), viz);
        const enter = f32x4.pmax(f32x4.pmax(x0, y0), f32x4.pmax(z0, start));
        const leave = f32x4.pmin(f32x4.pmin(x1, y1), f32x4.pmin(z1, reach));
        // Rounding in 32 bits may part what touches: the far side is moved out by as much.
        let mask = i32x4.bitmask(f32x4.le(enter, f32x4.mul(leave, f32x4.splat(1.000002))));
        if (mask !== 0) {
          const first = ctz(mask);
          mask &= mask - 1;
          let best = load<i32>(at + REFERENCES + (<usize>first << 2));
          if (mask !== 0) {
            v128.store(lanes, enter);
            let bestAt = load<f32>(lanes + (<usize>first << 2));
            do {
              const other = ctz(mask);
              mask &= mask - 1;
              const otherAt = load<f32>(lanes + (<usize>other << 2));
              const otherReference = load<i32>(at + REFERENCES + (<usize>other << 2));
              if (otherAt < bestAt) {
                store<i32>(stack + top, best);
                store<f32>(stack + top, bestAt, 4);
                best = otherReference;
                bestAt = otherAt;
              } else {
                store<i32>(stack + top, otherReference);
                store<f32>(stack + top, otherAt, 4);
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
          if (kind === FLAT) mask &= flatPack(at, vox, voy, voz, vdx, vdy, vdz, start, reach, slack);
          else if (kind === CONE) mask &= conePack(at, vox, voy, voz, vdx, vdy, vdz, start, reach, size);
          else if (kind === TRIANGLE) mask &= trianglePack(at, vox, voy, voz, vdx, vdy, vdz, start, reach, slack);
          while (mask !== 0) {
            const primitive = load<i32>(at + PRIMITIVES + (<usize>ctz(mask) << 2));
            mask &= mask - 1;
            const d = this.data + <usize>primitive * (STRIDE * 8);
            let t: f64;
            if (kind === FLAT) t = flat(d, ox, oy, oz, dx, dy, dz, from, nearest);
            else if (kind === TRIANGLE) t = triangle(d, ox, oy, oz, dx, dy, dz, from, nearest);
            else if (kind === CONE) t = cone(d, ox, oy, oz, dx, dy, dz, from, nearest);
            else t = ball(d, ox, oy, oz, dx, dy, dz, from, nearest);
            if (t > NO_HIT) {
              if (any) return primitive;
              hit = primitive;
              nearest = t;
              reach = f32x4.splat(beyond(nearest));
            }
          }
          if (load<i32>(at, LAST) !== 0) break;
          at += PACK;
        }
      }
      let found = false;
      const limit = beyond(nearest);
      while (top > 0) {
        top -= 8;
        if (load<f32>(stack + top, 4) <= limit) {
          reference = load<i32>(stack + top);
          found = true;
          break;
        }
      }
      if (!found) break;
    }
    store<f64>(ray, nearest, 56);
    return hit;
  }
}

// @ts-ignore: decorator
@inline
function inverse(d: f64): f32 {
  const i = f32(1 / d);
  return i > 1e18 ? 1e18 : i < -1e18 ? -1e18 : i;
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

function put(at: usize, row: i32, lane: i32, value: f64): void {
  store<f32>(at + (<usize>(row * 4 + lane) << 2), f32(value));
}

function number(d: usize, i: i32): f64 {
  return load<f64>(d + (<usize>i << 3));
}

/** Dot product of two triples of a primitive. */
function product(d: usize, i: i32, j: i32): f64 {
  return number(d, i) * number(d, j) + number(d, i + 1) * number(d, j + 1) + number(d, i + 2) * number(d, j + 2);
}

function packFlat(at: usize, lane: i32, d: usize): void {
  for (let a = 0; a < 3; a++) put(at, a, lane, number(d, 9 + a));
  put(at, 3, lane, product(d, 9, 0));
  let steepest: f64 = 0;
  for (let edge = 0; edge < 2; edge++) {
    const scale = 2 * number(d, 12 + edge);
    const row = 4 + 4 * edge;
    for (let a = 0; a < 3; a++) put(at, row + a, lane, scale * number(d, 3 + 3 * edge + a));
    put(at, row + 3, lane, -scale * product(d, 3 + 3 * edge, 0) - 1);
    steepest = Math.max(steepest, scale * Math.sqrt(product(d, 3 + 3 * edge, 3 + 3 * edge)));
  }
  put(at, 12, lane, steepest);
}

function packTriangle(at: usize, lane: i32, d: usize): void {
  for (let i = 0; i < 9; i++) put(at, i, lane, number(d, i));
  const u = Math.sqrt(product(d, 3, 3));
  const v = Math.sqrt(product(d, 6, 6));
  put(at, 9, lane, Math.max(u, v));
  put(at, 10, lane, u * v);
}

function packCone(at: usize, lane: i32, d: usize): void {
  for (let a = 0; a < 3; a++) {
    put(at, a, lane, number(d, 3 + a));
    put(at, 3 + a, lane, number(d, a));
  }
  const foot = number(d, 7);
  const top = foot + number(d, 8) * number(d, 6);
  put(at, 6, lane, number(d, 6));
  put(at, 7, lane, Math.min(foot, top));
  put(at, 8, lane, Math.max(foot, top));
}

// @ts-ignore: decorator
@inline
function dot4(at: usize, row: usize, x: v128, y: v128, z: v128): v128 {
  return f32x4.add(
    f32x4.mul(v128.load(at + (row << 4)), x),
    f32x4.add(f32x4.mul(v128.load(at + (row << 4) + 16), y), f32x4.mul(v128.load(at + (row << 4) + 32), z)),
  );
}

/** Lanes of a pack of flat primitives whose parallelogram may be hit; what is no number counts as a hit. */
// @ts-ignore: decorator
@inline
function flatPack(
  at: usize,
  ox: v128,
  oy: v128,
  oz: v128,
  dx: v128,
  dy: v128,
  dz: v128,
  start: v128,
  reach: v128,
  slack: v128,
): i32 {
  const inverse = f32x4.div(f32x4.splat(1), dot4(at, 0, dx, dy, dz));
  const t = f32x4.mul(f32x4.sub(v128.load(at + 48), dot4(at, 0, ox, oy, oz)), inverse);
  const room = f32x4.mul(slack, f32x4.abs(inverse));
  const x = f32x4.add(ox, f32x4.mul(t, dx));
  const y = f32x4.add(oy, f32x4.mul(t, dy));
  const z = f32x4.add(oz, f32x4.mul(t, dz));
  const a = f32x4.abs(f32x4.add(dot4(at, 4, x, y, z), v128.load(at + 112)));
  const b = f32x4.abs(f32x4.add(dot4(at, 8, x, y, z), v128.load(at + 176)));
  const edge = f32x4.add(f32x4.splat(1), f32x4.mul(room, v128.load(at + 192)));
  const before = f32x4.lt(t, f32x4.sub(start, room));
  const after = f32x4.gt(t, f32x4.add(reach, room));
  const beside = v128.or(f32x4.gt(a, edge), f32x4.gt(b, edge));
  return ~i32x4.bitmask(v128.or(v128.or(before, after), beside));
}

/**
 * The same for cones: between its end planes the ray may pass outside of the largest circle or wholly inside of the
 * smallest one. Rejects most of the rings that lie one in another, as on a plate.
 */
// @ts-ignore: decorator
@inline
function conePack(
  at: usize,
  ox: v128,
  oy: v128,
  oz: v128,
  dx: v128,
  dy: v128,
  dz: v128,
  start: v128,
  reach: v128,
  size: f32,
): i32 {
  const ax = v128.load(at);
  const ay = v128.load(at + 16);
  const az = v128.load(at + 32);
  const room = f32x4.splat(ROUNDING * size);
  const px = f32x4.sub(ox, v128.load(at + 48));
  const py = f32x4.sub(oy, v128.load(at + 64));
  const pz = f32x4.sub(oz, v128.load(at + 80));
  const rise = dot4(at, 0, dx, dy, dz);
  const height = dot4(at, 0, px, py, pz);
  const inverse = f32x4.div(f32x4.splat(1), rise);
  const footAt = f32x4.mul(f32x4.neg(height), inverse);
  const topAt = f32x4.mul(f32x4.sub(v128.load(at + 96), height), inverse);
  const beside = f32x4.mul(room, f32x4.abs(inverse));
  const farthest = f32x4.pmin(reach, f32x4.splat(4 * size));
  const enter = f32x4.pmax(start, f32x4.sub(f32x4.pmin(footAt, topAt), beside));
  const leave = f32x4.pmin(farthest, f32x4.add(f32x4.pmax(footAt, topAt), beside));
  // Offsets from the axis, square to it, where the ray enters and how they change until it leaves.
  const ex = f32x4.sub(dx, f32x4.mul(rise, ax));
  const ey = f32x4.sub(dy, f32x4.mul(rise, ay));
  const ez = f32x4.sub(dz, f32x4.mul(rise, az));
  const qx = f32x4.add(f32x4.sub(px, f32x4.mul(height, ax)), f32x4.mul(enter, ex));
  const qy = f32x4.add(f32x4.sub(py, f32x4.mul(height, ay)), f32x4.mul(enter, ey));
  const qz = f32x4.add(f32x4.sub(pz, f32x4.mul(height, az)), f32x4.mul(enter, ez));
  const length = f32x4.sub(leave, enter);
  const across = squared(ex, ey, ez);
  const towards = f32x4.neg(f32x4.add(f32x4.mul(qx, ex), f32x4.add(f32x4.mul(qy, ey), f32x4.mul(qz, ez))));
  const nearest = f32x4.pmax(f32x4.splat(0), f32x4.pmin(length, f32x4.div(towards, across)));
  const entry2 = squared(qx, qy, qz);
  const leaving2 = squaredAlong(qx, qy, qz, ex, ey, ez, length);
  const least2 = squaredAlong(qx, qy, qz, ex, ey, ez, nearest);
  const inner = f32x4.pmax(f32x4.splat(0), f32x4.sub(v128.load(at + 112), room));
  const outer = f32x4.add(v128.load(at + 128), room);
  const within = f32x4.lt(f32x4.pmax(entry2, leaving2), f32x4.mul(inner, inner));
  const without = f32x4.gt(least2, f32x4.mul(outer, outer));
  return ~i32x4.bitmask(v128.or(f32x4.gt(enter, leave), v128.or(within, without)));
}

// @ts-ignore: decorator
@inline
function squared(x: v128, y: v128, z: v128): v128 {
  return f32x4.add(f32x4.mul(x, x), f32x4.add(f32x4.mul(y, y), f32x4.mul(z, z)));
}

// @ts-ignore: decorator
@inline
function squaredAlong(x: v128, y: v128, z: v128, ex: v128, ey: v128, ez: v128, t: v128): v128 {
  return squared(
    f32x4.add(x, f32x4.mul(t, ex)),
    f32x4.add(y, f32x4.mul(t, ey)),
    f32x4.add(z, f32x4.mul(t, ez)),
  );
}

/** The same for triangles. */
// @ts-ignore: decorator
@inline
function trianglePack(
  at: usize,
  ox: v128,
  oy: v128,
  oz: v128,
  dx: v128,
  dy: v128,
  dz: v128,
  start: v128,
  reach: v128,
  slack: v128,
): i32 {
  const ux = v128.load(at + 48);
  const uy = v128.load(at + 64);
  const uz = v128.load(at + 80);
  const vx = v128.load(at + 96);
  const vy = v128.load(at + 112);
  const vz = v128.load(at + 128);
  const cx = f32x4.sub(f32x4.mul(dy, vz), f32x4.mul(dz, vy));
  const cy = f32x4.sub(f32x4.mul(dz, vx), f32x4.mul(dx, vz));
  const cz = f32x4.sub(f32x4.mul(dx, vy), f32x4.mul(dy, vx));
  const inverse = f32x4.div(
    f32x4.splat(1),
    f32x4.add(f32x4.mul(ux, cx), f32x4.add(f32x4.mul(uy, cy), f32x4.mul(uz, cz))),
  );
  const px = f32x4.sub(ox, v128.load(at));
  const py = f32x4.sub(oy, v128.load(at + 16));
  const pz = f32x4.sub(oz, v128.load(at + 32));
  const b = f32x4.mul(f32x4.add(f32x4.mul(px, cx), f32x4.add(f32x4.mul(py, cy), f32x4.mul(pz, cz))), inverse);
  const qx = f32x4.sub(f32x4.mul(py, uz), f32x4.mul(pz, uy));
  const qy = f32x4.sub(f32x4.mul(pz, ux), f32x4.mul(px, uz));
  const qz = f32x4.sub(f32x4.mul(px, uy), f32x4.mul(py, ux));
  const c = f32x4.mul(f32x4.add(f32x4.mul(dx, qx), f32x4.add(f32x4.mul(dy, qy), f32x4.mul(dz, qz))), inverse);
  const t = f32x4.mul(f32x4.add(f32x4.mul(vx, qx), f32x4.add(f32x4.mul(vy, qy), f32x4.mul(vz, qz))), inverse);
  const room = f32x4.mul(slack, f32x4.abs(inverse));
  const edge = f32x4.mul(room, v128.load(at + 144));
  const depth = f32x4.mul(room, v128.load(at + 160));
  const below = f32x4.neg(edge);
  const beside = v128.or(f32x4.lt(b, below), f32x4.lt(c, below));
  const beyondEdge = f32x4.gt(f32x4.add(b, c), f32x4.add(f32x4.splat(1), f32x4.add(edge, edge)));
  const before = f32x4.lt(t, f32x4.sub(start, depth));
  const after = f32x4.gt(t, f32x4.add(reach, depth));
  return ~i32x4.bitmask(v128.or(v128.or(before, after), v128.or(beside, beyondEdge)));
}

function flat(d: usize, ox: f64, oy: f64, oz: f64, dx: f64, dy: f64, dz: f64, from: f64, to: f64): f64 {
  const nx = load<f64>(d, 72);
  const ny = load<f64>(d, 80);
  const nz = load<f64>(d, 88);
  const px = load<f64>(d) - ox;
  const py = load<f64>(d, 8) - oy;
  const pz = load<f64>(d, 16) - oz;
  const t = (px * nx + py * ny + pz * nz) / (dx * nx + dy * ny + dz * nz);
  if (!(t > from && t < to)) return NO_HIT;
  const qx = t * dx - px;
  const qy = t * dy - py;
  const qz = t * dz - pz;
  const u = qx * load<f64>(d, 24) + qy * load<f64>(d, 32) + qz * load<f64>(d, 40);
  const a = 2 * u * load<f64>(d, 96) - 1;
  if (!(a >= -1 && a <= 1)) return NO_HIT;
  const v = qx * load<f64>(d, 48) + qy * load<f64>(d, 56) + qz * load<f64>(d, 64);
  const b = 2 * v * load<f64>(d, 104) - 1;
  if (!(b >= -1 && b <= 1)) return NO_HIT;
  const sa = a * load<f64>(d, 128);
  const sb = b * load<f64>(d, 136);
  const rho2 = sa * sa + sb * sb;
  if (!(rho2 >= load<f64>(d, 112) && rho2 <= load<f64>(d, 120))) return NO_HIT;
  return Math.abs(a) + Math.abs(b) > load<f64>(d, 144) ? NO_HIT : t;
}

function ball(d: usize, ox: f64, oy: f64, oz: f64, dx: f64, dy: f64, dz: f64, from: f64, to: f64): f64 {
  const px = load<f64>(d) - ox;
  const py = load<f64>(d, 8) - oy;
  const pz = load<f64>(d, 16) - oz;
  const radius = load<f64>(d, 24);
  const along = px * dx + py * dy + pz * dz;
  const cx = px - along * dx;
  const cy = py - along * dy;
  const cz = pz - along * dz;
  const under = radius * radius - (cx * cx + cy * cy + cz * cz);
  if (!(under >= 0)) return NO_HIT;
  const half = Math.sqrt(under);
  for (let side = 0; side < 2; side++) {
    const t = side === 0 ? along - half : along + half;
    if (!(t > from && t < to)) continue;
    const x = t * dx - px;
    const y = t * dy - py;
    const z = t * dz - pz;
    if (
      x * load<f64>(d, 32) + y * load<f64>(d, 40) + z * load<f64>(d, 48) >= 0 &&
      x * load<f64>(d, 56) + y * load<f64>(d, 64) + z * load<f64>(d, 72) >= 0 &&
      x * load<f64>(d, 80) + y * load<f64>(d, 88) + z * load<f64>(d, 96) >= 0
    ) {
      return t;
    }
  }
  return NO_HIT;
}

function cone(d: usize, ox: f64, oy: f64, oz: f64, dx: f64, dy: f64, dz: f64, from: f64, to: f64): f64 {
  const ax = load<f64>(d, 24);
  const ay = load<f64>(d, 32);
  const az = load<f64>(d, 40);
  let px = ox - load<f64>(d);
  let py = oy - load<f64>(d, 8);
  let pz = oz - load<f64>(d, 16);
  const rise = dx * ax + dy * ay + dz * az;
  const start = px * ax + py * ay + pz * az;
  const ex = dx - rise * ax;
  const ey = dy - rise * ay;
  const ez = dz - rise * az;
  px -= start * ax;
  py -= start * ay;
  pz -= start * az;
  const top = load<f64>(d, 48);
  const k = load<f64>(d, 64);
  const across = ex * ex + ey * ey + ez * ez;
  const shift = across > 1e-4 ? -(px * ex + py * ey + pz * ez) / across : 0;
  const x = px + shift * ex;
  const y = py + shift * ey;
  const z = pz + shift * ez;
  const radius = load<f64>(d, 56) + k * (start + shift * rise);
  const a = across - k * k * rise * rise;
  const b = x * ex + y * ey + z * ez - k * rise * radius;
  const c = x * x + y * y + z * z - radius * radius;
  let near: f64;
  let far: f64;
  if (a > 1e-12 || a < -1e-12) {
    const under = b * b - a * c;
    if (!(under >= 0)) return NO_HIT;
    const root = b < 0 ? -b + Math.sqrt(under) : -b - Math.sqrt(under);
    const t0 = root / a;
    const t1 = root === 0 ? t0 : c / root;
    near = shift + Math.min(t0, t1);
    far = shift + Math.max(t0, t1);
  } else {
    if (b === 0) return NO_HIT;
    near = shift - c / (2 * b);
    far = near;
  }
  if (near > from) {
    if (!(near < to)) return NO_HIT;
    const h = start + near * rise;
    if (h >= 0 && h <= top && inArc(d, px + near * ex, py + near * ey, pz + near * ez)) return near;
  }
  if (far > from && far < to) {
    const h = start + far * rise;
    if (h >= 0 && h <= top && inArc(d, px + far * ex, py + far * ey, pz + far * ez)) return far;
  }
  return NO_HIT;
}

// @ts-ignore: decorator
@inline
function inArc(d: usize, x: f64, y: f64, z: f64): bool {
  const least = load<f64>(d, 128);
  if (least < -1) return true;
  return (
    x * load<f64>(d, 104) + y * load<f64>(d, 112) + z * load<f64>(d, 120) >=
    least * Math.sqrt(x * x + y * y + z * z)
  );
}

function triangle(d: usize, ox: f64, oy: f64, oz: f64, dx: f64, dy: f64, dz: f64, from: f64, to: f64): f64 {
  const ux = load<f64>(d, 24);
  const uy = load<f64>(d, 32);
  const uz = load<f64>(d, 40);
  const vx = load<f64>(d, 48);
  const vy = load<f64>(d, 56);
  const vz = load<f64>(d, 64);
  const cx = dy * vz - dz * vy;
  const cy = dz * vx - dx * vz;
  const cz = dx * vy - dy * vx;
  const scale = 1 / (ux * cx + uy * cy + uz * cz);
  const px = ox - load<f64>(d);
  const py = oy - load<f64>(d, 8);
  const pz = oz - load<f64>(d, 16);
  const b = (px * cx + py * cy + pz * cz) * scale;
  if (!(b >= 0 && b <= 1)) return NO_HIT;
  const qx = py * uz - pz * uy;
  const qy = pz * ux - px * uz;
  const qz = px * uy - py * ux;
  const c = (dx * qx + dy * qy + dz * qz) * scale;
  if (!(c >= 0 && b + c <= 1)) return NO_HIT;
  const t = (vx * qx + vy * qy + vz * qz) * scale;
  return t > from && t < to ? t : NO_HIT;
}
