/** Mean Fresnel reflectance of a smooth dielectric boundary; `ratio` is the index beyond over that here. */
export function fresnelMean(cosIncidence: number, ratio: number): number {
  const sineSquared = (1 - cosIncidence * cosIncidence) / (ratio * ratio);
  if (sineSquared >= 1) return 1;
  const cosRefracted = Math.sqrt(1 - sineSquared);
  const s = (cosIncidence - ratio * cosRefracted) / (cosIncidence + ratio * cosRefracted);
  const p = (ratio * cosIncidence - cosRefracted) / (ratio * cosIncidence + cosRefracted);
  return (s * s + p * p) / 2;
}

/** Mean Fresnel reflectance of bare metal in air. Source: Born and Wolf 14.2. */
export function fresnelConductor(cosIncidence: number, n: number, k: number): number {
  const c2 = cosIncidence * cosIncidence;
  const s2 = 1 - c2;
  const t = n * n - k * k - s2;
  const r2 = Math.sqrt(t * t + 4 * n * n * k * k);
  const a = 2 * cosIncidence * Math.sqrt(Math.max(0, (r2 + t) / 2));
  const s = (r2 + c2 - a) / (r2 + c2 + a);
  const q = c2 * r2 + s2 * s2;
  return (s * (1 + (q - a * s2) / (q + a * s2))) / 2;
}
