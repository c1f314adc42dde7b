import { radians } from '../units/angle.js';

/** Triangles of a body in its own frame, m, with unit shading normals; those without a face are left out. */
export interface TriangleMesh {
  /** x, y, z of each point. */
  points: Float32Array;
  /** Three points of each triangle. */
  corners: Uint32Array;
  /** Normals at the three corners of each triangle, nine figures. */
  normals: Float64Array;
  /** Which of the triangles that it was made of each one is, rising. */
  madeOf: Uint32Array;
}

/**
 * Triangles with shading normals: at each corner the mean of the faces round that place, weighed by their area, that are
 * flatter to the triangle's own than a limit.
 * @param corners three indices of points a triangle, anticlockwise seen from outside
 * @param smoothDeg edges flatter than this are shaded as one curved surface
 */
export function smoothed(points: Float32Array, corners: Uint32Array, smoothDeg: number): TriangleMesh {
  const faces = faceNormals(points, corners);
  const round = facesRound(weld(points), corners);
  const least = Math.cos(radians(smoothDeg));
  const triangles = faces.size.length;
  const normals = new Float64Array(9 * triangles);
  const kept = new Uint32Array(3 * triangles);
  const madeOf = new Uint32Array(triangles);
  let count = 0;
  for (let t = 0; t < triangles; t++) {
    const own = faces.size[t] as number;
    if (!(own > 0)) continue;
    for (let i = 0; i < 3; i++) {
      kept[3 * count + i] = corners[3 * t + i] as number;
      shade(faces, round, t, corners[3 * t + i] as number, least, normals, 9 * count + 3 * i);
    }
    madeOf[count] = t;
    count++;
  }
  return {
    points,
    corners: kept.slice(0, 3 * count),
    normals: normals.slice(0, 9 * count),
    madeOf: madeOf.slice(0, count),
  };
}

interface Faces {
  /** Normals, twice the area long, so that large faces count for more. */
  normal: Float64Array;
  size: Float64Array;
}

function faceNormals(points: Float32Array, corners: Uint32Array): Faces {
  const triangles = corners.length / 3;
  const normal = new Float64Array(3 * triangles);
  const size = new Float64Array(triangles);
  const at = (t: number, corner: number, axis: number): number =>
    points[3 * (corners[3 * t + corner] as number) + axis] as number;
  for (let t = 0; t < triangles; t++) {
    const [ux, uy, uz] = [at(t, 1, 0) - at(t, 0, 0), at(t, 1, 1) - at(t, 0, 1), at(t, 1, 2) - at(t, 0, 2)];
    const [vx, vy, vz] = [at(t, 2, 0) - at(t, 0, 0), at(t, 2, 1) - at(t, 0, 1), at(t, 2, 2) - at(t, 0, 2)];
    const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
    normal.set([x, y, z], 3 * t);
    size[t] = Math.hypot(x, y, z);
  }
  return { normal, size };
}

/** Writes the unit shading normal of a triangle at one of its points. */
function shade(
  { normal, size }: Faces,
  { place, first, faces }: Round,
  triangle: number,
  point: number,
  least: number,
  out: Float64Array,
  at: number,
): void {
  const x = normal[3 * triangle] as number;
  const y = normal[3 * triangle + 1] as number;
  const z = normal[3 * triangle + 2] as number;
  const own = size[triangle] as number;
  let [sx, sy, sz] = [0, 0, 0];
  const here = place[point] as number;
  for (let i = first[here] as number; i < (first[here + 1] as number); i++) {
    const face = faces[i] as number;
    const ox = normal[3 * face] as number;
    const oy = normal[3 * face + 1] as number;
    const oz = normal[3 * face + 2] as number;
    const other = size[face] as number;
    if (!(other > 0) || x * ox + y * oy + z * oz < least * own * other) continue;
    sx += ox;
    sy += oy;
    sz += oz;
  }
  const whole = Math.hypot(sx, sy, sz);
  const unit = 1 / (whole > 0 ? whole : own);
  out[at] = (whole > 0 ? sx : x) * unit;
  out[at + 1] = (whole > 0 ? sy : y) * unit;
  out[at + 2] = (whole > 0 ? sz : z) * unit;
}

/** Which faces meet at each place: those of `faces` from `first[place]` to before `first[place + 1]`. */
interface Round {
  /** For each point its place. */
  place: Uint32Array;
  first: Uint32Array;
  faces: Uint32Array;
}

function facesRound(place: Uint32Array, corners: Uint32Array): Round {
  const first = new Uint32Array(place.length + 1);
  for (const corner of corners) (first[(place[corner] as number) + 1] as number)++;
  for (let i = 0; i < place.length; i++) (first[i + 1] as number) += first[i] as number;
  const next = first.slice();
  const faces = new Uint32Array(corners.length);
  for (let i = 0; i < corners.length; i++) {
    const here = place[corners[i] as number] as number;
    faces[next[here] as number] = Math.floor(i / 3);
    (next[here] as number)++;
  }
  return { place, first, faces };
}

/** For each point the first one at the same place, to a tenth of a micrometre. */
function weld(points: Float32Array): Uint32Array {
  const count = points.length / 3;
  // Within 100 m of the foot tenths of a micrometre fit into 32 bits.
  const cells = Int32Array.from(points, (figure) => Math.round(figure * 1e7));
  const slots = 1 << Math.max(4, 33 - Math.clz32(count));
  const table = new Int32Array(slots).fill(-1);
  const first = new Uint32Array(count);
  for (let i = 0; i < count; i++) {
    const [x, y, z] = [cells[3 * i] as number, cells[3 * i + 1] as number, cells[3 * i + 2] as number];
    const mixed = Math.imul(x, 73856093) ^ Math.imul(y, 19349663) ^ Math.imul(z, 83492791);
    let slot = Math.imul(mixed ^ (mixed >>> 15), 0x2c1b3c6d) & (slots - 1);
    for (;;) {
      const known = table[slot] as number;
      if (known < 0) {
        table[slot] = i;
        first[i] = i;
        break;
      }
      if (cells[3 * known] === x && cells[3 * known + 1] === y && cells[3 * known + 2] === z) {
        first[i] = known;
        break;
      }
      slot = (slot + 1) & (slots - 1);
    }
  }
  return first;
}
