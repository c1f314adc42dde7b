import {
  BALL,
  BALL_CENTRE,
  BALL_RADIUS,
  CONE,
  CONE_ARC_COSINE,
  CONE_ARC_MIDDLE,
  CONE_AXIS,
  CONE_FOOT,
  CONE_FOOT_NORMAL,
  CONE_HEIGHT,
  CONE_PATTERN_FOOT,
  CONE_PATTERN_TOP,
  CONE_RADIUS,
  CONE_SIDE,
  CONE_SLOPE,
  CONE_TOP_NORMAL,
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
  PRIMITIVE_STRIDE,
  SHADING_NORMAL,
  TRIANGLE_CORNER,
  TRIANGLE_EDGE_U,
  TRIANGLE_EDGE_V,
  TRIANGLE_NORMALS,
} from './layouts.js';
import type { i32 } from './portable.js';
import type { SceneTables } from './tables.js';
import { dotAt } from './vectors.js';

/**
 * Unit normals of a primitive at a point on it: of the surface itself, and for shading, which
 * differs on turned outlines and meshes only. Both point to the front.
 * @param out see `NORMALS`
 */
export function normalsAt(out: Float64Array, tables: SceneTables, primitive: i32, point: Float64Array): void {
  const d = tables.data;
  const o = primitive * PRIMITIVE_STRIDE;
  const kind = tables.kind[primitive];
  if (kind === FLAT) {
    for (let a = 0; a < 3; a++) {
      out[a] = d[o + FLAT_NORMAL + a];
      out[SHADING_NORMAL + a] = d[o + FLAT_NORMAL + a];
    }
  } else if (kind === CONE) coneNormals(out, d, o, point);
  else if (kind === BALL) {
    const inverse = 1 / d[o + BALL_RADIUS];
    for (let a = 0; a < 3; a++) {
      out[a] = (point[a] - d[o + BALL_CENTRE + a]) * inverse;
      out[SHADING_NORMAL + a] = out[a];
    }
  } else triangleNormals(out, d, o, point);
}

function coneNormals(out: Float64Array, d: Float64Array, o: i32, point: Float64Array): void {
  const ax = d[o + CONE_AXIS];
  const ay = d[o + CONE_AXIS + 1];
  const az = d[o + CONE_AXIS + 2];
  let px = point[0] - d[o + CONE_FOOT];
  let py = point[1] - d[o + CONE_FOOT + 1];
  let pz = point[2] - d[o + CONE_FOOT + 2];
  const height = px * ax + py * ay + pz * az;
  px -= height * ax;
  py -= height * ay;
  pz -= height * az;
  const rho = Math.sqrt(px * px + py * py + pz * pz);
  // On the axis itself any direction across it will do: that of the arc.
  const inverse: number = rho > 0 ? 1 / rho : 0;
  const ux = rho > 0 ? px * inverse : d[o + CONE_ARC_MIDDLE];
  const uy = rho > 0 ? py * inverse : d[o + CONE_ARC_MIDDLE + 1];
  const uz = rho > 0 ? pz * inverse : d[o + CONE_ARC_MIDDLE + 2];
  const sign = d[o + CONE_SIDE];
  const k = d[o + CONE_SLOPE];
  const size = sign / Math.sqrt(1 + k * k);
  out[0] = size * (ux - k * ax);
  out[1] = size * (uy - k * ay);
  out[2] = size * (uz - k * az);
  const part = height / d[o + CONE_HEIGHT];
  const nr = d[o + CONE_FOOT_NORMAL] + part * (d[o + CONE_TOP_NORMAL] - d[o + CONE_FOOT_NORMAL]);
  const nh = d[o + CONE_FOOT_NORMAL + 1] + part * (d[o + CONE_TOP_NORMAL + 1] - d[o + CONE_FOOT_NORMAL + 1]);
  const unit = sign / Math.sqrt(nr * nr + nh * nh);
  out[SHADING_NORMAL] = unit * (nr * ux + nh * ax);
  out[SHADING_NORMAL + 1] = unit * (nr * uy + nh * ay);
  out[SHADING_NORMAL + 2] = unit * (nr * uz + nh * az);
}

