import { BALL, CONE, FLAT, type PrimitiveTable, STRIDE } from './primitives.js';

/**
 * Place of a point in the pattern of its primitive, `out[0]` across and `out[1]` up, 0 to 1:
 * over a flat one from edge to edge, over a cone round the axis (its arc, or the whole turn) and along it,
 * over a ball by longitude and latitude. Meshes have no pattern: 0.5.
 */
export function patternPlace(
  out: Float64Array,
  table: PrimitiveTable,
  primitive: number,
  point: ArrayLike<number>,
): void {
  const d = table.data;
  const o = primitive * STRIDE;
  const px = (point[0] as number) - (d[o] as number);
  const py = (point[1] as number) - (d[o + 1] as number);
  const pz = (point[2] as number) - (d[o + 2] as number);
  switch (table.kind[primitive]) {
    case FLAT:
      out[0] = along(d, o + 3, px, py, pz) * (d[o + 12] as number);
      out[1] = along(d, o + 6, px, py, pz) * (d[o + 13] as number);
      break;
    case CONE: {
      const height = along(d, o + 3, px, py, pz);
      const mx = d[o + 13] as number;
      const my = d[o + 14] as number;
      const mz = d[o + 15] as number;
      // The direction a quarter turn on from the middle of the arc: axis x middle.
      const ax = d[o + 3] as number;
      const ay = d[o + 4] as number;
      const az = d[o + 5] as number;
      const forward = px * mx + py * my + pz * mz;
      const side = px * (ay * mz - az * my) + py * (az * mx - ax * mz) + pz * (ax * my - ay * mx);
      const cosHalf = d[o + 16] as number;
      const half = cosHalf < -1 ? Math.PI : Math.acos(cosHalf);
      out[0] = 0.5 + Math.atan2(side, forward) / (2 * half);
      const from = d[o + 18] as number;
      out[1] = from + (height / (d[o + 6] as number)) * ((d[o + 19] as number) - from);
      break;
    }
    case BALL: {
      const unit = 1 / (d[o + 3] as number);
      out[0] = 0.5 + Math.atan2(px, -py) / (2 * Math.PI);
      out[1] = 0.5 + Math.asin(Math.max(-1, Math.min(1, pz * unit))) / Math.PI;
      break;
    }
    default:
      out[0] = 0.5;
      out[1] = 0.5;
  }
}

function along(d: Float64Array, at: number, x: number, y: number, z: number): number {
  return x * (d[at] as number) + y * (d[at + 1] as number) + z * (d[at + 2] as number);
}

/** Size of a primitive along its pattern, m. */
export function extentOf(table: PrimitiveTable, primitive: number): { width: number; height: number } {
  const d = table.data;
  const o = primitive * STRIDE;
  if (table.kind[primitive] === FLAT) {
    return {
      width: 1 / Math.sqrt(d[o + 12] as number),
      height: 1 / Math.sqrt(d[o + 13] as number),
    };
  }
  const height = d[o + 6] as number;
  const slope = d[o + 8] as number;
  const cosHalf = d[o + 16] as number;
  const half = cosHalf < -1 ? Math.PI : Math.acos(cosHalf);
  const radius = (d[o + 7] as number) + (slope * height) / 2;
  return { width: 2 * half * radius, height: height * Math.hypot(1, slope) };
}

/** Point of a panel at a place of its pattern; for a cone the place runs over this piece alone. @param out 0-2, m */
export function pointOnPanel(
  out: Float64Array,
  table: PrimitiveTable,
  primitive: number,
  a: number,
  b: number,
): void {
  const d = table.data;
  const o = primitive * STRIDE;
  if (table.kind[primitive] === FLAT) {
    for (let i = 0; i < 3; i++) {
      out[i] = (d[o + i] as number) + a * (d[o + 3 + i] as number) + b * (d[o + 6 + i] as number);
    }
    return;
  }
  const height = b * (d[o + 6] as number);
  const radius = (d[o + 7] as number) + (d[o + 8] as number) * height;
  const cosHalf = d[o + 16] as number;
  const half = cosHalf < -1 ? Math.PI : Math.acos(cosHalf);
  const angle = (2 * a - 1) * half;
  const c = Math.cos(angle) * radius;
  const s = Math.sin(angle) * radius;
  const ax = d[o + 3] as number;
  const ay = d[o + 4] as number;
  const az = d[o + 5] as number;
  const mx = d[o + 13] as number;
  const my = d[o + 14] as number;
  const mz = d[o + 15] as number;
  out[0] = (d[o] as number) + height * ax + c * mx + s * (ay * mz - az * my);
  out[1] = (d[o + 1] as number) + height * ay + c * my + s * (az * mx - ax * mz);
  out[2] = (d[o + 2] as number) + height * az + c * mz + s * (ax * my - ay * mx);
}

/** Whether a place of the pattern is on the primitive: not in its hole, past its corner or round. */
export function isOnPanel(table: PrimitiveTable, primitive: number, a: number, b: number): boolean {
  if (table.kind[primitive] !== FLAT) return true;
  const d = table.data;
  const o = primitive * STRIDE;
  const x = 2 * a - 1;
  const y = 2 * b - 1;
  const rho2 = (x * (d[o + 16] as number)) ** 2 + (y * (d[o + 17] as number)) ** 2;
  return (
    rho2 >= (d[o + 14] as number) &&
    rho2 <= (d[o + 15] as number) &&
    Math.abs(x) + Math.abs(y) <= (d[o + 18] as number)
  );
}

/** Place of a point over this primitive alone, 0 to 1 each way. */
export function placeOnPanel(
  out: Float64Array,
  table: PrimitiveTable,
  primitive: number,
  point: Float64Array,
): void {
  patternPlace(out, table, primitive, point);
  if (table.kind[primitive] !== CONE) return;
  const o = primitive * STRIDE;
  const from = table.data[o + 18] as number;
  const to = table.data[o + 19] as number;
  out[1] = ((out[1] as number) - from) / (to - from);
}
