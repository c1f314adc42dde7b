import { cloth } from './cloth.js';
import { food } from './food.js';
import { glass } from './glass.js';
import { liquids } from './liquids.js';
import type { MaterialEntry } from './material.js';
import { metals } from './metals.js';
import { papers } from './papers.js';
import { surfaces } from './surfaces.js';

/** All materials of the kit, those of products first. */
export const materials: MaterialEntry[] = [
  ...glass,
  ...liquids,
  ...metals,
  ...food,
  ...papers,
  ...surfaces,
  ...cloth,
];
