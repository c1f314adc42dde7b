/**
 * Lights as sampled. An emitter is the offset of a row of `tables.emitters`; its luminance is scaled so that the mean over the
 * face, seen straight on, is 1 cd/m2.
 */
import { faceLuminance } from './faceLuminance.js';
import {
  CUTOFF_TAN,
  EMITTER_CENTRE,
  EMITTER_KIND,
  FACE,
  FACE_FORWARD,
  FACE_RIGHT,
  FACE_UP,
  HALF_HEIGHT,
  HALF_WIDTH,
  INNER,
  LAMP,
  LAMP_RADIUS,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  OCTAGON_FACE,
  ROUND,
  SUN,
  SUN_TOWARDS,
  TUBE,
} from './layouts.js';
import { type i32, whole32 } from './portable.js';
import type { SceneTables } from './tables.js';
import { emittedByTube, sampleTube, tubePdf } from './tubeLight.js';
import { dotAt } from './vectors.js';

/** Angular radius of the sun, rad. */
export const SUN_RADIUS_RAD = (0.266 * Math.PI) / 180;
const SUN_COSINE = Math.cos(SUN_RADIUS_RAD);
const SUN_SOLID_ANGLE = 2 * Math.PI * (1 - SUN_COSINE);

/** Below this solid angle, sr, a face is sampled by area: the spherical rectangle loses its digits. */
const SMALLEST_SPHERICAL_SR = 1e-3;

/** Tangent of pi/8: area of a regular octagon over that of the square round it is twice this. */
const OCTAGON_TAN = Math.SQRT2 - 1;

/**
 * Samples a direction from a point towards a light with two numbers `uv`.
 * Rectangular faces by solid angle of the spherical rectangle (Urena et al. 2013), small ones, round and
 * eight-sided ones by area; lamps by their cone; tubes by angle along the axis; the sun by its disc.
 * @param out 0-2 unit direction, 3 distance m, 4 density per sr, 5 relative luminance
 * @returns false when the light cannot shine here; `out` is then not written
 */
export function sampleEmitter(
  out: Float64Array,
  t: SceneTables,
  e: i32,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  const kind = whole32(t.emitters[e + EMITTER_KIND]);
  if (kind === LAMP) return sampleLamp(out, t.emitters, e, point, uv);
  if (kind === TUBE) return sampleTube(out, t.emitters, e, point, uv);
  if (kind === SUN) return sampleSun(out, t.emitters, e, point, uv);
  return sampleFace(out, t, e, point, uv);
}

/**
 * Density per sr with which `sampleEmitter` picks a direction that hits the light, 0 if it cannot.
 * @param distance to the hit, m
 */
export function emitterPdf(
  t: SceneTables,
  e: i32,
  point: Float64Array,
  direction: Float64Array,
  distance: number,
): number {
  const d = t.emitters;
  const kind = whole32(d[e + EMITTER_KIND]);
  if (kind === LAMP) return lampPdf(d, e, point);
  if (kind === TUBE) return tubePdf(d, e, point, direction, distance);
  if (kind === SUN) return 1 / SUN_SOLID_ANGLE;
  if (kind === FACE) {
    toFace(local, d, e, point);
    if (!(local[2] > 0)) return 0;
    const solidAngle = sphericalRectangle(local, d, e);
    if (solidAngle >= SMALLEST_SPHERICAL_SR) return 1 / solidAngle;
  }
  const cosine = -dotAt(direction, d, e + FACE_FORWARD);
  return cosine > 0 ? (distance * distance) / (cosine * faceArea(t, e)) : 0;
}

/**
 * Relative luminance that leaves a light at a point on it against a ray direction.
 * @param direction of the ray that hit it, unit
 */
export function emittedLuminance(
  t: SceneTables,
  e: i32,
  point: Float64Array,
  direction: Float64Array,
): number {
  const d = t.emitters;
  const kind = whole32(d[e + EMITTER_KIND]);
  if (kind === LAMP) return 1;
  if (kind === TUBE) return emittedByTube(d, e, point);
  const wz = -dotAt(direction, d, e + FACE_FORWARD);
  if (!(wz > 0)) return 0;
  if (kind === SUN) return -dotAt(direction, d, e + SUN_TOWARDS) >= SUN_COSINE ? 1 : 0;
  const wx = -dotAt(direction, d, e + FACE_RIGHT);
  const wy = -dotAt(direction, d, e + FACE_UP);
  toFace(local, d, e, point);
  return faceLuminance(t, e, local[0], local[1], wx, wy, wz);
}

