import { type Kit, kitDocument } from '@fendrix/contract';
import { equipment } from './equipment.js';
import { flashLights } from './lights/flashLights.js';
import { steadyLights } from './lights/steadyLights.js';
import { materials } from './materials/index.js';
import { products } from './products.js';
import { sheets } from './sheets.js';
import { studio } from './studio.js';

/** The kit a studio starts with: generic, each figure with where it comes from, all of it there to be edited. */
export function defaultKit(): Kit {
  return kitDocument.parse({
    format: 'fendrix-kit',
    version: 1,
    entries: [...flashLights, ...steadyLights, ...sheets, ...products, ...materials, ...equipment],
    studio,
  });
}
