import type { Vector } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { cross, dot, length, scale, subtract } from '../units/vector.js';

/**
 * Illuminance from a Lambertian polygon, by Lambert's edge sum, clipped at the receiver's horizon.
 * Exact for uniform luminance and no occlusion.
 * @param vertices m, counter-clockwise seen from the receiver
 * @param point receiver, m
 * @param normal of the receiver, unit
 * @param luminanceCdM2 of the polygon
 * @returns lx, 0 when wholly below the horizon
 * @throws {DomainError} fewer than 3 vertices, or luminance not >= 0
 * Source: Lambert 1760; Baum et al. 1989 eq. 10; docs/physics/photometry.md
 */
export function polygonIlluminanceLx(
  vertices: readonly Vector[],
  point: Vector,
  normal: Vector,
  luminanceCdM2: number,
): number {
  requireDomain(vertices.length >= 3, 'a polygon has 3 or more vertices');
  requireDomain(luminanceCdM2 >= 0, 'a luminance is not negative');
  const above = clipAtHorizon(
    vertices.map((vertex) => subtract(vertex, point)),
    normal,
  );
  let sum = 0;
  for (let i = 0; i < above.length; i++) {
    const a = above[i] as Vector;
    const b = above[(i + 1) % above.length] as Vector;
    const across = cross(b, a);
    const sine = length(across);
    if (sine === 0) continue;
    sum += Math.atan2(sine, dot(a, b)) * dot(normal, scale(across, 1 / sine));
  }
  return Math.max(0, (luminanceCdM2 / 2) * sum);
}

/** Sutherland-Hodgman against the plane through the receiver. */
function clipAtHorizon(vertices: readonly Vector[], normal: Vector): Vector[] {
  const kept: Vector[] = [];
  vertices.forEach((here, i) => {
    const next = vertices[(i + 1) % vertices.length] as Vector;
    const heightHere = dot(here, normal);
    const heightNext = dot(next, normal);
    if (heightHere >= 0) kept.push(here);
    if (heightHere >= 0 !== heightNext >= 0) {
      const part = heightHere / (heightHere - heightNext);
      kept.push([
        here[0] + part * (next[0] - here[0]),
        here[1] + part * (next[1] - here[1]),
        here[2] + part * (next[2] - here[2]),
      ]);
    }
  });
  return kept;
}

/** Corners of a rectangle, counter-clockwise seen from its front. */
export function rectangleCorners(
  centre: Vector,
  right: Vector,
  up: Vector,
  widthM: number,
  heightM: number,
): Vector[] {
  const corner = (sx: number, sy: number): Vector => [
    centre[0] + (sx * widthM * right[0] + sy * heightM * up[0]) / 2,
    centre[1] + (sx * widthM * right[1] + sy * heightM * up[1]) / 2,
    centre[2] + (sx * widthM * right[2] + sy * heightM * up[2]) / 2,
  ];
  return [corner(-1, -1), corner(1, -1), corner(1, 1), corner(-1, 1)];
}

/** Angle, rad, that a flat thing of this size takes up from straight in front. */
export function apparentAngleRad(sizeM: number, distanceM: number): number {
  requireDomain(sizeM >= 0 && distanceM > 0, 'a size is not negative and a distance above 0');
  return 2 * Math.atan(sizeM / (2 * distanceM));
}
