import type { Camera, CameraBody, CameraLens, Vector } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { type Bounds, cornersOf } from '../geometry/bounds.js';
import { lensFigures } from '../optics/lens.js';
import { type FrameRect, projectPoint, type View, viewOf } from '../render/view.js';
import { radians } from '../units/angle.js';
import { add, dot, scale, subtract } from '../units/vector.js';
import { type Format, type FormatFit, fitFormat } from './frameFit.js';

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
  /** Box that the entrance pupil must stay in, m from the mark: the room less what stands round the camera. */
  within?: Bounds | undefined;
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
  /** Whether the formats, not the fill wished for, set the distance that is wanted. */
  heldByFormats: boolean;
  /** What keeps the camera from where the frame wants it: the room, or the near limit of the lens. */
  heldBy: 'room' | 'near-limit' | null;
  /** The camera where the frame wants it; the same as `camera` where nothing holds it. */
  wished: Camera;
  /** Depth of the nearest and farthest corner from the entrance pupil along the axis, m. */
  nearM: number;
  farM: number;
}

/** Steps that bring the outline into the middle; steep, near views of long things take the most. */
const MOST_AIMINGS = 40;
/** Farthest camera tried, m. */
const FARTHEST_M = 60;

/**
 * Places a camera at a tilt so that the product fills the part of the frame wished for, or as much of it as leaves every
 * format room, and stands in the middle of what margins and words leave free: exact perspective of the eight corners of
 * its bounds, with the lens drawn out by close focus. The distance is found by halving, since the product only shrinks on
 * the way back; then it is kept within the room and the near limit of the lens.
 * @throws {DomainError} a product without size
 * Source: docs/physics/camera.md
 */
export function placeCamera(wish: CameraWish): PlacedCamera {
  const { low, high } = wish.product;
  const size = Math.hypot(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  requireDomain(size > 0 && Number.isFinite(size), 'the product has a size');
  const nearest = size / 2 + 1.05 * (wish.lens.focalLengthM / wish.lens.pupilRatio);
  const filled = (distanceM: number) => {
    const { width, height } = stand(wish, distanceM, MIDDLE).fill;
    return Math.max(width, height) <= wish.fillPart;
  };
  const byFill = halve(nearest, FARTHEST_M, filled);
  const fitting = (distanceM: number) => stand(wish, distanceM, placeInFrame(wish, distanceM));
  const allFit = (distanceM: number) => fitting(distanceM).fits.every(({ crop }) => crop !== null);
  const heldByFormats = !allFit(byFill);
  const wishedM = heldByFormats ? halve(byFill, FARTHEST_M, allFit) : byFill;
  const wished = fitting(wishedM);
  const sharpM = nearLimitM(wish, wishedM);
  const roomM = mostWithin(wish, wished.camera);
  // A wall cannot be moved: it goes before what the lens would want.
  const distanceM = Math.max(nearest, Math.min(roomM, sharpM));
  const heldBy = roomM < wishedM - 1e-6 ? 'room' : sharpM > wishedM + 1e-6 ? 'near-limit' : null;
  const placed = heldBy ? fitting(distanceM) : wished;
  return { ...placed, heldByFormats, heldBy, wished: wished.camera };
}

/** Where in the frame the middle of the product goes, parts. */
interface FramePlace {
  across: number;
  down: number;
}

const MIDDLE: FramePlace = { across: 0.5, down: 0.5 };
/** Places tried across and down, this far apart, parts of the frame. */
const PLACES = 17;
const PLACE_STEP = 0.04;

/**
 * The place in the frame at which the formats lose least: of 17 x 17 places round the middle the one where the smallest of
 * the crops, over the largest of its ratio, is largest; of those the one where the product stands nearest to the middle of
 * what each format leaves free.
 */
function placeInFrame(wish: CameraWish, distanceM: number): FramePlace {
  if (!wish.formats.some(({ copySide, copyPart }) => copySide !== 'none' && copyPart > 0)) return MIDDLE;
  const { width, height } = stand(wish, distanceM, MIDDLE).fill;
  let best = MIDDLE;
  let most = -1;
  let leastOff = Number.POSITIVE_INFINITY;
  for (let i = 0; i < PLACES * PLACES; i++) {
    const across = 0.5 + PLACE_STEP * ((i % PLACES) - (PLACES - 1) / 2);
    const down = 0.5 + PLACE_STEP * (Math.floor(i / PLACES) - (PLACES - 1) / 2);
    const outline = {
      left: across - width / 2,
      right: across + width / 2,
      top: down - height / 2,
      bottom: down + height / 2,
    };
    if (outline.left < 0 || outline.right > 1 || outline.top < 0 || outline.bottom > 1) continue;
    const fits = wish.formats.map((format) => fitFormat(outline, format, wish.body));
    const least = Math.min(...fits.map(({ scale }) => scale));
    // A little towards the middle of the frame, where all else is the same.
    const off =
      fits.reduce((sum, fit) => sum + Math.hypot(fit.off.across, fit.off.down), 0) +
      1e-3 * Math.hypot(across - 0.5, down - 0.5);
    if (least > most + 1e-3 || (least > most - 1e-3 && off < leastOff)) {
      [best, most, leastOff] = [{ across, down }, Math.max(most, least), off];
    }
  }
  return best;
}

/** The distance from which the lens can be focused, m: the one given where it can already. */
function nearLimitM(wish: CameraWish, wishedM: number): number {
  const limit = wish.lens.closestFocusM;
  if (limit === undefined) return wishedM;
  const sharp = (distanceM: number) => {
    const { camera } = stand(wish, distanceM, MIDDLE);
    return camera.focusM + lensFigures(camera).imageDistanceM >= limit;
  };
  return halve(wishedM, FARTHEST_M, sharp);
}

/** The farthest distance from the aim at which the camera is within its box, m, going back along its axis. */
function mostWithin({ within }: CameraWish, { positionM, aimM }: Camera): number {
  if (!within) return Number.POSITIVE_INFINITY;
  const back = subtract(positionM, aimM);
  const length = Math.hypot(...back);
  let most = Number.POSITIVE_INFINITY;
  for (let a = 0; a < 3; a++) {
    const step = (back[a] as number) / length;
    const wall = step > 0 ? within.high[a] : within.low[a];
    if (Math.abs(step) > 1e-9) most = Math.min(most, ((wall as number) - (aimM[a] as number)) / step);
  }
  return most;
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

/** The camera at a distance, with the middle of the product's outline at a place of the frame. */
function stand(
  wish: CameraWish,
  distanceM: number,
  at: FramePlace,
): Omit<PlacedCamera, 'heldByFormats' | 'heldBy' | 'wished'> {
  const { low, high } = wish.product;
  const corners = cornersOf(wish.product);
  const tilt = radians(wish.tiltDeg);
  const forward: Vector = [0, Math.cos(tilt), -Math.sin(tilt)];
  let aim: Vector = scale(add(low, high), 0.5);
  let camera = cameraAt(wish, aim, forward, distanceM, corners);
  let outline = outlineOf(viewOf(camera), corners);
  for (let i = 0; i < MOST_AIMINGS; i++) {
    const view = viewOf(camera);
    const across = (outline.left + outline.right) / 2 - at.across;
    const down = (outline.top + outline.bottom) / 2 - at.down;
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
    focusLocked: false,
    release: 'hand',
    depthOfField: true,
    crops: [],
  };
}

const depthsOf = (origin: Vector, forward: Vector, corners: readonly Vector[]) =>
  corners.map((corner) => Math.max(1e-6, dot(subtract(corner, origin), forward)));

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
