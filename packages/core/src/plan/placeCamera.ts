import type { Camera, CameraBody, CameraLens, Vector } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { projectPoint, type View, viewOf } from '../render/view.js';
import { radians } from '../units/angle.js';
import { add, dot, scale, subtract } from '../units/vector.js';
import { type Format, type FormatFit, type FrameRect, fitFormat } from './frameFit.js';

/** Lowest and highest corner, m from the mark. */
export interface Bounds {
  low: Vector;
  high: Vector;
}

export interface CameraWish {
  body: CameraBody;
  lens: CameraLens;
  /** Looks down by this much, degrees: 0 level, 90 straight down. */
  tiltDeg: number;
  /** How much of the frame the product fills, in the tighter way. */
  fillPart: number;
  fNumber: number;
  product: Bounds;
  formats: readonly Format[];
}

export interface PlacedCamera {
  camera: Camera;
  /** Entrance pupil to the middle of the product along the lens axis, m. */
  distanceM: number;
  /** Part of the frame the product fills across and up. */
  fill: { width: number; height: number };
  /** Outline box of the product in the frame. */
  outline: FrameRect;
  fits: FormatFit[];
  /** Whether the formats, not the fill wished for, set the distance. */
  heldByFormats: boolean;
  /** Depth of the nearest and farthest corner from the entrance pupil along the axis, m. */
  nearM: number;
  farM: number;
}

/** Steps that bring the outline into the middle; steep, near views of long things take the most. */
const MOST_AIMINGS = 40;
/** Farthest camera tried, m. */
const FARTHEST_M = 60;

/**
 * Places a camera at a tilt so that the product is centred and fills the part of the frame wished for, or as much of
 * it as leaves every format room: exact perspective of the eight corners of its bounds, with the lens drawn out by
 * close focus. The distance is found by halving, since the product only shrinks on the way back.
 * @throws {DomainError} a product without size
 * Source: docs/physics/camera.md
 */
export function placeCamera(wish: CameraWish): PlacedCamera {
  const { low, high } = wish.product;
  const size = Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  requireDomain(size > 0 && Number.isFinite(size), 'the product has a size');
  const nearest = size / 2 + 1.05 * (wish.lens.focalLengthM / wish.lens.pupilRatio);
  const filled = (distanceM: number) => {
    const { width, height } = stand(wish, distanceM).fill;
    return Math.max(width, height) <= wish.fillPart;
  };
  const byFill = halve(nearest, FARTHEST_M, filled);
  const atFill = stand(wish, byFill);
  if (atFill.fits.every(({ crop }) => crop !== null)) return { ...atFill, heldByFormats: false };
  const byFormats = halve(byFill, FARTHEST_M, (distanceM) =>
    stand(wish, distanceM).fits.every(({ crop }) => crop !== null),
  );
  return { ...stand(wish, byFormats), heldByFormats: true };
}

/** Shortest distance from which a condition holds that, once met, stays met. */
function halve(from: number, to: number, holds: (distanceM: number) => boolean): number {
  if (holds(from)) return from;
  let [low, high] = [from, to];
  for (let i = 0; i < 50; i++) {
    const middle = (low + high) / 2;
    if (holds(middle)) high = middle;
    else low = middle;
  }
  return high;
}

/** The camera at a distance, with the product's outline in the middle of the frame. */
function stand(wish: CameraWish, distanceM: number): Omit<PlacedCamera, 'heldByFormats'> {
  const { low, high } = wish.product;
  const corners = cornersOf(wish.product);
  const tilt = radians(wish.tiltDeg);
  const forward: Vector = [0, Math.cos(tilt), -Math.sin(tilt)];
  let aim: Vector = scale(add(low, high), 0.5);
  let camera = cameraAt(wish, aim, forward, distanceM, corners);
  let outline = outlineOf(viewOf(camera), corners);
  for (let i = 0; i < MOST_AIMINGS; i++) {
    const view = viewOf(camera);
    const across = (outline.left + outline.right) / 2 - 0.5;
    const down = (outline.top + outline.bottom) / 2 - 0.5;
    if (Math.abs(across) + Math.abs(down) < 1e-9) break;
    // By the nearest corner, which moves most in the frame: a larger step would swing past.
    const stepM = 2 * Math.min(...depthsOf(camera.positionM, forward, corners));
    aim = add(
      aim,
      add(
        scale(view.right, stepM * across * view.halfWidth),
        scale(view.up, -stepM * down * view.halfHeight),
      ),
    );
    camera = cameraAt(wish, aim, forward, distanceM, corners);
    outline = outlineOf(viewOf(camera), corners);
  }
  const depths = depthsOf(camera.positionM, forward, corners);
  return {
    camera,
    distanceM,
    fill: { width: outline.right - outline.left, height: outline.bottom - outline.top },
    outline,
    fits: wish.formats.map((format) => fitFormat(outline, format, wish.body)),
    nearM: Math.min(...depths),
    farM: Math.max(...depths),
  };
}

function cameraAt(
  { body, lens, fNumber }: CameraWish,
  aim: Vector,
  forward: Vector,
  distanceM: number,
  corners: readonly Vector[],
): Camera {
  const positionM = add(aim, scale(forward, -distanceM));
  const depths = depthsOf(positionM, forward, corners);
  const [near, far] = [Math.min(...depths), Math.max(...depths)];
  // Halves the blur of front and back alike; never closer than the lens can form an image.
  const focusM = Math.max((2 * near * far) / (near + far), 1.02 * lens.focalLengthM);
  return {
    body,
    lens,
    positionM,
    aimM: aim,
    rollDeg: 0,
    focusM,
    fNumber,
    shutterS: 1 / 125,
    iso: 100,
    whiteBalanceK: 5500,
    depthOfField: false,
    crops: [],
  };
}

const depthsOf = (origin: Vector, forward: Vector, corners: readonly Vector[]) =>
  corners.map((corner) => Math.max(1e-6, dot(subtract(corner, origin), forward)));

export function cornersOf({ low, high }: Bounds): Vector[] {
  return Array.from(
    { length: 8 },
    (_, i): Vector => [i & 1 ? high[0] : low[0], i & 2 ? high[1] : low[1], i & 4 ? high[2] : low[2]],
  );
}

/** Box round points in the frame; what lies behind the camera makes it endless. */
export function outlineOf(view: View, points: readonly Vector[]): FrameRect {
  const outline = { left: Infinity, top: Infinity, right: -Infinity, bottom: -Infinity };
  for (const point of points) {
    const at = projectPoint(view, point);
    if (!at) return { left: -1e3, top: -1e3, right: 1e3, bottom: 1e3 };
    outline.left = Math.min(outline.left, at[0]);
    outline.right = Math.max(outline.right, at[0]);
    outline.top = Math.min(outline.top, at[1]);
    outline.bottom = Math.max(outline.bottom, at[1]);
  }
  return outline;
}

/** Bounds of two things together. */
export const joinBounds = (a: Bounds, b: Bounds): Bounds => ({
  low: [Math.min(a.low[0], b.low[0]), Math.min(a.low[1], b.low[1]), Math.min(a.low[2], b.low[2])],
  high: [Math.max(a.high[0], b.high[0]), Math.max(a.high[1], b.high[1]), Math.max(a.high[2], b.high[2])],
});
