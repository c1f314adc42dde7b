import { type Emitter, FACE, faceLuminance } from './emitter.js';

/** Below this solid angle, sr, a face is sampled by area: the spherical rectangle loses its digits. */
const SMALLEST_SPHERICAL_SR = 1e-3;

/**
 * Samples a direction from a point towards a light with two numbers `uv`.
 * Faces by solid angle of the spherical rectangle (Urena et al. 2013), small ones by area; lamps by their cone.
 * @param out 0-2 unit direction, 3 distance m, 4 density per sr, 5 relative luminance
 * @returns false when the light cannot shine here; `out` is then not written
 */
export function sampleEmitter(
  out: Float64Array,
  emitter: Emitter,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  return emitter.kind === FACE
    ? sampleFace(out, emitter.data, point, uv)
    : sampleLamp(out, emitter.data, point, uv);
}

/** Density per sr with which `sampleEmitter` picks a direction that hits the light, 0 if it cannot. */
export function emitterPdf(emitter: Emitter, point: Float64Array, direction: Float64Array): number {
  const d = emitter.data;
  if (emitter.kind !== FACE) return lampPdf(d, point);
  toFace(local, d, point);
  const height = local[2] as number;
  if (!(height > 0)) return 0;
  const solidAngle = sphericalRectangle(local, d);
  if (solidAngle >= SMALLEST_SPHERICAL_SR) return 1 / solidAngle;
  const cosine = -alongForward(d, direction);
  return areaPdf(d, height / cosine, cosine);
}

/**
 * Relative luminance that leaves a light at a point on it against a ray direction.
 * @param direction of the ray that hit it, unit
 */
export function emittedLuminance(emitter: Emitter, point: Float64Array, direction: Float64Array): number {
  const d = emitter.data;
  if (emitter.kind !== FACE) return 1;
  const wz = -alongForward(d, direction);
  if (!(wz > 0)) return 0;
  const dx = direction[0] as number;
  const dy = direction[1] as number;
  const dz = direction[2] as number;
  const wx = -(dx * (d[3] as number) + dy * (d[4] as number) + dz * (d[5] as number));
  const wy = -(dx * (d[6] as number) + dy * (d[7] as number) + dz * (d[8] as number));
  toFace(local, d, point);
  return faceLuminance(d, local[0] as number, local[1] as number, wx, wy, wz);
}

function alongForward(d: Float64Array, direction: Float64Array): number {
  return (
    (direction[0] as number) * (d[9] as number) +
    (direction[1] as number) * (d[10] as number) +
    (direction[2] as number) * (d[11] as number)
  );
}

const local = new Float64Array(3);

/** A point in the frame of a face: right, up, forward from its centre. */
function toFace(out: Float64Array, d: Float64Array, point: Float64Array): void {
  const x = (point[0] as number) - (d[0] as number);
  const y = (point[1] as number) - (d[1] as number);
  const z = (point[2] as number) - (d[2] as number);
  out[0] = x * (d[3] as number) + y * (d[4] as number) + z * (d[5] as number);
  out[1] = x * (d[6] as number) + y * (d[7] as number) + z * (d[8] as number);
  out[2] = x * (d[9] as number) + y * (d[10] as number) + z * (d[11] as number);
}

// Constants of the last spherical rectangle: k, b0, b1, S.
const spherical = new Float64Array(4);

/** Solid angle of the face from a point in its frame, sr; leaves the constants for sampling behind. */
function sphericalRectangle(point: Float64Array, d: Float64Array): number {
  const halfWidth = d[12] as number;
  const halfHeight = d[13] as number;
  const x0 = -halfWidth - (point[0] as number);
  const x1 = halfWidth - (point[0] as number);
  const y0 = -halfHeight - (point[1] as number);
  const y1 = halfHeight - (point[1] as number);
  const z = -(point[2] as number);
  const z2 = z * z;
  const n0 = -y0 / Math.sqrt(z2 + y0 * y0);
  const n1 = x1 / Math.sqrt(z2 + x1 * x1);
  const n2 = y1 / Math.sqrt(z2 + y1 * y1);
  const n3 = -x0 / Math.sqrt(z2 + x0 * x0);
  const g0 = Math.acos(-n0 * n1);
  const g1 = Math.acos(-n1 * n2);
  const g2 = Math.acos(-n2 * n3);
  const g3 = Math.acos(-n3 * n0);
  const k = 2 * Math.PI - g2 - g3;
  const solidAngle = g0 + g1 - k;
  spherical[0] = k;
  spherical[1] = n0;
  spherical[2] = n2;
  spherical[3] = solidAngle;
  return solidAngle;
}

function areaPdf(d: Float64Array, distance: number, cosine: number): number {
  return (distance * distance) / (cosine * 4 * (d[12] as number) * (d[13] as number));
}

