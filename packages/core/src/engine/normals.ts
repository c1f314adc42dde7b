import type { i32 } from './portable.js';
import { BALL, CONE, FLAT, type SceneTables, STRIDE } from './tables.js';
import { dotAt } from './vectors.js';

/**
 * Unit normals of a primitive at a point on it: `out[0..2]` of the surface itself,
 * `out[3..5]` for shading, which differs on turned outlines and meshes only. Both point to the front.
 */
export function normalsAt(out: Float64Array, tables: SceneTables, primitive: i32, point: Float64Array): void {
  const d = tables.data;
  const o = primitive * STRIDE;
  const kind = tables.kind[primitive];
  if (kind === FLAT) {
    for (let a = 0; a < 3; a++) {
      out[a] = d[o + 9 + a];
      out[3 + a] = d[o + 9 + a];
    }
  } else if (kind === CONE) coneNormals(out, d, o, point);
  else if (kind === BALL) {
    const inverse = 1 / d[o + 3];
    for (let a = 0; a < 3; a++) {
      out[a] = (point[a] - d[o + a]) * inverse;
      out[3 + a] = out[a];
    }
  } else triangleNormals(out, d, o, point);
}

function coneNormals(out: Float64Array, d: Float64Array, o: i32, point: Float64Array): void {
  const ax = d[o + 3];
  const ay = d[o + 4];
  const az = d[o + 5];
  let px = point[0] - d[o];
  let py = point[1] - d[o + 1];
  let pz = point[2] - d[o + 2];
  const height = px * ax + py * ay + pz * az;
  px -= height * ax;
  py -= height * ay;
  pz -= height * az;
  const rho = Math.sqrt(px * px + py * py + pz * pz);
  // On the axis itself any direction across it will do: that of the arc.
  const inverse: number = rho > 0 ? 1 / rho : 0;
  const ux = rho > 0 ? px * inverse : d[o + 13];
  const uy = rho > 0 ? py * inverse : d[o + 14];
  const uz = rho > 0 ? pz * inverse : d[o + 15];
  const sign = d[o + 17];
  const k = d[o + 8];
  const size = sign / Math.sqrt(1 + k * k);
  out[0] = size * (ux - k * ax);
  out[1] = size * (uy - k * ay);
  out[2] = size * (uz - k * az);
  const part = height / d[o + 6];
  const nr = d[o + 9] + part * (d[o + 11] - d[o + 9]);
  const nh = d[o + 10] + part * (d[o + 12] - d[o + 10]);
  const unit = sign / Math.sqrt(nr * nr + nh * nh);
  out[3] = unit * (nr * ux + nh * ax);
  out[4] = unit * (nr * uy + nh * ay);
  out[5] = unit * (nr * uz + nh * az);
}

function triangleNormals(out: Float64Array, d: Float64Array, o: i32, point: Float64Array): void {
  const ux = d[o + 3];
  const uy = d[o + 4];
  const uz = d[o + 5];
  const vx = d[o + 6];
  const vy = d[o + 7];
  const vz = d[o + 8];
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const squared = nx * nx + ny * ny + nz * nz;
  const inverse = 1 / Math.sqrt(squared);
  out[0] = nx * inverse;
  out[1] = ny * inverse;
  out[2] = nz * inverse;
  const px = point[0] - d[o];
  const py = point[1] - d[o + 1];
  const pz = point[2] - d[o + 2];
  // Areas of the parts over the whole: (p x v).n and (u x p).n
  const b = ((py * vz - pz * vy) * nx + (pz * vx - px * vz) * ny + (px * vy - py * vx) * nz) / squared;
  const c = ((uy * pz - uz * py) * nx + (uz * px - ux * pz) * ny + (ux * py - uy * px) * nz) / squared;
  const a = 1 - b - c;
  let size: number = 0;
  for (let i = 0; i < 3; i++) {
    const value = a * d[o + 9 + i] + b * d[o + 12 + i] + c * d[o + 15 + i];
    out[3 + i] = value;
    size += value * value;
  }
  if (!(size > 1e-12)) {
    for (let i = 0; i < 3; i++) out[3 + i] = out[i];
    return;
  }
  const unit = 1 / Math.sqrt(size);
  for (let i = 0; i < 3; i++) out[3 + i] = unit * out[3 + i];
}

const offset = new Float64Array(3);

