import type { Surface } from '../src/geometry/surface.js';

/** Colour of the base of a surface without a print. */
export function albedoOf({ r, g, b }: Surface): Float64Array {
  return new Float64Array([r, g, b]);
}
