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
  CONE_HEIGHT,
  CONE_RADIUS,
  CONE_SLOPE,
  FLAT,
  FLAT_CORNER,
  FLAT_DIAGONAL,
  FLAT_EDGE_U,
  FLAT_EDGE_V,
  FLAT_LEAST_RHO2,
  FLAT_MOST_RHO2,
  FLAT_SCALE_A,
  FLAT_SCALE_B,
  PRIMITIVE_STRIDE,
  TRIANGLE_CORNER,
  TRIANGLE_EDGE_U,
  TRIANGLE_EDGE_V,
} from '../engine/layouts.js';
import { add, cross, dot, scale } from '../units/vector.js';
import type { PrimitiveTable } from './primitives.js';

type Vector = [number, number, number];

/** Steps round a whole circle, unless others are asked for; a ball has a quarter of them from pole to pole. */
const ROUND = 192;

/**
 * Exact primitives as triangles, 9 numbers each, for what knows nothing else. Straight in the plain parts, faceted in the round ones;
 * holes and discs are cut to the nearest step.
 * @param round steps round a whole circle
 */
export function tessellate(table: PrimitiveTable, round = ROUND): Float32Array {
  const out: number[] = [];
  for (let i = 0; i < table.count; i++) tessellateOne(out, table, i, round);
  return Float32Array.from(out);
}

/** Adds the triangles of one primitive. */
export function tessellateOne(out: number[], table: PrimitiveTable, index: number, round = ROUND): void {
  const d = table.data.subarray(index * PRIMITIVE_STRIDE, (index + 1) * PRIMITIVE_STRIDE);
  const kind = table.kind[index];
  if (kind === FLAT) flat(out, d, round);
  else if (kind === CONE) cone(out, d, round);
  else if (kind === BALL) ball(out, d, Math.max(4, Math.round(round / 4)));
  else triangle(out, d);
}

function triangle(out: number[], d: Float64Array): void {
  const corner = triple(d, TRIANGLE_CORNER);
  const others = [TRIANGLE_EDGE_U, TRIANGLE_EDGE_V].flatMap((edge) => sum(corner, triple(d, edge)));
  out.push(...corner, ...others);
}

function flat(out: number[], d: Float64Array, round: number): void {
  const inner = d[FLAT_LEAST_RHO2] as number;
  const outer = d[FLAT_MOST_RHO2] as number;
  const scaleA = d[FLAT_SCALE_A] as number;
  const scaleB = d[FLAT_SCALE_B] as number;
  const diagonal = d[FLAT_DIAGONAL] as number;
  const at = (a: number, b: number) =>
    sum(
      triple(d, FLAT_CORNER),
      sum(scale(triple(d, FLAT_EDGE_U), (a + 1) / 2), scale(triple(d, FLAT_EDGE_V), (b + 1) / 2)),
    );
  if (inner < 0 && outer > 1e20 && diagonal >= 2) {
    quad(out, at(-1, -1), at(1, -1), at(1, 1), at(-1, 1));
    return;
  }
  // In rays from the middle: each from the hole to the first limit it meets.
  const ray = (step: number, part: 'inner' | 'outer') => {
    const phi = (2 * Math.PI * step) / round;
    const x = Math.cos(phi);
    const y = Math.sin(phi);
    const rho = Math.hypot(x * scaleA, y * scaleB);
    const edge = 1 / Math.max(Math.abs(x), Math.abs(y));
    const most = Math.min(edge, Math.sqrt(outer) / rho, diagonal / (Math.abs(x) + Math.abs(y)));
    const r = part === 'inner' ? Math.min(most, Math.sqrt(Math.max(0, inner)) / rho) : most;
    return at(r * x, r * y);
  };
  for (let i = 0; i < round; i++) {
    quad(out, ray(i, 'inner'), ray(i, 'outer'), ray(i + 1, 'outer'), ray(i + 1, 'inner'));
  }
}

function cone(out: number[], d: Float64Array, round: number): void {
  const axis = triple(d, CONE_AXIS);
  const middle = triple(d, CONE_ARC_MIDDLE);
  const side = cross(axis, middle);
  const height = d[CONE_HEIGHT] as number;
  const cosine = d[CONE_ARC_COSINE] as number;
  const half = cosine < -1 ? Math.PI : Math.acos(cosine);
  const steps = Math.max(1, Math.round((round * half) / Math.PI));
  const at = (step: number, h: number) => {
    const phi = half * ((2 * step) / steps - 1);
    const r = (d[CONE_RADIUS] as number) + (d[CONE_SLOPE] as number) * h;
    const outwards = sum(scale(middle, r * Math.cos(phi)), scale(side, r * Math.sin(phi)));
    return sum(triple(d, CONE_FOOT), sum(scale(axis, h), outwards));
  };
  for (let i = 0; i < steps; i++) quad(out, at(i, 0), at(i + 1, 0), at(i + 1, height), at(i, height));
}

function ball(out: number[], d: Float64Array, rings: number): void {
  const centre = triple(d, BALL_CENTRE);
  const at = (row: number, column: number): Vector => {
    const theta = (Math.PI * row) / rings;
    const phi = (2 * Math.PI * column) / (2 * rings);
    return [Math.sin(theta) * Math.cos(phi), Math.sin(theta) * Math.sin(phi), Math.cos(theta)];
  };
  const kept = (p: Vector) => [0, 1, 2].every((k) => dot(triple(d, BALL_LIMITS + 3 * k), p) >= 0);
  const placed = (p: Vector) => sum(centre, scale(p, d[BALL_RADIUS] as number));
  for (let row = 0; row < rings; row++) {
    for (let column = 0; column < 2 * rings; column++) {
      if (!kept(at(row + 0.5, column + 0.5))) continue;
      const corners = [at(row, column), at(row + 1, column), at(row + 1, column + 1), at(row, column + 1)];
      quad(out, ...(corners.map(placed) as [Vector, Vector, Vector, Vector]));
    }
  }
}

function quad(out: number[], a: Vector, b: Vector, c: Vector, d: Vector): void {
  out.push(...a, ...b, ...c, ...a, ...c, ...d);
}

const triple = (d: Float64Array, at: number): Vector => [
  d[at] as number,
  d[at + 1] as number,
  d[at + 2] as number,
];
const sum: (a: Vector, b: Vector) => Vector = add;
