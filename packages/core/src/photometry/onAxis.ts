import { requireDomain } from '../errors.js';

/**
 * Illuminance on the axis of a Lambertian rectangle, facing it, lx.
 * Exact for uniform luminance. 0.6 x 0.9 m, 1000 cd/m2 at 1 m: 453.05 lx.
 * @throws {DomainError} a size or distance not above 0, or luminance not >= 0
 * Source: Howell, catalogue of configuration factors, C-11, four quadrants.
 */
export function rectangleOnAxisLx(
  widthM: number,
  heightM: number,
  distanceM: number,
  luminanceCdM2: number,
): number {
  requireDomain(widthM > 0 && heightM > 0 && distanceM > 0, 'sizes and distance are above 0');
  requireDomain(luminanceCdM2 >= 0, 'a luminance is not negative');
  const x = widthM / (2 * distanceM);
  const y = heightM / (2 * distanceM);
  const sx = Math.sqrt(1 + x * x);
  const sy = Math.sqrt(1 + y * y);
  const factor = (2 / Math.PI) * ((x / sx) * Math.atan(y / sx) + (y / sy) * Math.atan(x / sy));
  return Math.PI * luminanceCdM2 * factor;
}

/**
 * Illuminance on the axis of a Lambertian disc, facing it, lx: pi L R^2 / (R^2 + d^2).
 * @throws {DomainError} radius or distance not above 0, or luminance not >= 0
 */
export function discOnAxisLx(radiusM: number, distanceM: number, luminanceCdM2: number): number {
  requireDomain(radiusM > 0 && distanceM > 0, 'radius and distance are above 0');
  requireDomain(luminanceCdM2 >= 0, 'a luminance is not negative');
  return (Math.PI * luminanceCdM2 * radiusM ** 2) / (radiusM ** 2 + distanceM ** 2);
}
