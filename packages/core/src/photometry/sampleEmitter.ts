import {
  type Emitter,
  FACE,
  HALF_HEIGHT,
  HALF_WIDTH,
  INNER,
  LAMP,
  OCTAGON_FACE,
  ROUND,
  SUN,
  SUN_RADIUS_RAD,
  TUBE,
} from './emitter.js';
import { faceLuminance } from './faceLuminance.js';
import { emittedByTube, sampleTube, tubePdf } from './sampleTube.js';

/** Below this solid angle, sr, a face is sampled by area: the spherical rectangle loses its digits. */
const SMALLEST_SPHERICAL_SR = 1e-3;

/**
 * Samples a direction from a point towards a light with two numbers `uv`.
 * Rectangular faces by solid angle of the spherical rectangle (Urena et al. 2013), small ones, round and
 * eight-sided ones by area; lamps by their cone; tubes by angle along the axis; the sun by its disc.
 * @param out 0-2 unit direction, 3 distance m, 4 density per sr, 5 relative luminance
 * @returns false when the light cannot shine here; `out` is then not written
 */
export function sampleEmitter(
  out: Float64Array,
  emitter: Emitter,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  switch (emitter.kind) {
    case LAMP:
      return sampleLamp(out, emitter.data, point, uv);
    case TUBE:
      return sampleTube(out, emitter.data, point, uv);
    case SUN:
      return sampleSun(out, emitter.data, point, uv);
    default:
      return sampleFace(out, emitter, point, uv);
  }
}

/**
 * Density per sr with which `sampleEmitter` picks a direction that hits the light, 0 if it cannot.
 * @param distance to the hit, m
 */
export function emitterPdf(
  emitter: Emitter,
  point: Float64Array,
  direction: Float64Array,
  distance: number,
): number {
  const d = emitter.data;
  switch (emitter.kind) {
    case LAMP:
      return lampPdf(d, point);
    case TUBE:
      return tubePdf(d, point, direction, distance);
    case SUN:
      return 1 / sunSolidAngle;
    case FACE: {
      toFace(local, d, point);
      if (!((local[2] as number) > 0)) return 0;
      const solidAngle = sphericalRectangle(local, d);
      if (solidAngle >= SMALLEST_SPHERICAL_SR) return 1 / solidAngle;
      break;
    }
    default:
  }
  const cosine = -alongForward(d, direction);
  return cosine > 0 ? (distance * distance) / (cosine * faceArea(emitter)) : 0;
}

/**
 * Relative luminance that leaves a light at a point on it against a ray direction.
 * @param direction of the ray that hit it, unit
 */
export function emittedLuminance(emitter: Emitter, point: Float64Array, direction: Float64Array): number {
  const d = emitter.data;
  if (emitter.kind === LAMP) return 1;
  if (emitter.kind === TUBE) return emittedByTube(d, point);
  const wz = -alongForward(d, direction);
  if (!(wz > 0)) return 0;
  const dx = direction[0] as number;
  const dy = direction[1] as number;
  const dz = direction[2] as number;
  if (emitter.kind === SUN) {
    const along = -(dx * (d[23] as number) + dy * (d[24] as number) + dz * (d[25] as number));
    return along >= Math.cos(SUN_RADIUS_RAD) ? 1 : 0;
  }
  const wx = -(dx * (d[3] as number) + dy * (d[4] as number) + dz * (d[5] as number));
  const wy = -(dx * (d[6] as number) + dy * (d[7] as number) + dz * (d[8] as number));
  toFace(local, d, point);
  return faceLuminance(emitter, local[0] as number, local[1] as number, wx, wy, wz);
}

