/** The mirror lobe of bare metal: conductor Fresnel over GGX facets. Source: docs/physics/surfaces.md */
import { fresnelConductor } from '../fresnel.js';
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
