import { BALL, CONE, type PrimitiveTable, QUAD, RING, STRIDE } from './primitives.js';

/**
 * Unit normals of a primitive at a point on it: `out[0..2]` of the surface itself,
 * `out[3..5]` for shading, which differs on turned outlines only. Both point to the front.
 */
export function normalsAt(
  out: Float64Array,
  table: PrimitiveTable,
  primitive: number,
  point: ArrayLike<number>,
): void {
  const x = point[0] as number;
  const y = point[1] as number;
  const z = point[2] as number;
  const d = table.data;
  const o = primitive * STRIDE;
  switch (table.kind[primitive]) {
    case QUAD:
      setBoth(out, d[o + 9] as number, d[o + 10] as number, d[o + 11] as number);
      break;
    case RING:
      setBoth(out, d[o + 3] as number, d[o + 4] as number, d[o + 5] as number);
      break;
    case BALL: {
      const r = d[o + 3] as number;
      setBoth(
        out,
        (x - (d[o] as number)) / r,
        (y - (d[o + 1] as number)) / r,
        (z - (d[o + 2] as number)) / r,
      );
      break;
    }
    case CONE: {
      const px = x - (d[o] as number);
      const py = y - (d[o + 1] as number);
      const sign = d[o + 13] as number;
      const rho = Math.sqrt(px * px + py * py);
      const ux = rho > 0 ? px / rho : 1;
      const uy = rho > 0 ? py / rho : 0;
      const k = d[o + 5] as number;
      const size = sign / Math.sqrt(1 + k * k);
      out[0] = ux * size;
      out[1] = uy * size;
      out[2] = -k * size;
      const z0 = d[o + 2] as number;
      const part = (z - z0) / ((d[o + 3] as number) - z0);
      const nr = (d[o + 6] as number) + part * ((d[o + 8] as number) - (d[o + 6] as number));
      const nz = (d[o + 7] as number) + part * ((d[o + 9] as number) - (d[o + 7] as number));
      const inverse = sign / Math.sqrt(nr * nr + nz * nz);
      out[3] = ux * nr * inverse;
      out[4] = uy * nr * inverse;
      out[5] = nz * inverse;
      break;
    }
    default: {
      const r = d[o + 2] as number;
      setBoth(out, 0, ((d[o] as number) - y) / r, ((d[o + 1] as number) - z) / r);
    }
  }
}

function setBoth(out: Float64Array, x: number, y: number, z: number): void {
  out[0] = x;
  out[1] = y;
  out[2] = z;
  out[3] = x;
  out[4] = y;
  out[5] = z;
}
