import type { Camera, Vector } from '@fendrix/contract';
import {
  VIEW_FOCUS,
  VIEW_FORWARD,
  VIEW_HALF_HEIGHT,
  VIEW_HALF_WIDTH,
  VIEW_ORIGIN,
  VIEW_PUPIL,
  VIEW_RIGHT,
  VIEW_UP,
} from '../engine/layouts.js';
import { lensFigures } from '../optics/lens.js';
import { aimFrame } from '../units/frame.js';
import { dot, subtract } from '../units/vector.js';

/** A rectangle within the frame, 0 to 1 right and down. */
export interface FrameRect {
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** The camera at its entrance pupil; picture coordinates run 0 to 1, right and down. */
export interface View {
  origin: Vector;
  right: Vector;
  up: Vector;
  forward: Vector;
  /** Tangent of half the angle of view. */
  halfWidth: number;
  halfHeight: number;
  /** Radius of the entrance pupil, 0 for a pinhole (depth of field off), and distance of the plane in focus, m. */
  pupilRadiusM: number;
  focusM: number;
}

/** @throws {DomainError} focused closer than the lens can form an image */
export function viewOf(camera: Camera): View {
  const { imageDistanceM } = lensFigures(camera);
  return {
    origin: camera.positionM,
    ...aimFrame(camera.positionM, camera.aimM, camera.rollDeg),
    halfWidth: camera.body.sensorWidthM / (2 * imageDistanceM),
    halfHeight: camera.body.sensorHeightM / (2 * imageDistanceM),
    pupilRadiusM: camera.depthOfField ? camera.lens.focalLengthM / (2 * camera.fNumber) : 0,
    focusM: camera.focusM,
  };
}

/** The largest centred part of the frame that has the shape of a picture of so many pixels; pixels stay square. */
export function viewOfShape(view: View, width: number, height: number): View {
  const shape = (width * view.halfHeight) / (height * view.halfWidth);
  return {
    ...view,
    halfWidth: view.halfWidth * Math.min(1, shape),
    halfHeight: view.halfHeight * Math.min(1, 1 / shape),
  };
}

/** Unit direction of the ray through a picture point. @param out 0-2 direction */
export function rayThrough(out: Float64Array, view: View, across: number, down: number): void {
  const a = (2 * across - 1) * view.halfWidth;
  const b = (1 - 2 * down) * view.halfHeight;
  const inverse = 1 / Math.sqrt(1 + a * a + b * b);
  out[0] = inverse * (view.forward[0] + a * view.right[0] + b * view.up[0]);
  out[1] = inverse * (view.forward[1] + a * view.right[1] + b * view.up[1]);
  out[2] = inverse * (view.forward[2] + a * view.right[2] + b * view.up[2]);
}

/** Cosine of a ray through a picture point to the axis of the lens. */
export function alongLens(view: View, across: number, down: number): number {
  return 1 / Math.hypot(1, (2 * across - 1) * view.halfWidth, (1 - 2 * down) * view.halfHeight);
}

/** Where a point appears in the picture, [across, down], 0 to 1 within the frame; null behind the camera. */
export function projectPoint(view: View, point: Vector): [number, number] | null {
  const offset = subtract(point, view.origin);
  const depth = dot(offset, view.forward);
  if (!(depth > 1e-9)) return null;
  return [
    0.5 + dot(offset, view.right) / (2 * depth * view.halfWidth),
    0.5 - dot(offset, view.up) / (2 * depth * view.halfHeight),
  ];
}

/** Hands a view to an engine. @param out its camera, see engine/layouts.ts */
export function writeView(out: Float64Array, view: View): void {
  out.set(view.origin, VIEW_ORIGIN);
  out.set(view.right, VIEW_RIGHT);
  out.set(view.up, VIEW_UP);
  out.set(view.forward, VIEW_FORWARD);
  out[VIEW_HALF_WIDTH] = view.halfWidth;
  out[VIEW_HALF_HEIGHT] = view.halfHeight;
  out[VIEW_PUPIL] = view.pupilRadiusM;
  out[VIEW_FOCUS] = view.focusM;
}
