import type { ProductOf, Vector } from '@fendrix/contract';
import { radians } from '../../units/angle.js';
import { bytesOfBase64 } from '../../units/base64.js';
import { createRandom } from '../../units/random.js';
import { add, cross, dot, length, scale, subtract } from '../../units/vector.js';
import type { SceneParts } from '../builder.js';
import { type Pose, placed, turned } from '../frame.js';
import type { Sides } from '../primitives.js';

/** Cells of a cloth each way. */
const CLOTH_CELLS = 48;
/** Cloth lies at least this high, m. */
const CLOTH_LIFT_M = 3e-4;

export function addMesh(parts: SceneParts, product: ProductOf<'mesh'>, pose: Pose, thing: number): void {
  const points = floatsOf(bytesOfBase64(product.positionsBase64));
  const corners = wholesOf(bytesOfBase64(product.trianglesBase64));
  addTriangles(parts, pose, points, corners, product.smoothDeg, parts.sides(thing, product.material));
}

/** A square of cloth whose folds run across it at a slant, as triangles with smooth normals. */
export function addCloth(parts: SceneParts, product: ProductOf<'cloth'>, pose: Pose, thing: number): void {
  const { widthM, depthM, folds, foldHeightM } = product;
  const n = CLOTH_CELLS + 1;
  const points = new Float32Array(n * n * 3);
  const random = createRandom(product.seed);
  const waves = Array.from({ length: 4 }, (_, i) => ({
    angle: Math.PI * random(),
    rate: folds * (0.4 + 0.4 * i) * (0.7 + 0.6 * random()),
    phase: 2 * Math.PI * random(),
    share: 0.4 / (1 + i),
  }));
  for (let row = 0; row < n; row++) {
    for (let column = 0; column < n; column++) {
      const a = column / CLOTH_CELLS - 0.5;
      const b = row / CLOTH_CELLS - 0.5;
      let height = 0;
      for (const { angle, rate, phase, share } of waves) {
        height +=
          share * (1 + Math.sin(2 * Math.PI * rate * (a * Math.cos(angle) + b * Math.sin(angle)) + phase));
      }
      const at = 3 * (row * n + column);
      points[at] = a * widthM;
      points[at + 1] = b * depthM;
      points[at + 2] = CLOTH_LIFT_M + foldHeightM * 0.6 * height;
    }
  }
  const corners = new Uint32Array(CLOTH_CELLS * CLOTH_CELLS * 6);
  let at = 0;
  for (let row = 0; row < CLOTH_CELLS; row++) {
    for (let column = 0; column < CLOTH_CELLS; column++) {
      const p = row * n + column;
      corners.set([p, p + 1, p + n, p + 1, p + n + 1, p + n], at);
      at += 6;
    }
  }
  addTriangles(parts, pose, points, corners, 60, parts.sides(thing, product.material));
}

/** Triangles with shading normals: the mean of the faces round a point that are flatter to each other than a limit. */
function addTriangles(
  parts: SceneParts,
  pose: Pose,
  points: Float32Array,
  corners: Uint32Array,
  smoothDeg: number,
  sides: Sides,
): void {
  const pointAt = (index: number): Vector => [
    points[3 * index] as number,
    points[3 * index + 1] as number,
    points[3 * index + 2] as number,
  ];
  const triangles = corners.length / 3;
  const normals: Vector[] = [];
  const welded = weld(points);
  const facesAt: number[][] = Array.from({ length: points.length / 3 }, () => []);
  for (let t = 0; t < triangles; t++) {
    const [a, b, c] = [0, 1, 2].map((i) => pointAt(corners[3 * t + i] as number)) as [Vector, Vector, Vector];
    // Twice the area long, so that large faces count for more.
    normals.push(cross(subtract(b, a), subtract(c, a)));
    for (let i = 0; i < 3; i++) facesAt[welded[corners[3 * t + i] as number] as number]?.push(t);
  }
  const least = Math.cos(radians(smoothDeg));
  for (let t = 0; t < triangles; t++) {
    const own = normals[t] as Vector;
    const size = length(own);
    if (!(size > 0)) continue;
    const shading = [0, 1, 2].map((i) => {
      let sum: Vector = [0, 0, 0];
      for (const face of facesAt[welded[corners[3 * t + i] as number] as number] ?? []) {
        const other = normals[face] as Vector;
        const otherSize = length(other);
        if (otherSize > 0 && dot(own, other) >= least * size * otherSize) sum = add(sum, other);
      }
      const whole = length(sum);
      return turned(pose, scale(whole > 0 ? sum : own, 1 / (whole > 0 ? whole : size)));
    }) as [Vector, Vector, Vector];
    const [a, b, c] = [0, 1, 2].map((i) => placed(pose, pointAt(corners[3 * t + i] as number))) as [
      Vector,
      Vector,
      Vector,
    ];
    parts.list.triangle(a, b, c, sides, shading);
  }
}

/** For each point the first one at the same place, to a tenth of a micrometre. */
function weld(points: Float32Array): Uint32Array {
  const first = new Map<string, number>();
  return Uint32Array.from({ length: points.length / 3 }, (_, i) => {
    const key = `${Math.round((points[3 * i] as number) * 1e7)} ${Math.round((points[3 * i + 1] as number) * 1e7)} ${Math.round((points[3 * i + 2] as number) * 1e7)}`;
    const known = first.get(key);
    if (known === undefined) first.set(key, i);
    return known ?? i;
  });
}

/** Little-endian 32-bit floats, whatever the machine. */
export function floatsOf(bytes: Uint8Array): Float32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Float32Array.from({ length: bytes.length >> 2 }, (_, i) => view.getFloat32(4 * i, true));
}

export function wholesOf(bytes: Uint8Array): Uint32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  return Uint32Array.from({ length: bytes.length >> 2 }, (_, i) => view.getUint32(4 * i, true));
}
