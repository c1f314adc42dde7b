import type { Vector } from '@fendrix/contract';
import { BALL, CONE, FLAT, STRIDE, TRIANGLE } from '../engine/tables.js';
import { type Pose, placed, turned } from '../units/frame.js';
import { add, cross, dot, length, scale, subtract } from '../units/vector.js';
import type { TriangleMesh } from './triangleMesh.js';

/**
 * Exact primitives as a structure of arrays, m in the mark's frame.
 *
 * FLAT      0-2 corner, 3-5 edge u, 6-8 edge v (square to u), 9-11 unit normal, 12 1/u.u, 13 1/v.v;
 *           with a, b from -1 to 1 across the edges and rho2 = (16 a)^2 + (17 b)^2 it is limited to
 *           14 <= rho2 <= 15 and |a| + |b| <= 18: holes, discs, rings, ellipses and octagons
 * CONE      0-2 foot on the axis, 3-5 unit axis, 6 height, 7 radius at the foot, 8 dr/dh, 9-10 normal at the foot
 *           (r, h), 11-12 normal at the top (r, h), 13-15 direction of the middle of the arc, 16 cosine of half
 *           the arc (-2: whole), 17 +1 out, -1 in, 18-19 pattern place of foot and top
 * BALL      0-2 centre, 3 radius, 4-6, 7-9, 10-12 normals of half spaces through the centre that it is limited to
 *           (zero: not limited)
 * TRIANGLE  0-2 corner, 3-5 and 6-8 edges to the others, 9-11, 12-14, 15-17 shading normals at the corners
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

/** Collects primitives, then packs them. */
export class PrimitiveList {
  /** Rows of one kind and one thing, `STRIDE` figures each; the last may be shorter. */
  private readonly runs: { kind: number; rows: number; data: ArrayLike<number>; sides: Sides }[] = [];
  private count = 0;
  private roomAt = -1;

  /** A parallelogram with square edges, or what is left of it within the limits; its front faces `facing`. */
  flat(corner: Vector, u: Vector, v: Vector, facing: Vector, sides: Sides, limits: FlatLimits = {}): void {
    const across = cross(u, v);
    const unit = scale(across, 1 / length(across));
    const normal = dot(unit, facing) >= 0 ? unit : scale(unit, -1);
    const { innerRho2 = -1, outerRho2 = 1e30, scaleA = 1, scaleB = 1, diagonal = 3 } = limits;
    const shape = [innerRho2, outerRho2, scaleA, scaleB, diagonal];
    this.push(FLAT, [...corner, ...u, ...v, ...normal, 1 / dot(u, u), 1 / dot(v, v), ...shape], sides);
  }

  /** A disc or ring in the xy plane of a pose, front towards its z. */
  disc(pose: Pose, heightM: number, outerM: number, innerM: number, sides: Sides, up = 1): void {
    const corner = placed(pose, [-outerM, -outerM, heightM]);
    const limits = { innerRho2: innerM > 0 ? (innerM / outerM) ** 2 : -1, outerRho2: 1 };
    const across = scale(pose.x, 2 * outerM);
    this.flat(corner, across, scale(pose.y, 2 * outerM), scale(pose.z, up), sides, limits);
  }

  ball(centre: Vector, radiusM: number, sides: Sides, halfSpaces: readonly Vector[] = []): void {
    const limits = [0, 1, 2].flatMap((i) => halfSpaces[i] ?? [0, 0, 0]);
    this.push(BALL, [...centre, radiusM, ...limits], sides);
  }

  /** A piece of a cone round the z axis of a pose. */
  cone(pose: Pose, piece: ConePiece, sides: Sides): void {
    const { lower, upper, arc, pattern = [0, 1] } = piece;
    const height = upper.z - lower.z;
    const middle: Vector = arc ? [Math.sin(arc.bearingRad), -Math.cos(arc.bearingRad), 0] : [0, -1, 0];
    this.push(
      CONE,
      [
        ...placed(pose, [0, 0, lower.z]),
        ...pose.z,
        height,
        lower.r,
        (upper.r - lower.r) / height,
        lower.nr,
        lower.nz,
        upper.nr,
        upper.nz,
        ...turned(pose, middle),
        arc ? Math.cos(arc.halfWidthRad) : -2,
        piece.inwards ? -1 : 1,
        ...pattern,
      ],
      sides,
    );
  }

