import type { ProductOf } from '@fendrix/contract';
import { type Pose, placed } from '../../units/frame.js';
import { createRandom } from '../../units/random.js';
import type { SceneParts } from '../builder.js';
import { type OutlinePiece, outlinePieces } from './outline.js';
import { addPiece, innerWall, level } from './turned.js';

/** Air between food and its dish, m, so that the two are two surfaces. */
const FOOD_GAP_M = 1e-4;
const HEAP_PIECES = 12;

/** A plate or bowl turned from a curved outline, and what lies in it. */
export function addDish(parts: SceneParts, product: ProductOf<'dish'>, pose: Pose, thing: number): void {
  const sides = parts.sides(thing, product.material);
  const radius = product.diameterM / 2;
  const foot = Math.min(product.footDiameterM / 2, radius * 0.95);
  const { heightM: height, food } = product;
  const thickness = Math.min(product.thicknessM, height / 3, (radius - foot) / 2);
  const outline = [
    { radiusM: foot, heightM: 0, smooth: false },
    { radiusM: foot + (radius - foot) * 0.72, heightM: height * 0.4, smooth: true },
    { radiusM: radius, heightM: height, smooth: false },
  ];
  const outside = outlinePieces(outline, false);
  const inside = innerWall(outside, thickness, thickness, height);
  for (const piece of outside) addPiece(parts, pose, piece, sides);
  for (const piece of inside) addPiece(parts, pose, piece, sides, true);
  const rim = inside.at(-1)?.upper;
  if (rim) addPiece(parts, pose, level(radius, rim.r, height), sides);
  if (!food) return;

  const level0 = thickness + FOOD_GAP_M;
  const top = level0 + food.heightM;
  const reachAt = (z: number) => Math.max(1e-3, radiusAt(inside, z) - 10 * FOOD_GAP_M);
  const own = parts.sides(thing, food.material);
  if (food.form === 'flat') {
    // Lies against the wall of the dish: a disc is all that is seen of it.
    const surface = Math.min(top, height);
    parts.list.disc(pose, surface, reachAt(surface), 0, own);
    return;
  }
  // Heaps and pieces rest on the bottom; the wall only gives them more room further up.
  const reach = reachAt(level0);
  if (food.form === 'heap') {
    const at = (angle: number) => {
      const nr = Math.cos(angle) / reach;
      const nz = Math.sin(angle) / Math.max(food.heightM, 1e-4);
      const size = Math.hypot(nr, nz);
      return {
        r: Math.max(0, reach * Math.cos(angle)),
        z: level0 + Math.max(food.heightM, 1e-4) * Math.sin(angle),
        nr: nr / size,
        nz: nz / size,
      };
    };
    for (let i = 0; i < HEAP_PIECES; i++) {
      const step = Math.PI / 2 / HEAP_PIECES;
      addPiece(parts, pose, { lower: at(i * step), upper: at((i + 1) * step) }, own);
    }
    addPiece(
      parts,
      pose,
      { lower: { r: 0, z: level0, nr: 0, nz: -1 }, upper: { r: reach, z: level0, nr: 0, nz: -1 } },
      own,
    );
    return;
  }
  const random = createRandom(food.seed);
  for (let i = 0; i < food.count; i++) {
    const size = food.pieceM * (0.75 + 0.5 * random());
    const away = Math.max(0, reach - size / 2) * Math.sqrt(random());
    const angle = 2 * Math.PI * random();
    const most = Math.max(0, food.heightM - size) * (1 - (away / reach) ** 2);
    const z = level0 + size / 2 + most * random();
    parts.list.ball(placed(pose, [away * Math.cos(angle), away * Math.sin(angle), z]), size / 2, own);
  }
}

/** Radius of an inner wall at a height; its ends beyond them. */
function radiusAt(inside: readonly OutlinePiece[], z: number): number {
  let radius = 0;
  for (const { lower, upper } of inside) {
    if (!(upper.z > lower.z)) continue;
    if (radius === 0) radius = lower.r;
    if (z < lower.z) break;
    const part = Math.min(1, (z - lower.z) / (upper.z - lower.z));
    radius = lower.r + part * (upper.r - lower.r);
  }
  return radius;
}
