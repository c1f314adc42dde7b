import type { ProductOf } from '@fendrix/contract';
import { LRUCache } from 'lru-cache';
import { bytesOfBase64 } from '../../units/base64.js';
import type { Pose } from '../../units/frame.js';
import { createRandom } from '../../units/random.js';
import type { SceneParts } from '../builder.js';
import { theRest } from '../primitives.js';
import { smoothed, type TriangleMesh } from '../triangleMesh.js';

/** Cells of a cloth each way. */
const CLOTH_CELLS = 48;
/** Cloth lies at least this high, m. */
const CLOTH_LIFT_M = 3e-4;

export function addMesh(parts: SceneParts, product: ProductOf<'mesh'>, pose: Pose, thing: number): void {
  let upTo = 0;
  const named = product.parts.map(({ triangles, material = product.material }) => {
    upTo += triangles;
    return { upTo, sides: parts.sides(thing, material) };
  });
  parts.list.triangles(meshOf(product), pose, [...named, theRest(parts.sides(thing, product.material))]);
}

/** Cloths as they were last asked for. */
const lastCloths = new LRUCache<string, TriangleMesh>({ max: 8 });

export function addCloth(parts: SceneParts, product: ProductOf<'cloth'>, pose: Pose, thing: number): void {
  const { widthM, depthM, folds, foldHeightM, seed } = product;
  const key = JSON.stringify([widthM, depthM, folds, foldHeightM, seed]);
  const cloth = lastCloths.get(key) ?? clothMesh(product);
  lastCloths.set(key, cloth);
  parts.list.triangles(cloth, pose, [theRest(parts.sides(thing, product.material))]);
}

/** A square whose folds run across it at a slant, with smooth normals. */
function clothMesh({ widthM, depthM, folds, foldHeightM, seed }: ProductOf<'cloth'>): TriangleMesh {
  const n = CLOTH_CELLS + 1;
  const points = new Float32Array(n * n * 3);
  const random = createRandom(seed);
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
  return smoothed(points, corners, 60);
}

/** Meshes as they were last asked for: in a drag the body moves, and its triangles stay. */
const lastMeshes = new LRUCache<string, { positions: string; smoothDeg: number; mesh: TriangleMesh }>({
  max: 4,
});

/** The triangles of an imported body. */
export function meshOf({ positionsBase64, trianglesBase64, smoothDeg }: ProductOf<'mesh'>): TriangleMesh {
  const known = lastMeshes.get(trianglesBase64);
  if (known?.positions === positionsBase64 && known.smoothDeg === smoothDeg) return known.mesh;
  const points = floatsOf(bytesOfBase64(positionsBase64));
  const mesh = smoothed(points, wholesOf(bytesOfBase64(trianglesBase64)), smoothDeg);
  lastMeshes.set(trianglesBase64, { positions: positionsBase64, smoothDeg, mesh });
  return mesh;
}

/** Little-endian 32-bit floats, whatever the machine. */
function floatsOf(bytes: Uint8Array): Float32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const floats = new Float32Array(bytes.length >> 2);
  for (let i = 0; i < floats.length; i++) floats[i] = view.getFloat32(4 * i, true);
  return floats;
}

function wholesOf(bytes: Uint8Array): Uint32Array {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const wholes = new Uint32Array(bytes.length >> 2);
  for (let i = 0; i < wholes.length; i++) wholes[i] = view.getUint32(4 * i, true);
  return wholes;
}