/**
 * Place of a point in the pattern of its primitive, `out[0]` across and `out[1]` up, 0 to 1:
 * over a flat one from edge to edge, over a cone round the axis (its arc, or the whole turn) and along it,
 * over a ball by longitude and latitude. Meshes have no pattern: 0.5.
 */
export function patternPlace(
  out: Float64Array,
  tables: SceneTables,
  primitive: i32,
  point: Float64Array,
): void {
  const d = tables.data;
  const o = primitive * STRIDE;
  const kind = tables.kind[primitive];
  for (let a = 0; a < 3; a++) offset[a] = point[a] - d[o + a];
  if (kind === FLAT) {
    out[0] = dotAt(offset, d, o + 3) * d[o + 12];
    out[1] = dotAt(offset, d, o + 6) * d[o + 13];
  } else if (kind === CONE) {
    const height = dotAt(offset, d, o + 3);
    const mx = d[o + 13];
    const my = d[o + 14];
    const mz = d[o + 15];
    const ax = d[o + 3];
    const ay = d[o + 4];
    const az = d[o + 5];
    const forward = dotAt(offset, d, o + 13);
    // The direction a quarter turn on from the middle of the arc: axis x middle.
    const side =
      offset[0] * (ay * mz - az * my) + offset[1] * (az * mx - ax * mz) + offset[2] * (ax * my - ay * mx);
    out[0] = 0.5 + Math.atan2(side, forward) / (2 * halfArc(d, o));
    const from = d[o + 18];
    out[1] = from + (height / d[o + 6]) * (d[o + 19] - from);
  } else if (kind === BALL) {
    const up = offset[2] / d[o + 3];
    out[0] = 0.5 + Math.atan2(offset[0], -offset[1]) / (2 * Math.PI);
    out[1] = 0.5 + Math.asin(Math.max(-1, Math.min(1, up))) / Math.PI;
  } else {
    out[0] = 0.5;
    out[1] = 0.5;
  }
}

/** Half the arc of a cone, rad; pi for a whole one. */
export function halfArc(d: Float64Array, o: i32): number {
  const cosHalf = d[o + 16];
  return cosHalf < -1 ? Math.PI : Math.acos(cosHalf);
}

/** Point of a primitive at a place of it; for a cone the place runs over this piece alone. @param out 0-2, m */
export function pointOnPanel(
  out: Float64Array,
  tables: SceneTables,
  primitive: i32,
  a: number,
  b: number,
): void {
  const d = tables.data;
  const o = primitive * STRIDE;
  if (tables.kind[primitive] === FLAT) {
    for (let i = 0; i < 3; i++) {
      out[i] = d[o + i] + a * d[o + 3 + i] + b * d[o + 6 + i];
    }
    return;
  }
  const height = b * d[o + 6];
  const radius = d[o + 7] + d[o + 8] * height;
  const angle = (2 * a - 1) * halfArc(d, o);
  const c = Math.cos(angle) * radius;
  const s = Math.sin(angle) * radius;
  const ax = d[o + 3];
  const ay = d[o + 4];
  const az = d[o + 5];
  const mx = d[o + 13];
  const my = d[o + 14];
  const mz = d[o + 15];
  out[0] = d[o] + height * ax + c * mx + s * (ay * mz - az * my);
  out[1] = d[o + 1] + height * ay + c * my + s * (az * mx - ax * mz);
  out[2] = d[o + 2] + height * az + c * mz + s * (ax * my - ay * mx);
}

/** Whether a place of the pattern is on the primitive: not in its hole, past its corner or round. */
export function isOnPanel(tables: SceneTables, primitive: i32, a: number, b: number): boolean {
  if (tables.kind[primitive] !== FLAT) return true;
  const d = tables.data;
  const o = primitive * STRIDE;
  const x = 2 * a - 1;
  const y = 2 * b - 1;
  const sx = x * d[o + 16];
  const sy = y * d[o + 17];
  const rho2 = sx * sx + sy * sy;
  return rho2 >= d[o + 14] && rho2 <= d[o + 15] && Math.abs(x) + Math.abs(y) <= d[o + 18];
}

/** Place of a point over this primitive alone, 0 to 1 each way. */
export function placeOnPanel(
  out: Float64Array,
  tables: SceneTables,
  primitive: i32,
  point: Float64Array,
): void {
  patternPlace(out, tables, primitive, point);
  if (tables.kind[primitive] !== CONE) return;
  const o = primitive * STRIDE;
  const from = tables.data[o + 18];
  const to = tables.data[o + 19];
  out[1] = (out[1] - from) / (to - from);
}
