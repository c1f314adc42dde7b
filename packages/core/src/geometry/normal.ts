import { BALL, CONE, FLAT, type PrimitiveTable, STRIDE } from './primitives.js';

/**
 * Unit normals of a primitive at a point on it: `out[0..2]` of the surface itself,
 * `out[3..5]` for shading, which differs on turned outlines and meshes only. Both point to the front.
 */
export function normalsAt(
  out: Float64Array,
  table: PrimitiveTable,
  primitive: number,
  point: ArrayLike<number>,
): void {
  const d = table.data;
  const o = primitive * STRIDE;
  switch (table.kind[primitive]) {
    case FLAT:
      for (let a = 0; a < 3; a++) {
        out[a] = d[o + 9 + a] as number;
        out[3 + a] = d[o + 9 + a] as number;
      }
      break;
    case BALL: {
      const inverse = 1 / (d[o + 3] as number);
      for (let a = 0; a < 3; a++) {
        out[a] = ((point[a] as number) - (d[o + a] as number)) * inverse;
        out[3 + a] = out[a] as number;
      }
      break;
    }
    case CONE:
      coneNormals(out, d, o, point);
      break;
    default:
      triangleNormals(out, d, o, point);
  }
}

function coneNormals(out: Float64Array, d: Float64Array, o: number, point: ArrayLike<number>): void {
  const ax = d[o + 3] as number;
  const ay = d[o + 4] as number;
  const az = d[o + 5] as number;
  let px = (point[0] as number) - (d[o] as number);
  let py = (point[1] as number) - (d[o + 1] as number);
  let pz = (point[2] as number) - (d[o + 2] as number);
  const height = px * ax + py * ay + pz * az;
  px -= height * ax;
  py -= height * ay;
  pz -= height * az;
  const rho = Math.sqrt(px * px + py * py + pz * pz);
  // On the axis itself any direction across it will do: that of the arc.
  const inverse = rho > 0 ? 1 / rho : 0;
  const ux = rho > 0 ? px * inverse : (d[o + 13] as number);
  const uy = rho > 0 ? py * inverse : (d[o + 14] as number);
  const uz = rho > 0 ? pz * inverse : (d[o + 15] as number);
  const sign = d[o + 17] as number;
  const k = d[o + 8] as number;
  const size = sign / Math.sqrt(1 + k * k);
  out[0] = size * (ux - k * ax);
  out[1] = size * (uy - k * ay);
  out[2] = size * (uz - k * az);
  const part = height / (d[o + 6] as number);
  const nr = (d[o + 9] as number) + part * ((d[o + 11] as number) - (d[o + 9] as number));
  const nh = (d[o + 10] as number) + part * ((d[o + 12] as number) - (d[o + 10] as number));
  const unit = sign / Math.sqrt(nr * nr + nh * nh);
  out[3] = unit * (nr * ux + nh * ax);
  out[4] = unit * (nr * uy + nh * ay);
  out[5] = unit * (nr * uz + nh * az);
}

function triangleNormals(out: Float64Array, d: Float64Array, o: number, point: ArrayLike<number>): void {
  const ux = d[o + 3] as number;
  const uy = d[o + 4] as number;
  const uz = d[o + 5] as number;
  const vx = d[o + 6] as number;
  const vy = d[o + 7] as number;
  const vz = d[o + 8] as number;
  const nx = uy * vz - uz * vy;
  const ny = uz * vx - ux * vz;
  const nz = ux * vy - uy * vx;
  const squared = nx * nx + ny * ny + nz * nz;
  const inverse = 1 / Math.sqrt(squared);
  out[0] = nx * inverse;
  out[1] = ny * inverse;
  out[2] = nz * inverse;
  const px = (point[0] as number) - (d[o] as number);
  const py = (point[1] as number) - (d[o + 1] as number);
  const pz = (point[2] as number) - (d[o + 2] as number);
  // Areas of the parts over the whole: (p x v).n and (u x p).n
  const b = ((py * vz - pz * vy) * nx + (pz * vx - px * vz) * ny + (px * vy - py * vx) * nz) / squared;
  const c = ((uy * pz - uz * py) * nx + (uz * px - ux * pz) * ny + (ux * py - uy * px) * nz) / squared;
  const a = 1 - b - c;
  let size = 0;
  for (let i = 0; i < 3; i++) {
    const value =
      a * (d[o + 9 + i] as number) + b * (d[o + 12 + i] as number) + c * (d[o + 15 + i] as number);
    out[3 + i] = value;
    size += value * value;
  }
  if (!(size > 1e-12)) {
    for (let i = 0; i < 3; i++) out[3 + i] = out[i] as number;
    return;
  }
  const unit = 1 / Math.sqrt(size);
  for (let i = 0; i < 3; i++) out[3 + i] = unit * (out[3 + i] as number);
}
