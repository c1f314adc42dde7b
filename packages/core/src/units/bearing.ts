import type { Vector } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { degrees, radians } from './angle.js';

/**
 * Where a thing stands as people on set say it, seen from the mark.
 * Bearing 0 is the camera's side, +90 camera right, -90 camera left, 180 behind.
 */
export interface Stand {
  /** In (-180, 180], degrees. */
  bearingDeg: number;
  /** Along the bench, m. */
  distanceM: number;
  /** Above the bench top, m. */
  heightM: number;
}

/** A point of the mark's frame as bearing, distance and height; straight above the mark the bearing is 0. */
export function toStand([x, y, z]: Vector): Stand {
  const distanceM = Math.hypot(x, y);
  return { bearingDeg: distanceM === 0 ? 0 : degrees(Math.atan2(x, -y)), distanceM, heightM: z };
}

/**
 * The point of the mark's frame, m, that stands at a bearing, distance and height.
 * @throws {DomainError} a value is not finite, or the distance is negative
 */
export function fromStand({ bearingDeg, distanceM, heightM }: Stand): Vector {
  requireDomain(Number.isFinite(bearingDeg + distanceM + heightM), 'a stand needs finite numbers');
  requireDomain(distanceM >= 0, 'a distance from the centre is not negative');
  const bearing = radians(bearingDeg);
  return [distanceM * Math.sin(bearing), -distanceM * Math.cos(bearing), heightM];
}
