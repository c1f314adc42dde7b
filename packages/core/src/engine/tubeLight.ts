/** Luminous tubes; `e` is a place in `d`, the table of emitters. Their ends are dark. */
import type { i32 } from './portable.js';
import { CENTRE, RIGHT, TUBE_HALF, TUBE_RADIUS } from './tables.js';
import { dotAt } from './vectors.js';

// Of the last point: 0 along the axis, 1 distance from it, 2-4 unit direction from axis to point.
const stand = new Float64Array(5);

function standAt(d: Float64Array, e: i32, point: Float64Array): void {
  const px = (point[0] as number) - (d[e + CENTRE] as number);
  const py = (point[1] as number) - (d[e + CENTRE + 1] as number);
  const pz = (point[2] as number) - (d[e + CENTRE + 2] as number);
  const along =
    px * (d[e + RIGHT] as number) + py * (d[e + RIGHT + 1] as number) + pz * (d[e + RIGHT + 2] as number);
  const ex = px - along * (d[e + RIGHT] as number);
  const ey = py - along * (d[e + RIGHT + 1] as number);
  const ez = pz - along * (d[e + RIGHT + 2] as number);
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
  const radius = d[e + TUBE_RADIUS] as number;
  const half = d[e + TUBE_HALF] as number;
  const away = stand[1] as number;
  if (!(away > radius * (1 + 1e-9))) return false;
  const along = stand[0] as number;
  const from = Math.atan((-half - along) / away);
  const to = Math.atan((half - along) / away);
  const angle = from + (uv[0] as number) * (to - from);
  const h = along + away * Math.tan(angle);
  const widest = Math.sqrt(1 - (radius / away) ** 2);
  const s = (2 * (uv[1] as number) - 1) * widest;
  const c = Math.sqrt(1 - s * s);
  const ax = d[e + RIGHT] as number;
  const ay = d[e + RIGHT + 1] as number;
  const az = d[e + RIGHT + 2] as number;
  const ex = stand[2] as number;
  const ey = stand[3] as number;
  const ez = stand[4] as number;
  const nx = c * ex + s * (ay * ez - az * ey);
  const ny = c * ey + s * (az * ex - ax * ez);
  const nz = c * ez + s * (ax * ey - ay * ex);
  const x = (d[e + CENTRE] as number) + h * ax + radius * nx - (point[0] as number);
  const y = (d[e + CENTRE + 1] as number) + h * ay + radius * ny - (point[1] as number);
  const z = (d[e + CENTRE + 2] as number) + h * az + radius * nz - (point[2] as number);
  const distance = Math.sqrt(x * x + y * y + z * z);
  const cosine = -(x * nx + y * ny + z * nz) / distance;
  if (!(cosine > 0)) return false;
  out[0] = x / distance;
  out[1] = y / distance;
  out[2] = z / distance;
  out[3] = distance;
  out[4] = (areaDensity(radius, away, to - from, h - along, c, widest) * distance * distance) / cosine;
  out[5] = 1;
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
  const radius = d[e + TUBE_RADIUS] as number;
  const half = d[e + TUBE_HALF] as number;
  const away = stand[1] as number;
  if (!(away > radius * (1 + 1e-9))) return 0;
  const along = stand[0] as number;
  const spread = Math.atan((half - along) / away) - Math.atan((-half - along) / away);
  const rise = dotAt(direction, d, e + RIGHT);
  const h = along + distance * rise;
  // Normal at the hit: what of the hit is square to the axis, over the radius.
  const ex =
    ((stand[2] as number) * away + distance * ((direction[0] as number) - rise * (d[e + RIGHT] as number))) /
    radius;
  const ey =
    ((stand[3] as number) * away +
      distance * ((direction[1] as number) - rise * (d[e + RIGHT + 1] as number))) /
    radius;
  const ez =
    ((stand[4] as number) * away +
      distance * ((direction[2] as number) - rise * (d[e + RIGHT + 2] as number))) /
    radius;
  const cosine = -(
    (direction[0] as number) * ex +
    (direction[1] as number) * ey +
    (direction[2] as number) * ez
  );
  if (!(cosine > 0)) return 0;
  const c = ex * (stand[2] as number) + ey * (stand[3] as number) + ez * (stand[4] as number);
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
  return (stand[1] as number) > 0.999 * (d[e + TUBE_RADIUS] as number) ? 1 : 0;
}
