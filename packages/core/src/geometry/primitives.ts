import type { Vector } from '@fendrix/contract';
import {
  BALL,
  BALL_CENTRE,
  BALL_LIMITS,
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
  TRIANGLE,
  TRIANGLE_CORNER,
  TRIANGLE_EDGE_U,
  TRIANGLE_EDGE_V,
  TRIANGLE_NORMALS,
} from '../engine/layouts.js';
import { type Pose, placed, turned } from '../units/frame.js';
import { add, cross, dot, length, scale, subtract } from '../units/vector.js';
import type { TriangleMesh } from './triangleMesh.js';

/**
 * Exact primitives as a structure of arrays, m in the mark's frame; the rows of `data` are laid out in engine/layouts.ts.
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
  /** First of the six walls of the room round it all: low and high x, y, z; -1 for none. */
  room: number;
}

export interface Sides {
  thing: number;
  front: number;
  back: number;
  emitter?: number;
}

/** What a flat primitive is limited to, see FLAT. */
export interface FlatLimits {
  innerRho2?: number;
  outerRho2?: number;
  scaleA?: number;
  scaleB?: number;
  diagonal?: number;
}

/** |a| + |b| at the cut corners of a regular octagon. */
export const OCTAGON: FlatLimits = { diagonal: Math.SQRT2 };

/** A part of a mesh: up to, but without, a triangle of those that the mesh was made of. */
export interface MeshRun {
  upTo: number;
  sides: Sides;
}

/** All that is left of a mesh. */
export const theRest = (sides: Sides): MeshRun => ({ upTo: Number.POSITIVE_INFINITY, sides });

/** Where the three vectors of a triangle stand that follow from its corners. */
const TRIANGLE_PARTS = [TRIANGLE_CORNER, TRIANGLE_EDGE_U, TRIANGLE_EDGE_V];

/** Collects primitives, then packs them. */
export class PrimitiveList {
  /** Rows of one kind and one thing, `PRIMITIVE_STRIDE` figures each. */
  private readonly runs: { kind: number; rows: number; data: ArrayLike<number>; sides: Sides }[] = [];
  private count = 0;
  private roomAt = -1;

  /** A parallelogram with square edges, or what is left of it within the limits; its front faces `facing`. */
  flat(corner: Vector, u: Vector, v: Vector, facing: Vector, sides: Sides, limits: FlatLimits = {}): void {
    const across = cross(u, v);
    const unit = scale(across, 1 / length(across));
    const normal = dot(unit, facing) >= 0 ? unit : scale(unit, -1);
    const row = this.newRow(FLAT, sides);
    row.set(corner, FLAT_CORNER);
    row.set(u, FLAT_EDGE_U);
    row.set(v, FLAT_EDGE_V);
    row.set(normal, FLAT_NORMAL);
    row[FLAT_PER_U2] = 1 / dot(u, u);
    row[FLAT_PER_V2] = 1 / dot(v, v);
    row[FLAT_LEAST_RHO2] = limits.innerRho2 ?? -1;
    row[FLAT_MOST_RHO2] = limits.outerRho2 ?? 1e30;
    row[FLAT_SCALE_A] = limits.scaleA ?? 1;
    row[FLAT_SCALE_B] = limits.scaleB ?? 1;
    row[FLAT_DIAGONAL] = limits.diagonal ?? 3;
  }

  /** A disc or ring in the xy plane of a pose, front towards its z. */
  disc(pose: Pose, heightM: number, outerM: number, innerM: number, sides: Sides, up = 1): void {
    const corner = placed(pose, [-outerM, -outerM, heightM]);
    const limits = { innerRho2: innerM > 0 ? (innerM / outerM) ** 2 : -1, outerRho2: 1 };
    const across = scale(pose.x, 2 * outerM);
    this.flat(corner, across, scale(pose.y, 2 * outerM), scale(pose.z, up), sides, limits);
  }

  ball(centre: Vector, radiusM: number, sides: Sides, halfSpaces: readonly Vector[] = []): void {
    const row = this.newRow(BALL, sides);
    row.set(centre, BALL_CENTRE);
    row[BALL_RADIUS] = radiusM;
    row.set(halfSpaces.flat(), BALL_LIMITS);
  }

