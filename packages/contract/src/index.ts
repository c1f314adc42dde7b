export * from './api.js';
export type { Vector } from './geometry.js';
export type { BareLamp, Light, LightOutput, Softbox, Surround } from './light.js';
export type { Dielectric, Material, OpaqueMaterial, Reflectance } from './material.js';
export { checkDocument, fieldPath, type Problem, problemsOf } from './problems.js';
export type { BoxProduct, Product, ProfilePoint, Turned } from './product.js';
export {
  type Backdrop,
  type Bench,
  type Camera,
  type Panel,
  type Room,
  type SetDocument,
  type SetDocumentInput,
  type Sheet,
  type Spot,
  type Sweep,
  setDocument,
} from './set.js';
export { setJsonSchema } from './setSchema.js';
