import type { i32 } from './portable.js';
import { BALL, CONE, FLAT } from './tables.js';

/**
 * Tests a ray against one exact primitive, both sides.
 * @param d table of primitives  @param o offset of this primitive in it
 * @param ray 0-2 origin, 3-5 unit direction, 6 from, 7 to; a hit between them is written to 7
 * @returns whether there was a hit
 * Everything goes by arrays: numbers passed one by one would be boxed at every call.
 * Source: docs/physics/geometry.md
 */
export function intersectPrimitive(kind: i32, d: Float64Array, o: i32, ray: Float64Array): boolean {
  if (kind === FLAT) return flat(d, o, ray);
  if (kind === CONE) return cone(d, o, ray);
  if (kind === BALL) return ball(d, o, ray);
  return triangle(d, o, ray);
}

// Reads are asserted: the table has STRIDE numbers for each primitive.
function flat(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const dx = ray[3];
  const dy = ray[4];
  const dz = ray[5];
  const nx = d[o + 9];
  const ny = d[o + 10];
  const nz = d[o + 11];
  const px = d[o] - ray[0];
  const py = d[o + 1] - ray[1];
  const pz = d[o + 2] - ray[2];
  const t = (px * nx + py * ny + pz * nz) / (dx * nx + dy * ny + dz * nz);
  if (!(t > ray[6] && t < ray[7])) return false;
  const qx = t * dx - px;
  const qy = t * dy - py;
  const qz = t * dz - pz;
  const u = qx * d[o + 3] + qy * d[o + 4] + qz * d[o + 5];
  const a = 2 * u * d[o + 12] - 1;
  if (!(a >= -1 && a <= 1)) return false;
  const v = qx * d[o + 6] + qy * d[o + 7] + qz * d[o + 8];
  const b = 2 * v * d[o + 13] - 1;
  if (!(b >= -1 && b <= 1)) return false;
  const sa = a * d[o + 16];
  const sb = b * d[o + 17];
  const rho2 = sa * sa + sb * sb;
  if (!(rho2 >= d[o + 14] && rho2 <= d[o + 15])) return false;
  if (Math.abs(a) + Math.abs(b) > d[o + 18]) return false;
  ray[7] = t;
  return true;
}

function ball(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const dx = ray[3];
  const dy = ray[4];
  const dz = ray[5];
  const tMin = ray[6];
  const tMax = ray[7];
  const px = d[o] - ray[0];
  const py = d[o + 1] - ray[1];
  const pz = d[o + 2] - ray[2];
  const radius = d[o + 3];
  const along = px * dx + py * dy + pz * dz;
  const cx = px - along * dx;
  const cy = py - along * dy;
  const cz = pz - along * dz;
  const under = radius * radius - (cx * cx + cy * cy + cz * cz);
  if (!(under >= 0)) return false;
  const half = Math.sqrt(under);
  for (let side = 0; side < 2; side++) {
    const t = side === 0 ? along - half : along + half;
    if (!(t > tMin && t < tMax)) continue;
    const x = t * dx - px;
    const y = t * dy - py;
    const z = t * dz - pz;
    if (
      x * d[o + 4] + y * d[o + 5] + z * d[o + 6] >= 0 &&
      x * d[o + 7] + y * d[o + 8] + z * d[o + 9] >= 0 &&
      x * d[o + 10] + y * d[o + 11] + z * d[o + 12] >= 0
    ) {
      ray[7] = t;
      return true;
    }
  }
  return false;
}

/** Distance from the axis = r0 + k h between two heights along any axis, perhaps only an arc of it. */
function cone(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const ax = d[o + 3];
  const ay = d[o + 4];
  const az = d[o + 5];
  const dx = ray[3];
  const dy = ray[4];
  const dz = ray[5];
  const tMin = ray[6];
  const tMax = ray[7];
  let px = ray[0] - d[o];
  let py = ray[1] - d[o + 1];
  let pz = ray[2] - d[o + 2];
  const rise = dx * ax + dy * ay + dz * az;
  const start = px * ax + py * ay + pz * az;
  // What is square to the axis.
  const ex = dx - rise * ax;
  const ey = dy - rise * ay;
  const ez = dz - rise * az;
  px -= start * ax;
  py -= start * ay;
  pz -= start * az;
  const top = d[o + 6];
  const k = d[o + 8];
  const across = ex * ex + ey * ey + ez * ez;
  // From far away start from the point nearest to the axis: that keeps the quadratic well conditioned.
  const foot = d[o + 7];
  const isFar = px * px + py * py + pz * pz > 64 * (foot * foot + top * top) && across > 1e-4;
  const shift: number = isFar ? -(px * ex + py * ey + pz * ez) / across : 0;
  const x = px + shift * ex;
  const y = py + shift * ey;
  const z = pz + shift * ez;
  const radius = foot + k * (start + shift * rise);
  const a = across - k * k * rise * rise;
  const b = x * ex + y * ey + z * ez - k * rise * radius;
  const c = x * x + y * y + z * z - radius * radius;
  let near: number = 0;
  let far: number = 0;
  if (a > 1e-12 || a < -1e-12) {
    const under = b * b - a * c;
    if (!(under >= 0)) return false;
    const root = b < 0 ? -b + Math.sqrt(under) : -b - Math.sqrt(under);
    const t0 = root / a;
    const t1 = root === 0 ? t0 : c / root;
    near = shift + Math.min(t0, t1);
    far = shift + Math.max(t0, t1);
  } else {
    if (b === 0) return false;
    near = shift - c / (2 * b);
    far = near;
  }
  if (near > tMin) {
    if (!(near < tMax)) return false;
    const h = start + near * rise;
    if (h >= 0 && h <= top && inArc(d, o, px + near * ex, py + near * ey, pz + near * ez)) {
      ray[7] = near;
      return true;
    }
  }
  if (far > tMin && far < tMax) {
    const h = start + far * rise;
    if (h >= 0 && h <= top && inArc(d, o, px + far * ex, py + far * ey, pz + far * ez)) {
      ray[7] = far;
      return true;
    }
  }
  return false;
}

function inArc(d: Float64Array, o: i32, x: number, y: number, z: number): boolean {
  const least = d[o + 16];
  if (least < -1) return true;
  return x * d[o + 13] + y * d[o + 14] + z * d[o + 15] >= least * Math.sqrt(x * x + y * y + z * z);
}

/** Source: Moller and Trumbore 1997. */
function triangle(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const dx = ray[3];
  const dy = ray[4];
  const dz = ray[5];
  const ux = d[o + 3];
  const uy = d[o + 4];
  const uz = d[o + 5];
  const vx = d[o + 6];
  const vy = d[o + 7];
  const vz = d[o + 8];
  const cx = dy * vz - dz * vy;
  const cy = dz * vx - dx * vz;
  const cz = dx * vy - dy * vx;
  const inverse = 1 / (ux * cx + uy * cy + uz * cz);
  const px = ray[0] - d[o];
  const py = ray[1] - d[o + 1];
  const pz = ray[2] - d[o + 2];
  const b = (px * cx + py * cy + pz * cz) * inverse;
  if (!(b >= 0 && b <= 1)) return false;
  const qx = py * uz - pz * uy;
  const qy = pz * ux - px * uz;
  const qz = px * uy - py * ux;
  const c = (dx * qx + dy * qy + dz * qz) * inverse;
  if (!(c >= 0 && b + c <= 1)) return false;
  const t = (vx * qx + vy * qy + vz * qz) * inverse;
  if (!(t > ray[6] && t < ray[7])) return false;
  ray[7] = t;
  return true;
}