  /** A piece of a cone round the z axis of a pose. */
  cone(pose: Pose, piece: ConePiece, sides: Sides): void {
    const { lower, upper, arc, pattern = [0, 1] } = piece;
    const height = upper.z - lower.z;
    const middle: Vector = arc ? [Math.sin(arc.bearingRad), -Math.cos(arc.bearingRad), 0] : [0, -1, 0];
    const row = this.newRow(CONE, sides);
    row.set(placed(pose, [0, 0, lower.z]), CONE_FOOT);
    row.set(pose.z, CONE_AXIS);
    row[CONE_HEIGHT] = height;
    row[CONE_RADIUS] = lower.r;
    row[CONE_SLOPE] = (upper.r - lower.r) / height;
    row.set([lower.nr, lower.nz], CONE_FOOT_NORMAL);
    row.set([upper.nr, upper.nz], CONE_TOP_NORMAL);
    row.set(turned(pose, middle), CONE_ARC_MIDDLE);
    row[CONE_ARC_COSINE] = arc ? Math.cos(arc.halfWidthRad) : -2;
    row[CONE_SIDE] = piece.inwards ? -1 : 1;
    row[CONE_PATTERN_FOOT] = pattern[0];
    row[CONE_PATTERN_TOP] = pattern[1];
  }

  /** Front where the corners run anticlockwise. @param normals for shading, the flat one if left out */
  triangle(a: Vector, b: Vector, c: Vector, sides: Sides, normals?: readonly [Vector, Vector, Vector]): void {
    const u = subtract(b, a);
    const v = subtract(c, a);
    const across = cross(u, v);
    const size = length(across);
    if (!(size > 0)) return;
    const flat = scale(across, 1 / size);
    const row = this.newRow(TRIANGLE, sides);
    row.set(a, TRIANGLE_CORNER);
    row.set(u, TRIANGLE_EDGE_U);
    row.set(v, TRIANGLE_EDGE_V);
    row.set((normals ?? [flat, flat, flat]).flat(), TRIANGLE_NORMALS);
  }

  /** All triangles of a body that stands in a pose, part by part. */
  triangles(mesh: TriangleMesh, pose: Pose, runs: readonly MeshRun[]): void {
    const { points, corners, normals, madeOf } = mesh;
    const places = new Float64Array(points.length);
    turnAll(points, pose, pose.origin, places);
    const turnedNormals = new Float64Array(normals.length);
    turnAll(normals, pose, [0, 0, 0], turnedNormals);
    const data = new Float64Array((corners.length / 3) * PRIMITIVE_STRIDE);
    let t = 0;
    let rows = 0;
    for (const { upTo, sides } of runs) {
      const first = rows;
      for (; t < madeOf.length && (madeOf[t] as number) < upTo; t++) {
        const row = rows * PRIMITIVE_STRIDE;
        for (let i = 0; i < 3; i++) {
          const at = 3 * (corners[3 * t + i] as number);
          for (let axis = 0; axis < 3; axis++) {
            const from = i === 0 ? 0 : (data[row + TRIANGLE_CORNER + axis] as number);
            data[row + (TRIANGLE_PARTS[i] as number) + axis] = (places[at + axis] as number) - from;
          }
        }
        if (!hasFace(data, row)) continue;
        for (let i = 0; i < 9; i++) data[row + TRIANGLE_NORMALS + i] = turnedNormals[9 * t + i] as number;
        rows++;
      }
      if (rows === first) continue;
      const own = data.subarray(first * PRIMITIVE_STRIDE, rows * PRIMITIVE_STRIDE);
      this.runs.push({ kind: TRIANGLE, rows: rows - first, data: own, sides });
      this.count += rows - first;
    }
  }

  /** The walls of a box seen from inside, one at most. @param sides low and high x, low and high y, low and high z */
  room([x, y, z]: Vector, [w, d, h]: Vector, sides: readonly Sides[]): void {
    this.roomAt = this.count;
    const walls: [Vector, Vector, Vector, Vector][] = [
      [
        [x, y, z],
        [0, d, 0],
        [0, 0, h],
        [1, 0, 0],
      ],
      [
        [x + w, y, z],
        [0, d, 0],
        [0, 0, h],
        [-1, 0, 0],
      ],
      [
        [x, y, z],
        [w, 0, 0],
        [0, 0, h],
        [0, 1, 0],
      ],
      [
        [x, y + d, z],
        [w, 0, 0],
        [0, 0, h],
        [0, -1, 0],
      ],
      [
        [x, y, z],
        [w, 0, 0],
        [0, d, 0],
        [0, 0, 1],
      ],
      [
        [x, y, z + h],
        [w, 0, 0],
        [0, d, 0],
        [0, 0, -1],
      ],
    ];
    walls.forEach(([corner, u, v, facing], i) => {
      this.flat(corner, u, v, facing, sides[i] as Sides);
    });
  }

  pack(): PrimitiveTable {
    const { count } = this;
    const table: PrimitiveTable = {
      count,
      kind: new Uint8Array(count),
      data: new Float64Array(count * PRIMITIVE_STRIDE),
      thing: new Int32Array(count),
      front: new Int32Array(count),
      back: new Int32Array(count),
      emitter: new Int32Array(count),
      room: this.roomAt,
    };
    let at = 0;
    for (const { kind, rows, data, sides } of this.runs) {
      const end = at + rows;
      table.kind.fill(kind, at, end);
      table.data.set(data, at * PRIMITIVE_STRIDE);
      table.thing.fill(sides.thing, at, end);
      table.front.fill(sides.front, at, end);
      table.back.fill(sides.back, at, end);
      table.emitter.fill(sides.emitter ?? -1, at, end);
      at = end;
    }
    return table;
  }

