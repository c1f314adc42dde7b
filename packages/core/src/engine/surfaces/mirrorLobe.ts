/** The mirror lobe of bare metal: conductor Fresnel over GGX facets. Source: docs/physics/surfaces.md */
import { conductorMirrored, fresnelConductor, PARTED, SLANT_KEPT } from '../fresnel.js';
import { INDEX_K, INDEX_N, LOBE_TABLE } from '../layouts.js';
import { tableAlbedo } from '../microfacet.js';
import { type i32, whole32 } from '../portable.js';
import type { SceneTables } from '../tables.js';

/** Albedo of the facets of a mirror lobe alone with reflectance 1. */
export function facetAlbedo(t: SceneTables, surface: i32, cosine: number): number {
  return tableAlbedo(t.albedos, whole32(t.surfaces[surface + LOBE_TABLE]), cosine);
}

/** Reflectance of one channel of a mirror lobe at a cosine. */
export function lobeFresnel(t: SceneTables, surface: i32, channel: i32, cosine: number): number {
  const n = t.surfaces[surface + INDEX_N + channel];
  const k = t.surfaces[surface + INDEX_K + channel];
  return k < 0 ? n : fresnelConductor(cosine, n, k);
}

/** How it polarises, by its index for green; one of a plain reflectance keeps all as straight on. */
export function lobePolarisation(out: Float64Array, t: SceneTables, surface: i32, cosine: number): void {
  const n = t.surfaces[surface + INDEX_N + 1];
  const k = t.surfaces[surface + INDEX_K + 1];
  if (k >= 0) conductorMirrored(out, cosine, n, k);
  else {
    out[PARTED] = 0;
    out[SLANT_KEPT] = -1;
  }
}
