/** Luminous tubes; `e` is an offset in `d`, the table of emitters. Their ends are dark. */

import {
  EMITTER_CENTRE,
  FACE_RIGHT,
  LIGHT_DENSITY,
  LIGHT_DISTANCE,
  LIGHT_LUMINANCE,
  TUBE_HALF,
  TUBE_RADIUS,
} from './layouts.js';
import type { i32 } from './portable.js';
import { dotAt } from './vectors.js';

// Of the last point: 0 along the axis, 1 distance from it, 2-4 unit direction from axis to point.
const stand = new Float64Array(5);

function standAt(d: Float64Array, e: i32, point: Float64Array): void {
  const px = point[0] - d[e + EMITTER_CENTRE];
  const py = point[1] - d[e + EMITTER_CENTRE + 1];
  const pz = point[2] - d[e + EMITTER_CENTRE + 2];
  const along = px * d[e + FACE_RIGHT] + py * d[e + FACE_RIGHT + 1] + pz * d[e + FACE_RIGHT + 2];
  const ex = px - along * d[e + FACE_RIGHT];
  const ey = py - along * d[e + FACE_RIGHT + 1];
  const ez = pz - along * d[e + FACE_RIGHT + 2];
  const away = Math.sqrt(ex * ex + ey * ey + ez * ez);
  stand[0] = along;
  stand[1] = away;
  stand[2] = ex / away;
  stand[3] = ey / away;
  stand[4] = ez / away;
}

/**
 * Samples the side of a tube that a point sees: along the axis by equal angles (Kulla and Fajardo 2012), round
 * it by the cosine towards the point.
 */
export function sampleTube(
  out: Float64Array,
  d: Float64Array,
  e: i32,
  point: Float64Array,
  uv: Float64Array,
): boolean {
  standAt(d, e, point);
  const radius = d[e + TUBE_RADIUS];
  const half = d[e + TUBE_HALF];
  const away = stand[1];
  if (!(away > radius * (1 + 1e-9))) return false;
  const along = stand[0];
  const from = Math.atan((-half - along) / away);
  const to = Math.atan((half - along) / away);
  const angle = from + uv[0] * (to - from);
  const h = along + away * Math.tan(angle);
  const widest = Math.sqrt(1 - (radius / away) ** 2);
  const s = (2 * uv[1] - 1) * widest;
  const c = Math.sqrt(1 - s * s);
  const ax = d[e + FACE_RIGHT];
  const ay = d[e + FACE_RIGHT + 1];
  const az = d[e + FACE_RIGHT + 2];
  const ex = stand[2];
  const ey = stand[3];
  const ez = stand[4];
  const nx = c * ex + s * (ay * ez - az * ey);
  const ny = c * ey + s * (az * ex - ax * ez);
  const nz = c * ez + s * (ax * ey - ay * ex);
  const x = d[e + EMITTER_CENTRE] + h * ax + radius * nx - point[0];
  const y = d[e + EMITTER_CENTRE + 1] + h * ay + radius * ny - point[1];
  const z = d[e + EMITTER_CENTRE + 2] + h * az + radius * nz - point[2];
  const distance = Math.sqrt(x * x + y * y + z * z);
  const cosine = -(x * nx + y * ny + z * nz) / distance;
  if (!(cosine > 0)) return false;
  out[0] = x / distance;
  out[1] = y / distance;
  out[2] = z / distance;
  out[LIGHT_DISTANCE] = distance;
  out[LIGHT_DENSITY] =
    (areaDensity(radius, away, to - from, h - along, c, widest) * distance * distance) / cosine;
  out[LIGHT_LUMINANCE] = 1;
  return true;
}

/** Density per sr of a direction that hits the tube at a distance. */
export function tubePdf(
  d: Float64Array,
  e: i32,
  point: Float64Array,
  direction: Float64Array,
  distance: number,
): number {
  standAt(d, e, point);
  const radius = d[e + TUBE_RADIUS];
  const half = d[e + TUBE_HALF];
  const away = stand[1];
  if (!(away > radius * (1 + 1e-9))) return 0;
  const along = stand[0];
  const spread = Math.atan((half - along) / away) - Math.atan((-half - along) / away);
  const rise = dotAt(direction, d, e + FACE_RIGHT);
  const h = along + distance * rise;
  // Normal at the hit: what of the hit is square to the axis, over the radius.
  const ex = (stand[2] * away + distance * (direction[0] - rise * d[e + FACE_RIGHT])) / radius;
  const ey = (stand[3] * away + distance * (direction[1] - rise * d[e + FACE_RIGHT + 1])) / radius;
  const ez = (stand[4] * away + distance * (direction[2] - rise * d[e + FACE_RIGHT + 2])) / radius;
  const cosine = -(direction[0] * ex + direction[1] * ey + direction[2] * ez);
  if (!(cosine > 0)) return 0;
  const c = ex * stand[2] + ey * stand[3] + ez * stand[4];
  const widest = Math.sqrt(1 - (radius / away) ** 2);
  return (areaDensity(radius, away, spread, h - along, c, widest) * distance * distance) / cosine;
}

/** Density per m2 of the side: of the height by angle, of the way round by the cosine `c`. */
function areaDensity(
  radius: number,
  away: number,
  spread: number,
  offset: number,
  c: number,
  widest: number,
): number {
  const byHeight = away / (spread * (away * away + offset * offset));
  const byTurn = c / (2 * widest);
  return (byHeight * byTurn) / radius;
}

/** The side shines evenly, the ends do not. */
export function emittedByTube(d: Float64Array, e: i32, point: Float64Array): number {
  standAt(d, e, point);
  return stand[1] > 0.999 * d[e + TUBE_RADIUS] ? 1 : 0;
}
