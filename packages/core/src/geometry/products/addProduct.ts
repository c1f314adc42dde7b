import type { Product } from '@fendrix/contract';
import { type Pose, standingPose } from '../../units/frame.js';
import { add } from '../../units/vector.js';
import type { SceneParts } from '../builder.js';
import { addBoxProduct, addPieces, addWater } from './boxes.js';
import { addDish } from './food.js';
import { addChain, addRing, addStone } from './jewelry.js';
import { addCloth, addMesh } from './meshes.js';
import { addTurned } from './turned.js';

/** Air left under a product, so that its foot and the paper are two surfaces, m. */
export const FOOT_GAP_M = 1e-4;

/** Where a product stands and how it is turned, its foot a hair above what it stands on. */
export const poseOf = ({ positionM, turnDeg, lean }: Product): Pose =>
  standingPose(add(positionM, [0, 0, FOOT_GAP_M]), turnDeg, lean);

/** Adds a product of any kind where it stands. @throws {DomainError} a mesh that is none */
export function addProduct(parts: SceneParts, product: Product): void {
  const thing = parts.thing('product', product.id, product.name);
  const pose = poseOf(product);
  switch (product.kind) {
    case 'turned':
      addTurned(parts, product, pose, thing);
      break;
    case 'box':
      addBoxProduct(parts, product, pose, thing);
      break;
    case 'ring':
      addRing(parts, product, pose, thing);
      break;
    case 'chain':
      addChain(parts, product, pose, thing);
      break;
    case 'stone':
      addStone(parts, product, pose, thing);
      break;
    case 'dish':
      addDish(parts, product, pose, thing);
      break;
    case 'pieces':
      addPieces(parts, product, pose, thing);
      break;
    case 'cloth':
      addCloth(parts, product, pose, thing);
      break;
    case 'water':
      addWater(parts, product, pose, thing);
      break;
    case 'mesh':
      addMesh(parts, product, pose, thing);
      break;
  }
}