  /** Front where the corners run anticlockwise. @param normals for shading, the flat one if left out */
  triangle(a: Vector, b: Vector, c: Vector, sides: Sides, normals?: readonly [Vector, Vector, Vector]): void {
    const u = subtract(b, a);
    const v = subtract(c, a);
    const across = cross(u, v);
    const size = length(across);
    if (!(size > 0)) return;
    const flat = scale(across, 1 / size);
    const shading = (normals ?? [flat, flat, flat]).flat();
    this.push(TRIANGLE, [...a, ...u, ...v, ...shading], sides);
  }

  /** All triangles of a body that stands in a pose, part by part. */
  triangles(mesh: TriangleMesh, pose: Pose, runs: readonly MeshRun[]): void {
    const { points, corners, normals, madeOf } = mesh;
    const places = new Float64Array(points.length);
    turnAll(points, pose, pose.origin, places);
    const turnedNormals = new Float64Array(normals.length);
    turnAll(normals, pose, [0, 0, 0], turnedNormals);
    const data = new Float64Array((corners.length / 3) * STRIDE);
    let t = 0;
    let rows = 0;
    for (const { upTo, sides } of runs) {
      const first = rows;
      for (; t < madeOf.length && (madeOf[t] as number) < upTo; t++) {
        const row = rows * STRIDE;
        for (let i = 0; i < 3; i++) {
          const at = 3 * (corners[3 * t + i] as number);
          for (let axis = 0; axis < 3; axis++) {
            const from = i === 0 ? 0 : (data[row + axis] as number);
            data[row + 3 * i + axis] = (places[at + axis] as number) - from;
          }
        }
        if (!hasFace(data, row)) continue;
        for (let i = 0; i < 9; i++) data[row + 9 + i] = turnedNormals[9 * t + i] as number;
        rows++;
      }
      if (rows === first) continue;
      const own = data.subarray(first * STRIDE, rows * STRIDE);
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
      data: new Float64Array(count * STRIDE),
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
      table.data.set(data, at * STRIDE);
      table.thing.fill(sides.thing, at, end);
      table.front.fill(sides.front, at, end);
      table.back.fill(sides.back, at, end);
      table.emitter.fill(sides.emitter ?? -1, at, end);
      at = end;
    }
    return table;
  }

  private push(kind: number, data: number[], sides: Sides): void {
    this.runs.push({ kind, rows: 1, data, sides });
    this.count++;
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
  const at = (i: number) => d[row + i] as number;
  const x = at(4) * at(8) - at(5) * at(7);
  const y = at(5) * at(6) - at(3) * at(8);
  const z = at(3) * at(7) - at(4) * at(6);
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

/** Axis-aligned bounds of one primitive: [minX, minY, minZ, maxX, maxY, maxZ], not padded. */
export function primitiveBounds(table: PrimitiveTable, index: number, out: Float64Array): void {
  const d = table.data.subarray(index * STRIDE, (index + 1) * STRIDE) as ArrayLike<number> as number[];
  const at = (i: number) => d[i] as number;
  for (let a = 0; a < 3; a++) {
    let low: number;
    let high: number;
    switch (table.kind[index]) {
      case FLAT: {
        const u = at(3 + a);
        const v = at(6 + a);
        low = at(a) + Math.min(0, u) + Math.min(0, v);
        high = at(a) + Math.max(0, u) + Math.max(0, v);
        break;
      }
      case CONE: {
        const slope = Math.sqrt(Math.max(0, 1 - at(3 + a) ** 2));
        const foot = at(7) * slope;
        const top = (at(7) + at(8) * at(6)) * slope;
        const end = at(a) + at(6) * at(3 + a);
        low = Math.min(at(a) - foot, end - top);
        high = Math.max(at(a) + foot, end + top);
        break;
      }
      case BALL:
        low = at(a) - at(3);
        high = at(a) + at(3);
        break;
      default:
        low = at(a) + Math.min(0, at(3 + a), at(6 + a));
        high = at(a) + Math.max(0, at(3 + a), at(6 + a));
    }
    out[a] = low;
    out[a + 3] = high;
  }
}

/** Corner of a rectangle by its middle. */
export function cornerOf(middle: Vector, u: Vector, v: Vector): Vector {
  return add(middle, scale(add(u, v), -0.5));
}
