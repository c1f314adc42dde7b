import type { Vector } from '@fendrix/contract';
import { add, cross, dot, length, normalise, scale, subtract } from '../../units/vector.js';
import { smoothed, type TriangleMesh } from '../triangleMesh.js';

/** Points round a sweep, and steps between two points of its path. */
const ROUND = 20;
const STEPS = 8;
/** Edges of its ends stay edges, its sides are one curve. */
const SMOOTH_DEG = 60;

/**
 * A round bar along a smooth line through points (uniform Catmull-Rom), closed at both ends: a handle, a spout, a nozzle.
 * @param fromM, toM its diameter at the first and the last point, m; in between by the way along it
 */
export function sweepMesh(path: readonly Vector[], fromM: number, toM: number): TriangleMesh {
  const line = smoothLine(path);
  const along = line.map((_, i) => i / (line.length - 1));
  const points = new Float32Array((line.length * ROUND + 2) * 3);
  let across = firstAcross(direction(line, 0));
  line.forEach((centre, i) => {
    const way = direction(line, i);
    // Carried along without twist: what of it still stands across the way.
    across = normalise(subtract(across, scale(way, dot(across, way))));
    const other = cross(way, across);
    const radius = (fromM + (toM - fromM) * (along[i] as number)) / 2;
    for (let k = 0; k < ROUND; k++) {
      const angle = (2 * Math.PI * k) / ROUND;
      const off = add(scale(across, radius * Math.cos(angle)), scale(other, radius * Math.sin(angle)));
      points.set(add(centre, off), 3 * (i * ROUND + k));
    }
  });
  const [first, last] = [line.length * ROUND, line.length * ROUND + 1];
  points.set(line[0] as Vector, 3 * first);
  points.set(line.at(-1) as Vector, 3 * last);
  const corners: number[] = [];
  for (let i = 0; i + 1 < line.length; i++) {
    for (let k = 0; k < ROUND; k++) {
      const next = (k + 1) % ROUND;
      const [a, b, c, d] = [i * ROUND + k, i * ROUND + next, (i + 1) * ROUND + k, (i + 1) * ROUND + next];
      corners.push(a, b, c, b, d, c);
    }
  }
  const end = (line.length - 1) * ROUND;
  for (let k = 0; k < ROUND; k++) {
    const next = (k + 1) % ROUND;
    corners.push(first, next, k, last, end + k, end + next);
  }
  return smoothed(points, Uint32Array.from(corners), SMOOTH_DEG);
}

function smoothLine(path: readonly Vector[]): Vector[] {
  const line: Vector[] = [];
  for (let i = 0; i + 1 < path.length; i++) {
    const [b, c] = [path[i] as Vector, path[i + 1] as Vector];
    const a = path[i - 1] ?? subtract(scale(b, 2), c);
    const d = path[i + 2] ?? subtract(scale(c, 2), b);
    for (let step = 0; step < STEPS; step++) line.push(between(a, b, c, d, step / STEPS));
  }
  line.push(path.at(-1) as Vector);
  return line;
}

const between = (a: Vector, b: Vector, c: Vector, d: Vector, t: number): Vector =>
  [0, 1, 2].map((axis) => {
    const [p, q, r, s] = [a[axis], b[axis], c[axis], d[axis]] as [number, number, number, number];
    return q + 0.5 * t * (r - p + t * (2 * p - 5 * q + 4 * r - s + t * (3 * (q - r) + s - p)));
  }) as Vector;

/** Which way the line runs at one of its points. */
function direction(line: readonly Vector[], i: number): Vector {
  const [before, after] = [
    line[Math.max(0, i - 1)] as Vector,
    line[Math.min(line.length - 1, i + 1)] as Vector,
  ];
  return normalise(subtract(after, before));
}

function firstAcross(way: Vector): Vector {
  const across = cross(way, [0, 0, 1]);
  return length(across) < 1e-6 ? [1, 0, 0] : normalise(across);
}
