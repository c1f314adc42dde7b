/**
 * GGX microfacets with height-correlated Smith masking, in the local frame of the surface (z = normal), for one
 * roughness or two. Single scattering only.
 * Sources: Walter et al. 2007; Heitz 2014 (masking), 2018 (visible normals).
 */
import { type i32, real, whole32 } from './portable.js';

/** Steps of an albedo table: entry i is at cosine (i / ENTRIES)^2, one more closes it. */
export const ALBEDO_ENTRIES = 64;

/** Density of facets facing the half vector with cosine `cosHalf`. */
export function ggxDensity(cosHalf: number, alpha: number): number {
  const a2 = alpha * alpha;
  const k = cosHalf * cosHalf * (a2 - 1) + 1;
  return a2 / (Math.PI * k * k);
}

/** Smith's Lambda of a direction with cosine `cosine` to the normal. */
export function smithLambda(cosine: number, alpha: number): number {
  const c2 = cosine * cosine;
  return (Math.sqrt(1 + (alpha * alpha * (1 - c2)) / c2) - 1) / 2;
}

/** The same for two roughnesses. */
export function stretchedLambda(v: Float64Array, alphaX: number, alphaY: number): number {
  const x = alphaX * v[0];
  const y = alphaY * v[1];
  const z = v[2];
  return (Math.sqrt(1 + (x * x + y * y) / (z * z)) - 1) / 2;
}

/**
 * Smith's Lambda also of ways that lead down, where it is below -1.
 * @param across square of what is left of the way beside the normal, stretched by the alphas
 */
export function signedLambda(z: number, across: number): number {
  const root = Math.sqrt(1 + across / (z * z));
  return z > 0 ? (root - 1) / 2 : -(root + 1) / 2;
}

/** Density of the facet normals visible from a direction: D G1 max(0, o.h) / o.z, per solid angle of h. */
export function visibleNormalPdf(cosOut: number, cosHalf: number, outDotHalf: number, alpha: number): number {
  return (ggxDensity(cosHalf, alpha) * outDotHalf) / (cosOut * (1 + smithLambda(cosOut, alpha)));
}

/** Samples a facet normal visible from `o`, unit and above the surface. @param half 0-2 */
export function sampleVisibleNormal(
  half: Float64Array,
  o: Float64Array,
  alphaX: number,
  alphaY: number,
  uv: Float64Array,
): void {
  let vx = alphaX * o[0];
  let vy = alphaY * o[1];
  let vz = o[2];
  const size = 1 / Math.sqrt(vx * vx + vy * vy + vz * vz);
  vx *= size;
  vy *= size;
  vz *= size;
  const flat = vx * vx + vy * vy;
  const invFlat: number = flat > 0 ? 1 / Math.sqrt(flat) : 0;
  const ax: number = flat > 0 ? -vy * invFlat : 1;
  const ay: number = flat > 0 ? vx * invFlat : 0;
  const bx = -vz * ay;
  const by = vz * ax;
  const bz = vx * ay - vy * ax;
  const r = Math.sqrt(uv[0]);
  const phi = 2 * Math.PI * uv[1];
  const p = r * Math.cos(phi);
  const s = 0.5 * (1 + vz);
  const q = (1 - s) * Math.sqrt(Math.max(0, 1 - p * p)) + s * r * Math.sin(phi);
  const w = Math.sqrt(Math.max(0, 1 - p * p - q * q));
  const hx = alphaX * (p * ax + q * bx + w * vx);
  const hy = alphaY * (p * ay + q * by + w * vy);
  const hz = Math.max(1e-9, q * bz + w * vz);
  const unit = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  half[0] = hx * unit;
  half[1] = hy * unit;
  half[2] = hz * unit;
}

/**
 * The half vector between a direction and `o`, unit.
 * @param half 0-2  @param ix, iy, iz the direction
 * @returns cosine of `o` to it
 */
export function halfVector(half: Float64Array, o: Float64Array, ix: number, iy: number, iz: number): number {
  let hx = o[0] + ix;
  let hy = o[1] + iy;
  let hz = o[2] + iz;
  const size = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  hx *= size;
  hy *= size;
  hz *= size;
  half[0] = hx;
  half[1] = hy;
  half[2] = hz;
  return Math.min(1, o[0] * hx + o[1] * hy + o[2] * hz);
}

/** `direction` of light that a facet mirrors to `o`. */
export function mirrorInFacet(direction: Float64Array, half: Float64Array, o: Float64Array): number {
  const oh = o[0] * half[0] + o[1] * half[1] + o[2] * half[2];
  for (let a = 0; a < 3; a++) direction[a] = 2 * oh * half[a] - o[a];
  return oh;
}

/** Value of an albedo table that starts at an offset, at a cosine. */
export function tableAlbedo(table: Float64Array, at: i32, cosine: number): number {
  const position = Math.sqrt(cosine) * ALBEDO_ENTRIES;
  const i = whole32(position);
  const low = table[at + i];
  return low + (position - real(i)) * (table[at + i + 1] - low);
}