  /** Adds a primitive; its numbers are still to be written. */
  private newRow(kind: number, sides: Sides): Float64Array {
    const data = new Float64Array(PRIMITIVE_STRIDE);
    this.runs.push({ kind, rows: 1, data, sides });
    this.count++;
    return data;
  }
}

/** Vectors of a body in the mark's frame, three figures each. @param origin what is added: zero for directions */
function turnAll(vectors: ArrayLike<number>, { x, y, z }: Pose, origin: Vector, out: Float64Array): void {
  for (let i = 0; i < vectors.length; i += 3) {
    const a = vectors[i] as number;
    const b = vectors[i + 1] as number;
    const c = vectors[i + 2] as number;
    out[i] = origin[0] + (x[0] * a + y[0] * b + z[0] * c);
    out[i + 1] = origin[1] + (x[1] * a + y[1] * b + z[1] * c);
    out[i + 2] = origin[2] + (x[2] * a + y[2] * b + z[2] * c);
  }
}

/** Whether the edges of a triangle's row span anything. */
function hasFace(d: Float64Array, row: number): boolean {
  const u = (axis: number) => d[row + TRIANGLE_EDGE_U + axis] as number;
  const v = (axis: number) => d[row + TRIANGLE_EDGE_V + axis] as number;
  const x = u(1) * v(2) - u(2) * v(1);
  const y = u(2) * v(0) - u(0) * v(2);
  const z = u(0) * v(1) - u(1) * v(0);
  return x * x + y * y + z * z > 0;
}

/** A point of a turned outline with the outward unit normal (radial, upward) there. */
export interface OutlinePoint {
  r: number;
  z: number;
  nr: number;
  nz: number;
}

/** Lower and upper end differ in height. */
export interface ConePiece {
  lower: OutlinePoint;
  upper: OutlinePoint;
  /** Part of the way round, by bearing in the body's frame: 0 is its -y side. */
  arc?: { bearingRad: number; halfWidthRad: number };
  /** The solid lies outside of this surface, as with the inner wall of a bottle. */
  inwards?: boolean;
  /** Place of the lower and the upper end in a pattern that runs from 0 to 1. */
  pattern?: [number, number];
}

/** A cylinder wall of one radius between two heights. */
export function wallPiece(radiusM: number, fromZ: number, toZ: number): ConePiece {
  const at = (z: number): OutlinePoint => ({ r: radiusM, z, nr: 1, nz: 0 });
  return { lower: at(fromZ), upper: at(toZ) };
}

/** Axis-aligned bounds of one primitive: minX, minY, minZ, maxX, maxY, maxZ, not padded. @param to where in `out` */
export function primitiveBounds(table: PrimitiveTable, index: number, out: Float64Array, to = 0): void {
  const { data } = table;
  const row = index * PRIMITIVE_STRIDE;
  const at = (i: number) => data[row + i] as number;
  for (let a = 0; a < 3; a++) {
    let low: number;
    let high: number;
    switch (table.kind[index]) {
      case FLAT: {
        const corner = at(FLAT_CORNER + a);
        const u = at(FLAT_EDGE_U + a);
        const v = at(FLAT_EDGE_V + a);
        low = corner + Math.min(0, u) + Math.min(0, v);
        high = corner + Math.max(0, u) + Math.max(0, v);
        break;
      }
      case CONE: {
        const axis = at(CONE_AXIS + a);
        const start = at(CONE_FOOT + a);
        const slope = Math.sqrt(Math.max(0, 1 - axis ** 2));
        const foot = at(CONE_RADIUS) * slope;
        const top = (at(CONE_RADIUS) + at(CONE_SLOPE) * at(CONE_HEIGHT)) * slope;
        const end = start + at(CONE_HEIGHT) * axis;
        low = Math.min(start - foot, end - top);
        high = Math.max(start + foot, end + top);
        break;
      }
      case BALL:
        low = at(BALL_CENTRE + a) - at(BALL_RADIUS);
        high = at(BALL_CENTRE + a) + at(BALL_RADIUS);
        break;
      default: {
        const corner = at(TRIANGLE_CORNER + a);
        const u = at(TRIANGLE_EDGE_U + a);
        const v = at(TRIANGLE_EDGE_V + a);
        low = corner + Math.min(0, u, v);
        high = corner + Math.max(0, u, v);
      }
    }
    out[to + a] = low;
    out[to + a + 3] = high;
  }
}

/** Corner of a rectangle by its middle. */
export function cornerOf(middle: Vector, u: Vector, v: Vector): Vector {
  return add(middle, scale(add(u, v), -0.5));
}
