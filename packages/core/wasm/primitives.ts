/**
 * A ray against one exact primitive in 64-bit numbers, by the formulas of engine/intersect.ts. Compiled by
 * AssemblyScript only.
 */

/** Distance of a hit that is none. */
export const NO_HIT: f64 = -1;

/** Distance of a hit that is known to be one, by the formula of `flat`. */
export function flatDistance(d: usize, ray: usize): f64 {
  const nx = load<f64>(d, 72);
  const ny = load<f64>(d, 80);
  const nz = load<f64>(d, 88);
  const px = load<f64>(d) - load<f64>(ray);
  const py = load<f64>(d, 8) - load<f64>(ray, 8);
  const pz = load<f64>(d, 16) - load<f64>(ray, 16);
  return (
    (px * nx + py * ny + pz * nz) /
    (load<f64>(ray, 24) * nx + load<f64>(ray, 32) * ny + load<f64>(ray, 40) * nz)
  );
}

export function flat(d: usize, ray: usize, to: f64): f64 {
  const ox = load<f64>(ray);
  const oy = load<f64>(ray, 8);
  const oz = load<f64>(ray, 16);
  const dx = load<f64>(ray, 24);
  const dy = load<f64>(ray, 32);
  const dz = load<f64>(ray, 40);
  const from = load<f64>(ray, 48);
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

export function ball(d: usize, ray: usize, to: f64): f64 {
  const ox = load<f64>(ray);
  const oy = load<f64>(ray, 8);
  const oz = load<f64>(ray, 16);
  const dx = load<f64>(ray, 24);
  const dy = load<f64>(ray, 32);
  const dz = load<f64>(ray, 40);
  const from = load<f64>(ray, 48);
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

export function cone(d: usize, ray: usize, to: f64): f64 {
  const ox = load<f64>(ray);
  const oy = load<f64>(ray, 8);
  const oz = load<f64>(ray, 16);
  const dx = load<f64>(ray, 24);
  const dy = load<f64>(ray, 32);
  const dz = load<f64>(ray, 40);
  const from = load<f64>(ray, 48);
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
  const foot = load<f64>(d, 56);
  const isFar = px * px + py * py + pz * pz > 64 * (foot * foot + top * top) && across > 1e-4;
  const shift = isFar ? -(px * ex + py * ey + pz * ez) / across : 0;
  const x = px + shift * ex;
  const y = py + shift * ey;
  const z = pz + shift * ez;
  const radius = foot + k * (start + shift * rise);
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

/** Distance of a hit that is known to be one, by the formula of `triangle`. */
export function triangleDistance(d: usize, ray: usize): f64 {
  const dx = load<f64>(ray, 24);
  const dy = load<f64>(ray, 32);
  const dz = load<f64>(ray, 40);
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
  const px = load<f64>(ray) - load<f64>(d);
  const py = load<f64>(ray, 8) - load<f64>(d, 8);
  const pz = load<f64>(ray, 16) - load<f64>(d, 16);
  const qx = py * uz - pz * uy;
  const qy = pz * ux - px * uz;
  const qz = px * uy - py * ux;
  return (vx * qx + vy * qy + vz * qz) * scale;
}

export function triangle(d: usize, ray: usize, to: f64): f64 {
  const ox = load<f64>(ray);
  const oy = load<f64>(ray, 8);
  const oz = load<f64>(ray, 16);
  const dx = load<f64>(ray, 24);
  const dy = load<f64>(ray, 32);
  const dz = load<f64>(ray, 40);
  const from = load<f64>(ray, 48);
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
