import {
  BALL,
  BALL_CENTRE,
  BALL_LIMITS,
  BALL_RADIUS,
  CONE,
  CONE_ARC_COSINE,
  CONE_ARC_MIDDLE,
  CONE_AXIS,
  CONE_FOOT,
  CONE_HEIGHT,
  CONE_RADIUS,
  CONE_SLOPE,
  FLAT,
  FLAT_CORNER,
  FLAT_DIAGONAL,
  FLAT_EDGE_U,
  FLAT_EDGE_V,
  FLAT_LEAST_RHO2,
  FLAT_MOST_RHO2,
  FLAT_NORMAL,
  FLAT_PER_U2,
  FLAT_PER_V2,
  FLAT_SCALE_A,
  FLAT_SCALE_B,
  RAY_DIRECTION,
  RAY_FROM,
  RAY_ORIGIN,
  RAY_TO,
  TRIANGLE_CORNER,
  TRIANGLE_EDGE_U,
  TRIANGLE_EDGE_V,
} from './layouts.js';
import type { i32 } from './portable.js';

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

/** @inline */
export function flat(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const t = flatDistance(d, o, ray);
  if (!(t > ray[RAY_FROM] && t < ray[RAY_TO])) return false;
  const qx = t * ray[RAY_DIRECTION] - (d[o + FLAT_CORNER] - ray[RAY_ORIGIN]);
  const qy = t * ray[RAY_DIRECTION + 1] - (d[o + FLAT_CORNER + 1] - ray[RAY_ORIGIN + 1]);
  const qz = t * ray[RAY_DIRECTION + 2] - (d[o + FLAT_CORNER + 2] - ray[RAY_ORIGIN + 2]);
  const u = qx * d[o + FLAT_EDGE_U] + qy * d[o + FLAT_EDGE_U + 1] + qz * d[o + FLAT_EDGE_U + 2];
  const a = 2 * u * d[o + FLAT_PER_U2] - 1;
  if (!(a >= -1 && a <= 1)) return false;
  const v = qx * d[o + FLAT_EDGE_V] + qy * d[o + FLAT_EDGE_V + 1] + qz * d[o + FLAT_EDGE_V + 2];
  const b = 2 * v * d[o + FLAT_PER_V2] - 1;
  if (!(b >= -1 && b <= 1)) return false;
  const sa = a * d[o + FLAT_SCALE_A];
  const sb = b * d[o + FLAT_SCALE_B];
  const rho2 = sa * sa + sb * sb;
  if (!(rho2 >= d[o + FLAT_LEAST_RHO2] && rho2 <= d[o + FLAT_MOST_RHO2])) return false;
  if (Math.abs(a) + Math.abs(b) > d[o + FLAT_DIAGONAL]) return false;
  ray[RAY_TO] = t;
  return true;
}

/** Distance along a ray to the plane of a flat primitive. @inline */
export function flatDistance(d: Float64Array, o: i32, ray: Float64Array): number {
  const nx = d[o + FLAT_NORMAL];
  const ny = d[o + FLAT_NORMAL + 1];
  const nz = d[o + FLAT_NORMAL + 2];
  const px = d[o + FLAT_CORNER] - ray[RAY_ORIGIN];
  const py = d[o + FLAT_CORNER + 1] - ray[RAY_ORIGIN + 1];
  const pz = d[o + FLAT_CORNER + 2] - ray[RAY_ORIGIN + 2];
  return (
    (px * nx + py * ny + pz * nz) /
    (ray[RAY_DIRECTION] * nx + ray[RAY_DIRECTION + 1] * ny + ray[RAY_DIRECTION + 2] * nz)
  );
}

/** @inline */
export function ball(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const dx = ray[RAY_DIRECTION];
  const dy = ray[RAY_DIRECTION + 1];
  const dz = ray[RAY_DIRECTION + 2];
  const tMin = ray[RAY_FROM];
  const tMax = ray[RAY_TO];
  const px = d[o + BALL_CENTRE] - ray[RAY_ORIGIN];
  const py = d[o + BALL_CENTRE + 1] - ray[RAY_ORIGIN + 1];
  const pz = d[o + BALL_CENTRE + 2] - ray[RAY_ORIGIN + 2];
  const radius = d[o + BALL_RADIUS];
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
      x * d[o + BALL_LIMITS] + y * d[o + BALL_LIMITS + 1] + z * d[o + BALL_LIMITS + 2] >= 0 &&
      x * d[o + BALL_LIMITS + 3] + y * d[o + BALL_LIMITS + 4] + z * d[o + BALL_LIMITS + 5] >= 0 &&
      x * d[o + BALL_LIMITS + 6] + y * d[o + BALL_LIMITS + 7] + z * d[o + BALL_LIMITS + 8] >= 0
    ) {
      ray[RAY_TO] = t;
      return true;
    }
  }
  return false;
}