function triangleNormals(out: Float64Array, d: Float64Array, o: i32, point: Float64Array): void {
  const ux = d[o + TRIANGLE_EDGE_U];
  const uy = d[o + TRIANGLE_EDGE_U + 1];
  const uz = d[o + TRIANGLE_EDGE_U + 2];
  const vx = d[o + TRIANGLE_EDGE_V];
  const vy = d[o + TRIANGLE_EDGE_V + 1];
  const vz = d[o + TRIANGLE_EDGE_V + 2];
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const squared = nx * nx + ny * ny + nz * nz;
  const inverse = 1 / Math.sqrt(squared);
  out[0] = nx * inverse;
  out[1] = ny * inverse;
  out[2] = nz * inverse;
  const px = point[0] - d[o + TRIANGLE_CORNER];
  const py = point[1] - d[o + TRIANGLE_CORNER + 1];
  const pz = point[2] - d[o + TRIANGLE_CORNER + 2];
  // Areas of the parts over the whole: (p x v).n and (u x p).n
  const b = ((py * vz - pz * vy) * nx + (pz * vx - px * vz) * ny + (px * vy - py * vx) * nz) / squared;
  const c = ((uy * pz - uz * py) * nx + (uz * px - ux * pz) * ny + (ux * py - uy * px) * nz) / squared;
  const a = 1 - b - c;
  let size: number = 0;
  for (let i = 0; i < 3; i++) {
    const value =
      a * d[o + TRIANGLE_NORMALS + i] +
      b * d[o + TRIANGLE_NORMALS + 3 + i] +
      c * d[o + TRIANGLE_NORMALS + 6 + i];
    out[SHADING_NORMAL + i] = value;
    size += value * value;
  }
  if (!(size > 1e-12)) {
    for (let i = 0; i < 3; i++) out[SHADING_NORMAL + i] = out[i];
    return;
  }
  const unit = 1 / Math.sqrt(size);
  for (let i = 0; i < 3; i++) out[SHADING_NORMAL + i] = unit * out[SHADING_NORMAL + i];
}

const offset = new Float64Array(3);

/**
 * Place of a point in the pattern of its primitive, `out[0]` across and `out[1]` up, 0 to 1:
 * over a flat one from edge to edge, over a cone round the axis (its arc, or the whole turn) and along it,
 * over a ball by longitude and latitude. Meshes have no pattern: 0.5.
 */
export function patternCoordinates(
  out: Float64Array,
  tables: SceneTables,
  primitive: i32,
  point: Float64Array,
): void {
  const d = tables.data;
  const o = primitive * PRIMITIVE_STRIDE;
  const kind = tables.kind[primitive];
  for (let a = 0; a < 3; a++) offset[a] = point[a] - d[o + a];
  if (kind === FLAT) {
    out[0] = dotAt(offset, d, o + FLAT_EDGE_U) * d[o + FLAT_PER_U2];
    out[1] = dotAt(offset, d, o + FLAT_EDGE_V) * d[o + FLAT_PER_V2];
  } else if (kind === CONE) {
    const height = dotAt(offset, d, o + CONE_AXIS);
    const mx = d[o + CONE_ARC_MIDDLE];
    const my = d[o + CONE_ARC_MIDDLE + 1];
    const mz = d[o + CONE_ARC_MIDDLE + 2];
    const ax = d[o + CONE_AXIS];
    const ay = d[o + CONE_AXIS + 1];
    const az = d[o + CONE_AXIS + 2];
    const forward = dotAt(offset, d, o + CONE_ARC_MIDDLE);
    // The direction a quarter turn on from the middle of the arc: axis x middle.
    const side =
      offset[0] * (ay * mz - az * my) + offset[1] * (az * mx - ax * mz) + offset[2] * (ax * my - ay * mx);
    out[0] = 0.5 + Math.atan2(side, forward) / (2 * halfArc(d, o));
    const from = d[o + CONE_PATTERN_FOOT];
    out[1] = from + (height / d[o + CONE_HEIGHT]) * (d[o + CONE_PATTERN_TOP] - from);
  } else if (kind === BALL) {
    const up = offset[2] / d[o + BALL_RADIUS];
    out[0] = 0.5 + Math.atan2(offset[0], -offset[1]) / (2 * Math.PI);
    out[1] = 0.5 + Math.asin(Math.max(-1, Math.min(1, up))) / Math.PI;
  } else {
    out[0] = 0.5;
    out[1] = 0.5;
  }
}