/** Area that is sampled, m2. */
function faceArea(t: SceneTables, e: i32): number {
  const d = t.emitters;
  const kind = whole32(d[e + EMITTER_KIND]);
  const area = 4 * d[e + HALF_WIDTH] * d[e + HALF_HEIGHT];
  const inner = d[e + INNER];
  if (kind === ROUND) return area * (Math.PI / 4) * (1 - inner * inner);
  return kind === OCTAGON_FACE ? area * 2 * OCTAGON_TAN : area;
}

const local = new Float64Array(3);

/** A point in the frame of a face: right, up, forward from its centre. */
function toFace(out: Float64Array, d: Float64Array, e: i32, point: Float64Array): void {
  const x = point[0] - d[e + EMITTER_CENTRE];
  const y = point[1] - d[e + EMITTER_CENTRE + 1];
  const z = point[2] - d[e + EMITTER_CENTRE + 2];
  out[0] = x * d[e + FACE_RIGHT] + y * d[e + FACE_RIGHT + 1] + z * d[e + FACE_RIGHT + 2];
  out[1] = x * d[e + FACE_UP] + y * d[e + FACE_UP + 1] + z * d[e + FACE_UP + 2];
  out[2] = x * d[e + FACE_FORWARD] + y * d[e + FACE_FORWARD + 1] + z * d[e + FACE_FORWARD + 2];
}

// Constants of the last spherical rectangle: k, b0, b1, S.
const spherical = new Float64Array(4);