/** Distance from the axis = r0 + k h between two heights along any axis, perhaps only an arc of it. @inline */
export function cone(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const ax = d[o + CONE_AXIS];
  const ay = d[o + CONE_AXIS + 1];
  const az = d[o + CONE_AXIS + 2];
  const dx = ray[RAY_DIRECTION];
  const dy = ray[RAY_DIRECTION + 1];
  const dz = ray[RAY_DIRECTION + 2];
  const tMin = ray[RAY_FROM];
  const tMax = ray[RAY_TO];
  let px = ray[RAY_ORIGIN] - d[o + CONE_FOOT];
  let py = ray[RAY_ORIGIN + 1] - d[o + CONE_FOOT + 1];
  let pz = ray[RAY_ORIGIN + 2] - d[o + CONE_FOOT + 2];
  const rise = dx * ax + dy * ay + dz * az;
  const start = px * ax + py * ay + pz * az;
  // What is square to the axis.
  const ex = dx - rise * ax;
  const ey = dy - rise * ay;
  const ez = dz - rise * az;
  px -= start * ax;
  py -= start * ay;
  pz -= start * az;
  const top = d[o + CONE_HEIGHT];
  const k = d[o + CONE_SLOPE];
  const across = ex * ex + ey * ey + ez * ez;
  // From far away start from the point nearest to the axis: that keeps the quadratic well conditioned.
  const foot = d[o + CONE_RADIUS];
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
      ray[RAY_TO] = near;
      return true;
    }
  }
  if (far > tMin && far < tMax) {
    const h = start + far * rise;
    if (h >= 0 && h <= top && inArc(d, o, px + far * ex, py + far * ey, pz + far * ez)) {
      ray[RAY_TO] = far;
      return true;
    }
  }
  return false;
}

/** @inline */
function inArc(d: Float64Array, o: i32, x: number, y: number, z: number): boolean {
  const least = d[o + CONE_ARC_COSINE];
  if (least < -1) return true;
  return (
    x * d[o + CONE_ARC_MIDDLE] + y * d[o + CONE_ARC_MIDDLE + 1] + z * d[o + CONE_ARC_MIDDLE + 2] >=
    least * Math.sqrt(x * x + y * y + z * z)
  );
}

/** Source: Moller and Trumbore 1997. @inline */
export function triangle(d: Float64Array, o: i32, ray: Float64Array): boolean {
  const t = triangleDistance(d, o, ray);
  if (!(t > ray[RAY_FROM] && t < ray[RAY_TO])) return false;
  const dx = ray[RAY_DIRECTION];
  const dy = ray[RAY_DIRECTION + 1];
  const dz = ray[RAY_DIRECTION + 2];
  const ux = d[o + TRIANGLE_EDGE_U];
  const uy = d[o + TRIANGLE_EDGE_U + 1];
  const uz = d[o + TRIANGLE_EDGE_U + 2];
  const vx = d[o + TRIANGLE_EDGE_V];
  const vy = d[o + TRIANGLE_EDGE_V + 1];
  const vz = d[o + TRIANGLE_EDGE_V + 2];
  const cx = dy * vz - dz * vy;
  const cy = dz * vx - dx * vz;
  const cz = dx * vy - dy * vx;
  const inverse = 1 / (ux * cx + uy * cy + uz * cz);
  const px = ray[RAY_ORIGIN] - d[o + TRIANGLE_CORNER];
  const py = ray[RAY_ORIGIN + 1] - d[o + TRIANGLE_CORNER + 1];
  const pz = ray[RAY_ORIGIN + 2] - d[o + TRIANGLE_CORNER + 2];
  const b = (px * cx + py * cy + pz * cz) * inverse;
  if (!(b >= 0 && b <= 1)) return false;
  const qx = py * uz - pz * uy;
  const qy = pz * ux - px * uz;
  const qz = px * uy - py * ux;
  const c = (dx * qx + dy * qy + dz * qz) * inverse;
  if (!(c >= 0 && b + c <= 1)) return false;
  ray[RAY_TO] = t;
  return true;
}

/** Distance along a ray to the plane of a triangle. @inline */
export function triangleDistance(d: Float64Array, o: i32, ray: Float64Array): number {
  const dx = ray[RAY_DIRECTION];
  const dy = ray[RAY_DIRECTION + 1];
  const dz = ray[RAY_DIRECTION + 2];
  const ux = d[o + TRIANGLE_EDGE_U];
  const uy = d[o + TRIANGLE_EDGE_U + 1];
  const uz = d[o + TRIANGLE_EDGE_U + 2];
  const vx = d[o + TRIANGLE_EDGE_V];
  const vy = d[o + TRIANGLE_EDGE_V + 1];
  const vz = d[o + TRIANGLE_EDGE_V + 2];
  const inverse = 1 / (ux * (dy * vz - dz * vy) + uy * (dz * vx - dx * vz) + uz * (dx * vy - dy * vx));
  const px = ray[RAY_ORIGIN] - d[o + TRIANGLE_CORNER];
  const py = ray[RAY_ORIGIN + 1] - d[o + TRIANGLE_CORNER + 1];
  const pz = ray[RAY_ORIGIN + 2] - d[o + TRIANGLE_CORNER + 2];
  const qx = py * uz - pz * uy;
  const qy = pz * ux - px * uz;
  const qz = px * uy - py * ux;
  return (vx * qx + vy * qy + vz * qz) * inverse;
}
