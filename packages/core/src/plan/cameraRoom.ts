import type { Studio, Vector } from '@fendrix/contract';
import type { Bounds } from '../geometry/bounds.js';
import { radians } from '../units/angle.js';

/** From the entrance pupil back to the far side of body and hand, m. */
export const CAMERA_BODY_M = 0.15;
/** Looking down so steeply nobody stands behind the lens axis, degrees. */
const OVERHEAD_DEG = 84;

/** Room kept behind the entrance pupil for body and person, m along the floor. */
export function behindCameraM(tiltDeg: number, personM: number): number {
  return tiltDeg > OVERHEAD_DEG ? 0 : CAMERA_BODY_M * Math.cos(radians(tiltDeg)) + personM;
}

/** Where the entrance pupil may be in a studio, m from the mark: its room less what stands behind and over the camera. */
export function roomForCamera({ room, benchHeightM }: Studio, tiltDeg: number, personM: number): Bounds {
  const side = CAMERA_BODY_M / 2;
  const low: Vector = [
    side - room.markFromLeftM,
    behindCameraM(tiltDeg, personM) - room.markFromFrontM,
    -benchHeightM,
  ];
  const high: Vector = [
    room.widthM - room.markFromLeftM - side,
    room.depthM - room.markFromFrontM - side,
    room.heightM - benchHeightM - CAMERA_BODY_M,
  ];
  return { low, high };
}
