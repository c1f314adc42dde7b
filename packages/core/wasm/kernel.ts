/**
 * The ray kernel in WebAssembly: a tree of four boxes a node, tested at once in 32-bit numbers that are rounded
 * outwards, over exact primitives tested in 64-bit numbers by the same formulas as engine/intersect.ts. Raw loads,
 * no allocation after the constructor. Compiled by AssemblyScript only, in place of engine/kernel.ts.
 */
import { BALL, CONE, FLAT, SceneTables, STRIDE } from './tables';

export const RAY_START_M = 1e-6;

/** Bytes of a node: six rows of four 32-bit planes (least x y z, most x y z), four references. */
const NODE: usize = 112;
const REFERENCES: usize = 96;
/** Deepest stack: three waiting children a level. */
const STACK = 256;
/** Distance of a hit that is none. */
const NO_HIT: f64 = -1;

export class Kernel {
  ray: Float64Array = new Float64Array(8);
  rays: Float64Array = new Float64Array(1);
  private nodes: usize = 0;
  private count: i32 = 0;
  private made: i32 = 0;
  private stack: usize = 0;
  private tables: SceneTables;
  private children: usize = 0;
  private leaves: usize = 0;
  private order: usize = 0;
  private kinds: usize = 0;
  private data: usize = 0;

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.count = tables.count;
    this.children = tables.children.dataStart;
    this.leaves = tables.leaves.dataStart;
    this.order = tables.order.dataStart;
    this.kinds = tables.kind.dataStart;
    this.data = tables.data.dataStart;
    this.stack = (heap.alloc(STACK * 8 + 16) + 15) & ~15;
    this.nodes = (heap.alloc(<usize>(tables.children.length / 2 + 2) * NODE + 16) + 15) & ~15;
    if (this.count > 0) this.widen(0);
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

  /** Makes a node of up to four children out of a binary node and its own inner children; returns its index. */
  private widen(node: i32): i32 {
    const index = this.made++;
    const at = this.nodes + <usize>index * NODE;
    const boxes = this.tables.boxes;
    let filled = 0;
    for (let side = 0; side < 2; side++) {
      const child = load<i32>(this.children + ((<usize>(2 * node + side)) << 2));
      if (child >= 0) {
        for (let inner = 0; inner < 2; inner++) {
          const grandchild = load<i32>(this.children + ((<usize>(2 * child + inner)) << 2));
          this.place(at, filled++, boxes, child * 12 + inner * 6, grandchild);
        }
      } else this.place(at, filled++, boxes, node * 12 + side * 6, child);
    }
    for (; filled < 4; filled++) {
      for (let row = 0; row < 6; row++) {
        store<f32>(at + (<usize>(row * 4 + filled) << 2), row < 3 ? Infinity : -Infinity);
      }
      store<i32>(at + REFERENCES + (<usize>filled << 2), -1);
    }
    // Inner children become nodes of their own once this one is laid out.
    for (let i = 0; i < 4; i++) {
      const slot = at + REFERENCES + (<usize>i << 2);
      const child = load<i32>(slot);
      if (child >= 0) store<i32>(slot, this.widen(child));
    }
    return index;
  }

  private place(at: usize, slot: i32, boxes: Float64Array, from: i32, child: i32): void {
    for (let row = 0; row < 3; row++) {
      const low = boxes[from + row];
      const high = boxes[from + row + 3];
      // An empty box of the binary tree is turned inside out and stays so.
      const pad = low <= high ? 1e-6 * (1 + Math.max(Math.abs(low), Math.abs(high))) : 0;
      store<f32>(at + (<usize>(row * 4 + slot) << 2), f32(low - pad));
      store<f32>(at + (<usize>((row + 3) * 4 + slot) << 2), f32(high + pad));
    }
    store<i32>(at + REFERENCES + (<usize>slot << 2), child);
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
    const nodes = this.nodes;
    const stack = this.stack;
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
            let bestAt = lane(enter, first);
            do {
              const other = ctz(mask);
              mask &= mask - 1;
              const otherAt = lane(enter, other);
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
        const leaf = this.leaves + (<usize>(-1 - reference) << 3);
        let i = this.order + (<usize>load<i32>(leaf) << 2);
        const end = i + (<usize>load<i32>(leaf, 4) << 2);
        for (; i < end; i += 4) {
          const primitive = load<i32>(i);
          const kind = load<i32>(this.kinds + (<usize>primitive << 2));
          const d = this.data + <usize>primitive * (STRIDE * 8);
          let t: f64;
          if (kind === FLAT) t = flat(d, ox, oy, oz, dx, dy, dz, from, nearest);
          else if (kind === CONE) t = cone(d, ox, oy, oz, dx, dy, dz, from, nearest);
          else if (kind === BALL) t = ball(d, ox, oy, oz, dx, dy, dz, from, nearest);
          else t = triangle(d, ox, oy, oz, dx, dy, dz, from, nearest);
          if (t > NO_HIT) {
            if (any) return primitive;
            hit = primitive;
            nearest = t;
            reach = f32x4.splat(beyond(nearest));
          }
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

// @ts-ignore: decorator
@inline
function lane(v: v128, i: i32): f32 {
  return i === 0
    ? f32x4.extract_lane(v, 0)
    : i === 1
      ? f32x4.extract_lane(v, 1)
      : i === 2
        ? f32x4.extract_lane(v, 2)
        : f32x4.extract_lane(v, 3);
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