function sampleFace(out: Float64Array, d: Float64Array, point: Float64Array, uv: Float64Array): boolean {
  const u = uv[0] as number;
  const v = uv[1] as number;
  toFace(local, d, point);
  const lx = local[0] as number;
  const ly = local[1] as number;
  const height = local[2] as number;
  if (!(height > 1e-9)) return false;
  const halfWidth = d[12] as number;
  const halfHeight = d[13] as number;
  const solidAngle = sphericalRectangle(local, d);
  let x: number;
  let y: number;
  const bySolidAngle = solidAngle >= SMALLEST_SPHERICAL_SR;
  if (bySolidAngle) {
    const b0 = spherical[1] as number;
    const b1 = spherical[2] as number;
    const angle = u * solidAngle + (spherical[0] as number);
    const f = (Math.cos(angle) * b0 - b1) / Math.sin(angle);
    let c = 1 / Math.sqrt(f * f + b0 * b0);
    if (!(f > 0)) c = -c;
    if (c > 0.9999999999) c = 0.9999999999;
    else if (c < -0.9999999999) c = -0.9999999999;
    x = (c * height) / Math.sqrt(1 - c * c);
    if (x < -halfWidth - lx) x = -halfWidth - lx;
    else if (x > halfWidth - lx) x = halfWidth - lx;
    const y0 = -halfHeight - ly;
    const y1 = halfHeight - ly;
    const flat2 = x * x + height * height;
    const h0 = y0 / Math.sqrt(flat2 + y0 * y0);
    const h1 = y1 / Math.sqrt(flat2 + y1 * y1);
    const h = h0 + v * (h1 - h0);
    y = h * h < 1 - 1e-12 ? (h * Math.sqrt(flat2)) / Math.sqrt(1 - h * h) : y1;
  } else {
    x = (2 * u - 1) * halfWidth - lx;
    y = (2 * v - 1) * halfHeight - ly;
  }
  const distance = Math.sqrt(x * x + y * y + height * height);
  const inverse = 1 / distance;
  const cosine = height * inverse;
  const ex = x * inverse;
  const ey = y * inverse;
  out[0] = ex * (d[3] as number) + ey * (d[6] as number) - cosine * (d[9] as number);
  out[1] = ex * (d[4] as number) + ey * (d[7] as number) - cosine * (d[10] as number);
  out[2] = ex * (d[5] as number) + ey * (d[8] as number) - cosine * (d[11] as number);
  out[3] = distance;
  out[4] = bySolidAngle ? 1 / solidAngle : areaPdf(d, distance, cosine);
  out[5] = faceLuminance(d, x + lx, y + ly, -ex, -ey, cosine);
  return true;
}

function sampleLamp(out: Float64Array, d: Float64Array, point: Float64Array, uv: Float64Array): boolean {
  const u = uv[0] as number;
  const v = uv[1] as number;
  const cx = (d[0] as number) - (point[0] as number);
  const cy = (d[1] as number) - (point[1] as number);
  const cz = (d[2] as number) - (point[2] as number);
  const radius = d[3] as number;
  const squared = cx * cx + cy * cy + cz * cz;
  const sine2 = (radius * radius) / squared;
  if (!(sine2 < 1)) return false;
  const centre = Math.sqrt(squared);
  const spread = sine2 / (1 + Math.sqrt(1 - sine2));
  const cosine = 1 - u * spread;
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  const phi = 2 * Math.PI * v;
  const ax = cx / centre;
  const ay = cy / centre;
  const az = cz / centre;
  // Orthonormal frame round the axis, without branches near the poles (Duff et al. 2017).
  const sign = az >= 0 ? 1 : -1;
  const a = -1 / (sign + az);
  const b = ax * ay * a;
  const s = sine * Math.cos(phi);
  const t = sine * Math.sin(phi);
  const dx = cosine * ax + s * (1 + sign * ax * ax * a) + t * b;
  const dy = cosine * ay + s * sign * b + t * (sign + ay * ay * a);
  const dz = cosine * az - s * sign * ax - t * ay;
  const along = cx * dx + cy * dy + cz * dz;
  const under = radius * radius - (squared - along * along);
  out[0] = dx;
  out[1] = dy;
  out[2] = dz;
  out[3] = along - Math.sqrt(Math.max(0, under));
  out[4] = 1 / (2 * Math.PI * spread);
  out[5] = 1;
  return true;
}

function lampPdf(d: Float64Array, point: Float64Array): number {
  const cx = (d[0] as number) - (point[0] as number);
  const cy = (d[1] as number) - (point[1] as number);
  const cz = (d[2] as number) - (point[2] as number);
  const radius = d[3] as number;
  const sine2 = (radius * radius) / (cx * cx + cy * cy + cz * cz);
  if (!(sine2 < 1)) return 0;
  return (1 + Math.sqrt(1 - sine2)) / (2 * Math.PI * sine2);
}
