/**
 * GGX microfacets with height-correlated Smith masking, in the local frame of the surface (z = normal).
 * Single scattering only. Sources: Walter et al. 2007; Heitz 2014 (masking), 2018 (visible normals).
 */

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

/** Density of the facet normals visible from a direction: D G1 max(0, o.h) / o.z, per solid angle of h. */
export function visibleNormalPdf(cosOut: number, cosHalf: number, outDotHalf: number, alpha: number): number {
  return (ggxDensity(cosHalf, alpha) * outDotHalf) / (cosOut * (1 + smithLambda(cosOut, alpha)));
}

/**
 * Samples a facet normal visible from (ox, oy, oz), unit and above the surface.
 * @param half receives the local normal in [0..2]
 */
export function sampleVisibleNormal(
  half: Float64Array,
  ox: number,
  oy: number,
  oz: number,
  alpha: number,
  u: number,
  v: number,
): void {
  let vx = alpha * ox;
  let vy = alpha * oy;
  let vz = oz;
  const size = 1 / Math.sqrt(vx * vx + vy * vy + vz * vz);
  vx *= size;
  vy *= size;
  vz *= size;
  const flat = vx * vx + vy * vy;
  const invFlat = flat > 0 ? 1 / Math.sqrt(flat) : 0;
  const ax = flat > 0 ? -vy * invFlat : 1;
  const ay = flat > 0 ? vx * invFlat : 0;
  const bx = -vz * ay;
  const by = vz * ax;
  const bz = vx * ay - vy * ax;
  const r = Math.sqrt(u);
  const phi = 2 * Math.PI * v;
  const p = r * Math.cos(phi);
  const s = 0.5 * (1 + vz);
  const q = (1 - s) * Math.sqrt(Math.max(0, 1 - p * p)) + s * r * Math.sin(phi);
  const w = Math.sqrt(Math.max(0, 1 - p * p - q * q));
  const hx = alpha * (p * ax + q * bx + w * vx);
  const hy = alpha * (p * ay + q * by + w * vy);
  const hz = Math.max(1e-9, q * bz + w * vz);
  const unit = 1 / Math.sqrt(hx * hx + hy * hy + hz * hz);
  half[0] = hx * unit;
  half[1] = hy * unit;
  half[2] = hz * unit;
}