/** Area that is sampled, m2. */
function faceArea({ kind, data }: Emitter): number {
  const area = 4 * (data[HALF_WIDTH] as number) * (data[HALF_HEIGHT] as number);
  if (kind === ROUND) return area * (Math.PI / 4) * (1 - (data[INNER] as number) ** 2);
  return kind === OCTAGON_FACE ? area * 2 * Math.tan(Math.PI / 8) : area;
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

/** A place on a round or eight-sided face, from -1 to 1 each way, even over its area. */
function placeOnFace({ kind, data }: Emitter, u: number, v: number): void {
  if (kind === ROUND) {
    const inner2 = (data[INNER] as number) ** 2;
    const radius = Math.sqrt(inner2 + v * (1 - inner2));
    place[0] = radius * Math.cos(2 * Math.PI * u);
    place[1] = radius * Math.sin(2 * Math.PI * u);
  } else if (kind === OCTAGON_FACE) {
    // Rows of an octagon: full width in the middle, shrinking over the cut corners.
    const straight = Math.SQRT2 - 1;
    const corner = 1 - straight;
    const cornerArea = (1 - corner / 2) * corner;
    const whole = straight + cornerArea;
    const side = v < 0.5 ? -1 : 1;
    const rest = Math.abs(2 * v - 1) * whole;
    let row = rest;
    if (rest > straight) row = straight + 1 - Math.sqrt(Math.max(0, 1 - 2 * (rest - straight)));
    place[1] = side * row;
    place[0] = (2 * u - 1) * Math.min(1, Math.SQRT2 - row);
  } else {
    place[0] = 2 * u - 1;
    place[1] = 2 * v - 1;
  }
}

const place = new Float64Array(2);

function sampleFace(out: Float64Array, emitter: Emitter, point: Float64Array, uv: Float64Array): boolean {
  const d = emitter.data;
  const u = uv[0] as number;
  const v = uv[1] as number;
  toFace(local, d, point);
  const lx = local[0] as number;
  const ly = local[1] as number;
  const height = local[2] as number;
  if (!(height > 1e-9)) return false;
  const halfWidth = d[HALF_WIDTH] as number;
  const halfHeight = d[HALF_HEIGHT] as number;
  const solidAngle = emitter.kind === FACE ? sphericalRectangle(local, d) : 0;
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
    placeOnFace(emitter, u, v);
    x = (place[0] as number) * halfWidth - lx;
    y = (place[1] as number) * halfHeight - ly;
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
  out[4] = bySolidAngle ? 1 / solidAngle : (distance * distance) / (cosine * faceArea(emitter));
  out[5] = faceLuminance(emitter, x + lx, y + ly, -ex, -ey, cosine);
  return true;
}

const sunSolidAngle = 2 * Math.PI * (1 - Math.cos(SUN_RADIUS_RAD));

/** A direction within the sun's disc, if it passes through the window. */
function sampleSun(out: Float64Array, d: Float64Array, point: Float64Array, uv: Float64Array): boolean {
  const cosine = 1 - (uv[0] as number) * (1 - Math.cos(SUN_RADIUS_RAD));
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  const phi = 2 * Math.PI * (uv[1] as number);
  const ax = -(d[23] as number);
  const ay = -(d[24] as number);
  const az = -(d[25] as number);
  const sign = az >= 0 ? 1 : -1;
  const a = -1 / (sign + az);
  const b = ax * ay * a;
  const s = sine * Math.cos(phi);
  const t = sine * Math.sin(phi);
  const dx = cosine * ax + s * (1 + sign * ax * ax * a) + t * b;
  const dy = cosine * ay + s * sign * b + t * (sign + ay * ay * a);
  const dz = cosine * az - s * sign * ax - t * ay;
  const towards = -(dx * (d[9] as number) + dy * (d[10] as number) + dz * (d[11] as number));
  toFace(local, d, point);
  const height = local[2] as number;
  if (!(towards > 1e-6 && height > 1e-9)) return false;
  const distance = height / towards;
  const x =
    (local[0] as number) + distance * (dx * (d[3] as number) + dy * (d[4] as number) + dz * (d[5] as number));
  const y =
    (local[1] as number) + distance * (dx * (d[6] as number) + dy * (d[7] as number) + dz * (d[8] as number));
  if (Math.abs(x) > (d[HALF_WIDTH] as number) || Math.abs(y) > (d[HALF_HEIGHT] as number)) return false;
  out[0] = dx;
  out[1] = dy;
  out[2] = dz;
  out[3] = distance;
  out[4] = 1 / sunSolidAngle;
  out[5] = 1;
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
