import { BALL, BEND, CONE, QUAD, RING } from '../geometry/primitives.js';

/**
 * Tests a ray against one exact primitive, both sides.
 * @param d table of primitives  @param o offset of this primitive in it
 * @param ray 0-2 origin, 3-5 unit direction, 6 from, 7 to; a hit between them is written to 7
 * @returns whether there was a hit
 * Everything goes by arrays: numbers passed one by one would be boxed at every call.
 * Source: docs/physics/geometry.md
 */
export function intersectPrimitive(kind: number, d: Float64Array, o: number, ray: Float64Array): boolean {
  switch (kind) {
    case QUAD:
      return quad(d, o, ray);
    case CONE:
      return cone(d, o, ray);
    case RING:
      return ring(d, o, ray);
    case BALL:
      return ball(d, o, ray);
    case BEND:
      return bend(d, o, ray);
    default:
      return false;
  }
}

// Reads are asserted: the table has STRIDE numbers for each primitive.
function quad(d: Float64Array, o: number, ray: Float64Array): boolean {
  const ox = ray[0] as number;
  const oy = ray[1] as number;
  const oz = ray[2] as number;
  const dx = ray[3] as number;
  const dy = ray[4] as number;
  const dz = ray[5] as number;
  const tMin = ray[6] as number;
  const tMax = ray[7] as number;
  const nx = d[o + 9] as number;
  const ny = d[o + 10] as number;
  const nz = d[o + 11] as number;
  const px = (d[o] as number) - ox;
  const py = (d[o + 1] as number) - oy;
  const pz = (d[o + 2] as number) - oz;
  const t = (px * nx + py * ny + pz * nz) / (dx * nx + dy * ny + dz * nz);
  if (!(t > tMin && t < tMax)) return false;
  const qx = t * dx - px;
  const qy = t * dy - py;
  const qz = t * dz - pz;
  const a =
    (qx * (d[o + 3] as number) + qy * (d[o + 4] as number) + qz * (d[o + 5] as number)) *
    (d[o + 12] as number);
  if (!(a >= 0 && a <= 1)) return false;
  const b =
    (qx * (d[o + 6] as number) + qy * (d[o + 7] as number) + qz * (d[o + 8] as number)) *
    (d[o + 13] as number);
  if (!(b >= 0 && b <= 1)) return false;
  ray[7] = t;
  return true;
}

function ring(d: Float64Array, o: number, ray: Float64Array): boolean {
  const ox = ray[0] as number;
  const oy = ray[1] as number;
  const oz = ray[2] as number;
  const dx = ray[3] as number;
  const dy = ray[4] as number;
  const dz = ray[5] as number;
  const tMin = ray[6] as number;
  const tMax = ray[7] as number;
  const nx = d[o + 3] as number;
  const ny = d[o + 4] as number;
  const nz = d[o + 5] as number;
  const px = (d[o] as number) - ox;
  const py = (d[o + 1] as number) - oy;
  const pz = (d[o + 2] as number) - oz;
  const t = (px * nx + py * ny + pz * nz) / (dx * nx + dy * ny + dz * nz);
  if (!(t > tMin && t < tMax)) return false;
  const qx = t * dx - px;
  const qy = t * dy - py;
  const qz = t * dz - pz;
  const squared = qx * qx + qy * qy + qz * qz;
  if (!(squared <= (d[o + 6] as number) && squared >= (d[o + 7] as number))) return false;
  ray[7] = t;
  return true;
}

function ball(d: Float64Array, o: number, ray: Float64Array): boolean {
  const ox = ray[0] as number;
  const oy = ray[1] as number;
  const oz = ray[2] as number;
  const dx = ray[3] as number;
  const dy = ray[4] as number;
  const dz = ray[5] as number;
  const tMin = ray[6] as number;
  const tMax = ray[7] as number;
  const px = (d[o] as number) - ox;
  const py = (d[o + 1] as number) - oy;
  const pz = (d[o + 2] as number) - oz;
  const radius = d[o + 3] as number;
  const along = px * dx + py * dy + pz * dz;
  const cx = px - along * dx;
  const cy = py - along * dy;
  const cz = pz - along * dz;
  const under = radius * radius - (cx * cx + cy * cy + cz * cz);
  if (!(under >= 0)) return false;
  const half = Math.sqrt(under);
  const t = along - half > tMin ? along - half : along + half;
  if (!(t > tMin && t < tMax)) return false;
  ray[7] = t;
  return true;
}

/** x^2 + y^2 = (r0 + k (z - z0))^2 between two heights, perhaps only an arc of it. */
function cone(d: Float64Array, o: number, ray: Float64Array): boolean {
  const ox = ray[0] as number;
  const oy = ray[1] as number;
  const oz = ray[2] as number;
  const dx = ray[3] as number;
  const dy = ray[4] as number;
  const dz = ray[5] as number;
  const tMin = ray[6] as number;
  const tMax = ray[7] as number;
  const px = ox - (d[o] as number);
  const py = oy - (d[o + 1] as number);
  const z0 = d[o + 2] as number;
  const z1 = d[o + 3] as number;
  const k = d[o + 5] as number;
  // Start from the point nearest to the axis: keeps the quadratic well conditioned from far away.
  const across = dx * dx + dy * dy;
  const shift = across > 1e-4 ? -(px * dx + py * dy) / across : 0;
  const x = px + shift * dx;
  const y = py + shift * dy;
  const z = oz + shift * dz;
  const radius = (d[o + 4] as number) + k * (z - z0);
  const a = across - k * k * dz * dz;
  const b = x * dx + y * dy - k * dz * radius;
  const c = x * x + y * y - radius * radius;
  let near: number;
  let far: number;
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
    const hz = oz + near * dz;
    if (hz >= z0 && hz <= z1 && inArc(d, o, px + near * dx, py + near * dy)) {
      ray[7] = near;
      return true;
    }
  }
  if (far > tMin && far < tMax) {
    const hz = oz + far * dz;
    if (hz >= z0 && hz <= z1 && inArc(d, o, px + far * dx, py + far * dy)) {
      ray[7] = far;
      return true;
    }
  }
  return false;
}

function inArc(d: Float64Array, o: number, x: number, y: number): boolean {
  const least = d[o + 12] as number;
  if (least < -1) return true;
  return x * (d[o + 10] as number) + y * (d[o + 11] as number) >= least * Math.sqrt(x * x + y * y);
}

function bend(d: Float64Array, o: number, ray: Float64Array): boolean {
  const ox = ray[0] as number;
  const oy = ray[1] as number;
  const oz = ray[2] as number;
  const dx = ray[3] as number;
  const dy = ray[4] as number;
  const dz = ray[5] as number;
  const tMin = ray[6] as number;
  const tMax = ray[7] as number;
  const py = oy - (d[o] as number);
  const pz = oz - (d[o + 1] as number);
  const radius = d[o + 2] as number;
  const a = dy * dy + dz * dz;
  if (!(a > 1e-18)) return false;
  const shift = -(py * dy + pz * dz) / a;
  const cy = py + shift * dy;
  const cz = pz + shift * dz;
  const under = (radius * radius - (cy * cy + cz * cz)) / a;
  if (!(under >= 0)) return false;
  const half = Math.sqrt(under);
  for (let side = -1; side <= 1; side += 2) {
    const t = shift + side * half;
    if (!(t > tMin && t < tMax)) continue;
    const x = ox + t * dx;
    if (py + t * dy >= 0 && pz + t * dz <= 0 && x >= (d[o + 3] as number) && x <= (d[o + 4] as number)) {
      ray[7] = t;
      return true;
    }
  }
  return false;
}
