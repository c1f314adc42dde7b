import type { Vector } from '@fendrix/contract';
import { cross, dot, length, scale } from '../units/vector.js';

/** Kinds of exact primitive; each has its own layout in `PrimitiveTable.data`. */
export const QUAD = 0;
export const RING = 1;
export const BALL = 2;
export const CONE = 3;
export const BEND = 4;

/** Numbers kept for each primitive. */
export const STRIDE = 16;

/**
 * Exact primitives as a structure of arrays, m in the mark's frame.
 *
 * QUAD  0-2 corner, 3-5 edge u, 6-8 edge v (square to u), 9-11 unit normal, 12 1/u.u, 13 1/v.v
 * RING  0-2 centre, 3-5 unit normal, 6 outer radius squared, 7 inner radius squared
 * BALL  0-2 centre, 3 radius
 * CONE  0-1 axis x y, 2-3 lower and upper z, 4 lower radius, 5 dr/dz, 6-7 lower normal (r, z),
 *       8-9 upper normal (r, z), 10-11 arc direction x y, 12 cosine of half the arc (-2: whole), 13 +1 out, -1 in
 * BEND  0-1 axis y z, 2 radius, 3-4 x range: the quarter behind and below the axis, normal towards it
 */
export interface PrimitiveTable {
  count: number;
  kind: Uint8Array;
  data: Float64Array;
  /** Index into `Scene.things`. */
  thing: Int32Array;
  /** Material on the side the normal points to. */
  front: Int32Array;
  back: Int32Array;
  /** Index into `Scene.emitters`, -1 if it does not shine. */
  emitter: Int32Array;
}

export interface Sides {
  thing: number;
  front: number;
  back: number;
  emitter?: number;
}

/** Collects primitives, then packs them. */
export class PrimitiveList {
  private readonly rows: { kind: number; data: number[]; sides: Sides }[] = [];

  quad(corner: Vector, u: Vector, v: Vector, facing: Vector, sides: Sides): void {
    const across = cross(u, v);
    const unit = scale(across, 1 / length(across));
    const normal = dot(unit, facing) >= 0 ? unit : scale(unit, -1);
    this.push(QUAD, [...corner, ...u, ...v, ...normal, 1 / dot(u, u), 1 / dot(v, v)], sides);
  }

  ring(centre: Vector, normal: Vector, outerM: number, innerM: number, sides: Sides): void {
    this.push(RING, [...centre, ...normal, outerM ** 2, innerM ** 2], sides);
  }

  ball(centre: Vector, radiusM: number, sides: Sides): void {
    this.push(BALL, [...centre, radiusM], sides);
  }

  cone(piece: ConePiece, sides: Sides): void {
    const { axis, lower, upper, arc } = piece;
    this.push(
      CONE,
      [
        ...axis,
        lower.z,
        upper.z,
        lower.r,
        (upper.r - lower.r) / (upper.z - lower.z),
        lower.nr,
        lower.nz,
        upper.nr,
        upper.nz,
        arc ? Math.sin(arc.bearingRad) : 0,
        arc ? -Math.cos(arc.bearingRad) : 0,
        arc ? Math.cos(arc.halfWidthRad) : -2,
        piece.inwards ? -1 : 1,
      ],
      sides,
    );
  }

  bend(axisY: number, axisZ: number, radiusM: number, fromX: number, toX: number, sides: Sides): void {
    this.push(BEND, [axisY, axisZ, radiusM, fromX, toX], sides);
  }

  pack(): PrimitiveTable {
    const count = this.rows.length;
    const table: PrimitiveTable = {
      count,
      kind: new Uint8Array(count),
      data: new Float64Array(count * STRIDE),
      thing: new Int32Array(count),
      front: new Int32Array(count),
      back: new Int32Array(count),
      emitter: new Int32Array(count),
    };
    this.rows.forEach(({ kind, data, sides }, i) => {
      table.kind[i] = kind;
      table.data.set(data, i * STRIDE);
      table.thing[i] = sides.thing;
      table.front[i] = sides.front;
      table.back[i] = sides.back;
      table.emitter[i] = sides.emitter ?? -1;
    });
    return table;
  }

  private push(kind: number, data: number[], sides: Sides): void {
    this.rows.push({ kind, data, sides });
  }
}

/** A point of a turned outline with the outward unit normal (radial, upward) there. */
export interface OutlinePoint {
  r: number;
  z: number;
  nr: number;
  nz: number;
}

export interface ConePiece {
  axis: [number, number];
  lower: OutlinePoint;
  upper: OutlinePoint;
  arc?: { bearingRad: number; halfWidthRad: number };
  /** The solid lies outside of this surface, as with the inner wall of a bottle. */
  inwards?: boolean;
}

/** Axis-aligned bounds of one primitive: [minX, minY, minZ, maxX, maxY, maxZ], not padded. */
export function primitiveBounds(table: PrimitiveTable, index: number, out: Float64Array): void {
  const d = table.data.subarray(index * STRIDE, (index + 1) * STRIDE) as ArrayLike<number> as number[];
  const at = (i: number) => d[i] as number;
  switch (table.kind[index]) {
    case QUAD:
      for (let a = 0; a < 3; a++) {
        const u = at(3 + a);
        const v = at(6 + a);
        out[a] = at(a) + Math.min(0, u) + Math.min(0, v);
        out[a + 3] = at(a) + Math.max(0, u) + Math.max(0, v);
      }
      break;
    case RING:
      for (let a = 0; a < 3; a++) {
        const reach = Math.sqrt(at(6) * Math.max(0, 1 - at(3 + a) ** 2));
        out[a] = at(a) - reach;
        out[a + 3] = at(a) + reach;
      }
      break;
    case BALL:
      for (let a = 0; a < 3; a++) {
        out[a] = at(a) - at(3);
        out[a + 3] = at(a) + at(3);
      }
      break;
    case CONE: {
      const reach = Math.max(at(4), at(4) + at(5) * (at(3) - at(2)));
      for (let a = 0; a < 2; a++) {
        out[a] = at(a) - reach;
        out[a + 3] = at(a) + reach;
      }
      out[2] = at(2);
      out[5] = at(3);
      break;
    }
    default:
      out.set([at(3), at(0), at(1) - at(2), at(4), at(0) + at(2), at(1)]);
  }
}
