import type { ProfilePoint } from '@fendrix/contract';
import { radians } from '../../units/angle.js';
import type { OutlinePoint } from '../primitives.js';

/** A straight piece of a turned outline, lower end first; level pieces have both ends at one height. */
export interface OutlinePiece {
  lower: OutlinePoint;
  upper: OutlinePoint;
}

/** Largest turn of the outline within one piece of a curve; smooth normals hide what is left. */
const TURN_PER_PIECE_RAD = radians(3);
/** A curve is cut into 256 pieces at most. */
const MOST_HALVINGS = 8;

interface Flat {
  r: number;
  z: number;
}

/**
 * A profile as straight pieces with normals, foot to top, closed by discs where it does not end on the axis.
 * Corners stay exact; through smooth points runs a cubic with centripetal Catmull-Rom tangents, cut so that
 * no piece turns by more than 3 degrees, with exact normals at the cuts.
 */
export function outlinePieces(profile: readonly ProfilePoint[], closeTop = true): OutlinePiece[] {
  const points = profile.map((point) => ({
    r: point.radiusM,
    z: point.heightM,
    smooth: point.smooth,
  }));
  const pieces: OutlinePiece[] = [];
  const first = points[0];
  const last = points.at(-1);
  if (first && first.r > 0) pieces.push(straightPiece({ r: 0, z: first.z }, first));
  for (let i = 0; i + 1 < points.length; i++) {
    const a = points[i];
    const b = points[i + 1];
    if (!a || !b) continue;
    const before = a.smooth ? points[i - 1] : undefined;
    const after = b.smooth ? points[i + 2] : undefined;
    if (before || after) pieces.push(...curvePieces(before, a, b, after));
    else pieces.push(straightPiece(a, b));
  }
  if (closeTop && last && last.r > 0) pieces.push(straightPiece(last, { r: 0, z: last.z }));
  return pieces;
}

/** The part of a piece between two heights; null when it lies outside. Level pieces are kept whole. */
export function clipPiece(piece: OutlinePiece, fromZ: number, toZ: number): OutlinePiece | null {
  const { lower, upper } = piece;
  if (upper.z - lower.z < 1e-9) return null;
  const from = Math.max(fromZ, lower.z);
  const to = Math.min(toZ, upper.z);
  if (to - from < 1e-9) return null;
  return { lower: outlineAt(piece, from), upper: outlineAt(piece, to) };
}

/** Point and normal of a piece at a height within it. */
export function outlineAt({ lower, upper }: OutlinePiece, z: number): OutlinePoint {
  const part = (z - lower.z) / (upper.z - lower.z);
  const nr = lower.nr + part * (upper.nr - lower.nr);
  const nz = lower.nz + part * (upper.nz - lower.nz);
  const size = Math.hypot(nr, nz);
  return { r: lower.r + part * (upper.r - lower.r), z, nr: nr / size, nz: nz / size };
}

function straightPiece(a: Flat, b: Flat): OutlinePiece {
  const size = Math.hypot(b.r - a.r, b.z - a.z);
  const nr = (b.z - a.z) / size;
  const nz = (a.r - b.r) / size;
  return { lower: { r: a.r, z: a.z, nr, nz }, upper: { r: b.r, z: b.z, nr, nz } };
}

function curvePieces(before: Flat | undefined, a: Flat, b: Flat, after: Flat | undefined): OutlinePiece[] {
  const chord = { r: b.r - a.r, z: b.z - a.z };
  const startTangent = before ? smoothTangent(before, a, b, a, b) : null;
  const endTangent = after ? smoothTangent(a, b, after, a, b) : null;
  const start = startTangent ?? freeTangent(chord, endTangent);
  const end = endTangent ?? freeTangent(chord, startTangent);
  const points = [curvePoint(a, b, start, end, 0)];
  cutCurve(points, (t) => curvePoint(a, b, start, end, t), 0, 1, MOST_HALVINGS);
  const pieces: OutlinePiece[] = [];
  let previous = points[0] as OutlinePoint;
  for (const point of points.slice(1)) {
    const next = { ...point, z: Math.max(point.z, previous.z), r: Math.max(point.r, 0) };
    if (Math.hypot(next.r - previous.r, next.z - previous.z) < 1e-9) continue;
    pieces.push({ lower: previous, upper: next });
    previous = next;
  }
  return pieces;
}