/** Solid angle of the face from a point in its frame, sr; leaves the constants for sampling behind. */
function sphericalRectangle(point: Float64Array, d: Float64Array, e: i32): number {
  const halfWidth = d[e + HALF_WIDTH];
  const halfHeight = d[e + HALF_HEIGHT];
  const x0 = -halfWidth - point[0];
  const x1 = halfWidth - point[0];
  const y0 = -halfHeight - point[1];
  const y1 = halfHeight - point[1];
  const z = -point[2];
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
function placeOnFace(t: SceneTables, e: i32, u: number, v: number): void {
  const d = t.emitters;
  const kind = whole32(d[e + EMITTER_KIND]);
  if (kind === ROUND) {
    const inner = d[e + INNER];
    const inner2 = inner * inner;
    const radius = Math.sqrt(inner2 + v * (1 - inner2));
    onFace[0] = radius * Math.cos(2 * Math.PI * u);
    onFace[1] = radius * Math.sin(2 * Math.PI * u);
  } else if (kind === OCTAGON_FACE) {
    // Rows of an octagon: full width in the middle, shrinking over the cut corners.
    const straight = Math.SQRT2 - 1;
    const corner = 1 - straight;
    const cornerArea = (1 - corner / 2) * corner;
    const whole = straight + cornerArea;
    const side: number = v < 0.5 ? -1 : 1;
    const rest = Math.abs(2 * v - 1) * whole;
    let row = rest;
    if (rest > straight) row = straight + 1 - Math.sqrt(Math.max(0, 1 - 2 * (rest - straight)));
    onFace[1] = side * row;
    onFace[0] = (2 * u - 1) * Math.min(1, Math.SQRT2 - row);
  } else {
    onFace[0] = 2 * u - 1;
    onFace[1] = 2 * v - 1;
  }
}

const onFace = new Float64Array(2);

function sampleFace(
  out: Float64Array,
  t: SceneTables,
  e: i32,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  const d = t.emitters;
  const u = uv[0];
  const v = uv[1];
  toFace(local, d, e, point);
  const lx = local[0];
  const ly = local[1];
  const height = local[2];
  if (!(height > 1e-9)) return false;
  const halfWidth = d[e + HALF_WIDTH];
  const halfHeight = d[e + HALF_HEIGHT];
  const cutoff = d[e + CUTOFF_TAN];
  if (cutoff > 0) {
    // Outside of what the cells of a grid let through from any place on the face.
    const reach = height * cutoff;
    if (Math.abs(lx) > halfWidth + reach || Math.abs(ly) > halfHeight + reach) return false;
  }
  const solidAngle: number = whole32(d[e + EMITTER_KIND]) === FACE ? sphericalRectangle(local, d, e) : 0;
  let x: number = 0;
  let y: number = 0;
  const bySolidAngle = solidAngle >= SMALLEST_SPHERICAL_SR;
  if (bySolidAngle) {
    const b0 = spherical[1];
    const b1 = spherical[2];
    const angle = u * solidAngle + spherical[0];
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
    placeOnFace(t, e, u, v);
    x = onFace[0] * halfWidth - lx;
    y = onFace[1] * halfHeight - ly;
  }
  const distance = Math.sqrt(x * x + y * y + height * height);
  const inverse = 1 / distance;
  const cosine = height * inverse;
  const ex = x * inverse;
  const ey = y * inverse;
  out[0] = ex * d[e + FACE_RIGHT] + ey * d[e + FACE_UP] - cosine * d[e + FACE_FORWARD];
  out[1] = ex * d[e + FACE_RIGHT + 1] + ey * d[e + FACE_UP + 1] - cosine * d[e + FACE_FORWARD + 1];
  out[2] = ex * d[e + FACE_RIGHT + 2] + ey * d[e + FACE_UP + 2] - cosine * d[e + FACE_FORWARD + 2];
  out[LIGHT_DISTANCE] = distance;
  out[LIGHT_DENSITY] = bySolidAngle ? 1 / solidAngle : (distance * distance) / (cosine * faceArea(t, e));
  out[LIGHT_LUMINANCE] = faceLuminance(t, e, x + lx, y + ly, -ex, -ey, cosine);
  return true;
}

/** A direction within the sun's disc, if it passes through the window. */
function sampleSun(
  out: Float64Array,
  d: Float64Array,
  e: i32,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  const cosine = 1 - uv[0] * (1 - SUN_COSINE);
  const sine = Math.sqrt(Math.max(0, 1 - cosine * cosine));
  const phi = 2 * Math.PI * uv[1];
  const ax = -d[e + SUN_TOWARDS];
  const ay = -d[e + SUN_TOWARDS + 1];
  const az = -d[e + SUN_TOWARDS + 2];
  const sign: number = az >= 0 ? 1 : -1;
  const a = -1 / (sign + az);
  const b = ax * ay * a;
  const s = sine * Math.cos(phi);
  const t = sine * Math.sin(phi);
  const dx = cosine * ax + s * (1 + sign * ax * ax * a) + t * b;
  const dy = cosine * ay + s * sign * b + t * (sign + ay * ay * a);
  const dz = cosine * az - s * sign * ax - t * ay;
  const towards = -(dx * d[e + FACE_FORWARD] + dy * d[e + FACE_FORWARD + 1] + dz * d[e + FACE_FORWARD + 2]);
  toFace(local, d, e, point);
  const height = local[2];
  if (!(towards > 1e-6 && height > 1e-9)) return false;
  const distance = height / towards;
  const x =
    local[0] + distance * (dx * d[e + FACE_RIGHT] + dy * d[e + FACE_RIGHT + 1] + dz * d[e + FACE_RIGHT + 2]);
  const y = local[1] + distance * (dx * d[e + FACE_UP] + dy * d[e + FACE_UP + 1] + dz * d[e + FACE_UP + 2]);
  if (Math.abs(x) > d[e + HALF_WIDTH] || Math.abs(y) > d[e + HALF_HEIGHT]) return false;
  out[0] = dx;
  out[1] = dy;
  out[2] = dz;
  out[LIGHT_DISTANCE] = distance;
  out[LIGHT_DENSITY] = 1 / SUN_SOLID_ANGLE;
  out[LIGHT_LUMINANCE] = 1;
  return true;
}

function sampleLamp(
  out: Float64Array,
  d: Float64Array,
  e: i32,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  const u = uv[0];
  const v = uv[1];
  const cx = d[e + EMITTER_CENTRE] - point[0];
  const cy = d[e + EMITTER_CENTRE + 1] - point[1];
  const cz = d[e + EMITTER_CENTRE + 2] - point[2];
  const radius = d[e + LAMP_RADIUS];
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
  const sign: number = az >= 0 ? 1 : -1;
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
  out[LIGHT_DISTANCE] = along - Math.sqrt(Math.max(0, under));
  out[LIGHT_DENSITY] = 1 / (2 * Math.PI * spread);
  out[LIGHT_LUMINANCE] = 1;
  return true;
}

function lampPdf(d: Float64Array, e: i32, point: Float64Array): number {
  const cx = d[e + EMITTER_CENTRE] - point[0];
  const cy = d[e + EMITTER_CENTRE + 1] - point[1];
  const cz = d[e + EMITTER_CENTRE + 2] - point[2];
  const radius = d[e + LAMP_RADIUS];
  const sine2 = (radius * radius) / (cx * cx + cy * cy + cz * cz);
  if (!(sine2 < 1)) return 0;
  return (1 + Math.sqrt(1 - sine2)) / (2 * Math.PI * sine2);
}