/** Half the arc of a cone, rad; pi for a whole one. */
export function halfArc(d: Float64Array, o: i32): number {
  const cosHalf = d[o + CONE_ARC_COSINE];
  return cosHalf < -1 ? Math.PI : Math.acos(cosHalf);
}

/** Point of a primitive at a place of it; for a cone the place runs over this piece alone. @param out 0-2, m */
export function pointOnPrimitive(
  out: Float64Array,
  tables: SceneTables,
  primitive: i32,
  a: number,
  b: number,
): void {
  const d = tables.data;
  const o = primitive * PRIMITIVE_STRIDE;
  if (tables.kind[primitive] === FLAT) {
    for (let i = 0; i < 3; i++) {
      out[i] = d[o + FLAT_CORNER + i] + a * d[o + FLAT_EDGE_U + i] + b * d[o + FLAT_EDGE_V + i];
    }
    return;
  }
  const height = b * d[o + CONE_HEIGHT];
  const radius = d[o + CONE_RADIUS] + d[o + CONE_SLOPE] * height;
  const angle = (2 * a - 1) * halfArc(d, o);
  const c = Math.cos(angle) * radius;
  const s = Math.sin(angle) * radius;
  const ax = d[o + CONE_AXIS];
  const ay = d[o + CONE_AXIS + 1];
  const az = d[o + CONE_AXIS + 2];
  const mx = d[o + CONE_ARC_MIDDLE];
  const my = d[o + CONE_ARC_MIDDLE + 1];
  const mz = d[o + CONE_ARC_MIDDLE + 2];
  out[0] = d[o + CONE_FOOT] + height * ax + c * mx + s * (ay * mz - az * my);
  out[1] = d[o + CONE_FOOT + 1] + height * ay + c * my + s * (az * mx - ax * mz);
  out[2] = d[o + CONE_FOOT + 2] + height * az + c * mz + s * (ax * my - ay * mx);
}

/** Whether a place of the pattern is on the primitive: not in its hole, past its corner or round. */
export function isOnPrimitive(tables: SceneTables, primitive: i32, a: number, b: number): boolean {
  if (tables.kind[primitive] !== FLAT) return true;
  const d = tables.data;
  const o = primitive * PRIMITIVE_STRIDE;
  const x = 2 * a - 1;
  const y = 2 * b - 1;
  const sx = x * d[o + FLAT_SCALE_A];
  const sy = y * d[o + FLAT_SCALE_B];
  const rho2 = sx * sx + sy * sy;
  return (
    rho2 >= d[o + FLAT_LEAST_RHO2] &&
    rho2 <= d[o + FLAT_MOST_RHO2] &&
    Math.abs(x) + Math.abs(y) <= d[o + FLAT_DIAGONAL]
  );
}

/** Place of a point over this primitive alone, 0 to 1 each way. */
export function coordinatesOn(
  out: Float64Array,
  tables: SceneTables,
  primitive: i32,
  point: Float64Array,
): void {
  patternCoordinates(out, tables, primitive, point);
  if (tables.kind[primitive] !== CONE) return;
  const o = primitive * PRIMITIVE_STRIDE;
  const from = tables.data[o + CONE_PATTERN_FOOT];
  const to = tables.data[o + CONE_PATTERN_TOP];
  out[1] = (out[1] - from) / (to - from);
}