/** Adds the points of a curve after `from` up to `to`, halving where the normal turns too far. */
function cutCurve(
  points: OutlinePoint[],
  curve: (t: number) => OutlinePoint,
  from: number,
  to: number,
  halvings: number,
): void {
  const end = curve(to);
  const begin = points.at(-1) as OutlinePoint;
  const middle = (from + to) / 2;
  const half = curve(middle);
  const turn = turnBetween(begin, half) + turnBetween(half, end);
  if (turn <= TURN_PER_PIECE_RAD || halvings === 0) {
    points.push(end);
    return;
  }
  cutCurve(points, curve, from, middle, halvings - 1);
  cutCurve(points, curve, middle, to, halvings - 1);
}

const turnBetween = (a: OutlinePoint, b: OutlinePoint): number =>
  Math.acos(Math.min(1, Math.max(-1, a.nr * b.nr + a.nz * b.nz)));

/**
 * Centripetal Catmull-Rom tangent at `here`, scaled to the parameter of the span a-b, and held back so that radius
 * and height stay between those of the points (Fritsch and Carlson 1980).
 */
function smoothTangent(before: Flat, here: Flat, after: Flat, a: Flat, b: Flat): Flat {
  const gap = (p: Flat, q: Flat) => Math.sqrt(Math.hypot(q.r - p.r, q.z - p.z));
  const t0 = gap(before, here);
  const t1 = gap(here, after);
  const span = gap(a, b);
  const along = (key: 'r' | 'z') =>
    span *
    ((here[key] - before[key]) / t0 - (after[key] - before[key]) / (t0 + t1) + (after[key] - here[key]) / t1);
  const isTurningPoint = (here.r - before.r) * (after.r - here.r) <= 0;
  return {
    r: isTurningPoint ? 0 : within(along('r'), 3 * (b.r - a.r)),
    z: within(Math.max(0, along('z')), 3 * (b.z - a.z)),
  };
}

/** A tangent no steeper than the limit in its direction: keeps the curve from swinging past its points. */
function within(tangent: number, limit: number): number {
  return limit >= 0 ? Math.min(tangent, limit) : Math.max(tangent, limit);
}

/** Tangent at a corner: that of a parabola through the other end's tangent. */
function freeTangent(chord: Flat, other: Flat | null): Flat {
  if (!other) return chord;
  return { r: 1.5 * chord.r - 0.5 * other.r, z: Math.max(0, 1.5 * chord.z - 0.5 * other.z) };
}

function curvePoint(a: Flat, b: Flat, start: Flat, end: Flat, t: number): OutlinePoint {
  const t2 = t * t;
  const t3 = t2 * t;
  const at = (key: 'r' | 'z') =>
    (2 * t3 - 3 * t2 + 1) * a[key] +
    (t3 - 2 * t2 + t) * start[key] +
    (3 * t2 - 2 * t3) * b[key] +
    (t3 - t2) * end[key];
  const slope = (key: 'r' | 'z') =>
    (6 * t2 - 6 * t) * (a[key] - b[key]) + (3 * t2 - 4 * t + 1) * start[key] + (3 * t2 - 2 * t) * end[key];
  const size = Math.hypot(slope('r'), slope('z')) || 1;
  return { r: at('r'), z: at('z'), nr: slope('z') / size, nz: -slope('r') / size };
}

/** Radius of an outline at a height, the widest where it has several; 0 beyond its ends, m. */
export function outlineRadius(pieces: readonly OutlinePiece[], heightM: number): number {
  let widest = 0;
  for (const { lower, upper } of pieces) {
    if (heightM < lower.z || heightM > upper.z) continue;
    const part = upper.z > lower.z ? (heightM - lower.z) / (upper.z - lower.z) : 1;
    widest = Math.max(widest, lower.r + part * (upper.r - lower.r));
  }
  return widest;
}
