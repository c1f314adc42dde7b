import type { Backdrop, Bench, Room, Vector } from '@fendrix/contract';
import { lensFigures } from '../optics/lens.js';
import type { FrameRect } from '../render/view.js';
import { rayThrough, type View, viewOf } from '../render/view.js';
import { degrees } from '../units/angle.js';
import { add, distance, scale } from '../units/vector.js';
import { behindCameraM, CAMERA_BODY_M } from './cameraRoom.js';
import type { PlacedCamera } from './placeCamera.js';

/** What is round the product, and the limits of the people and things that hold the camera. */
export interface Surroundings {
  room?: Room | undefined;
  /** Top of the bench over the floor, m. */
  benchHeightM: number;
  bench?: Bench | undefined;
  backdrop?: Backdrop | undefined;
  /** Room kept behind the camera for a person, m. */
  personM: number;
  /** Nearest part may look larger than the farthest by this much. */
  mostNearFarRatio: number;
  /** Highest the support reaches over the floor, m. */
  highestM?: number | undefined;
}

/** One thing checked: whether it is met, the figure, the limit, and what would give. */
export interface PlaceCheck {
  what:
    | 'near-limit'
    | 'room-behind'
    | 'ceiling'
    | 'support'
    | 'flatness'
    | 'ground'
    | 'backdrop'
    | 'verticals';
  met: boolean;
  /** Measured and wanted, in the unit of the check: m, ratio, or degrees for verticals. */
  value: number;
  limit: number;
  /** Focal length, m, that would meet it from farther or nearer; where a lens is the cure. */
  focalLengthM?: number;
}

/** A lens proposed meets its limit by this much, since perspective changes a little with distance. */
const LENS_MARGIN = 1.01;

/**
 * Checks a placed camera against room, lens, bench and backdrop. Near limit and room are checked where the frame wants
 * the camera (`wished`), the rest where it stands.
 * Ground and backdrop: by the rays through the frame's corners; the value is the width they need, m, and how much of
 * it there is. Flatness: depth of the farthest corner over that of the nearest, the ratio of their sizes in the
 * picture. Verticals: tilt of the sensor; at 0 they stay parallel.
 */
export function checkPlace(placed: PlacedCamera, around: Surroundings): PlaceCheck[] {
  const { camera } = placed;
  const view = viewOf(camera);
  const checks: PlaceCheck[] = [];
  const { closestFocusM, focalLengthM } = camera.lens;
  if (closestFocusM !== undefined) {
    const { wished } = placed;
    const value = wished.focusM + lensFigures(wished).imageDistanceM;
    const met = value >= closestFocusM - 1e-6;
    checks.push({
      what: 'near-limit',
      met,
      value,
      limit: closestFocusM,
      ...(met ? {} : longer(value, closestFocusM)),
    });
  }
  if (around.room) checks.push(...roomChecks(placed, around.room, around));
  if (around.highestM !== undefined) {
    const value = camera.positionM[2] + around.benchHeightM;
    checks.push({ what: 'support', met: value <= around.highestM, value, limit: around.highestM });
  }
  checks.push(flatness(placed, around.mostNearFarRatio));
  const tiltDeg = degrees(Math.asin(Math.min(1, Math.max(-1, -view.forward[2]))));
  checks.push({ what: 'verticals', met: tiltDeg < 0.5 || tiltDeg > 89.5, value: tiltDeg, limit: 0 });
  checks.push(...groundChecks(view, around));
  return checks;

  function longer(value: number, limit: number) {
    return { focalLengthM: (LENS_MARGIN * focalLengthM * limit) / value };
  }
}

function roomChecks(
  { nearM, farM, wished: camera }: PlacedCamera,
  room: Room,
  { benchHeightM, personM }: Surroundings,
): PlaceCheck[] {
  const view = viewOf(camera);
  const [, y, z] = view.origin;
  const distanceM = distance(camera.positionM, camera.aimM);
  const level = Math.hypot(view.forward[0], view.forward[1]);
  const behind = behindCameraM(degrees(Math.acos(Math.min(1, level))), personM);
  const free = room.markFromFrontM + y;
  const above = benchHeightM + z + CAMERA_BODY_M;
  return [
    {
      what: 'room-behind',
      met: free >= behind - 1e-6,
      value: free,
      limit: behind,
      ...shorter(behind - free, level),
    },
    {
      what: 'ceiling',
      met: above <= room.heightM + 1e-6,
      value: above,
      limit: room.heightM,
      ...shorter(above - room.heightM, -view.forward[2]),
    },
  ];

  /** The focal length that gives the same frame from so much nearer along a part of the axis. */
  function shorter(tooFarM: number, along: number): { focalLengthM?: number } {
    // The near side sets the size: it is half the depth nearer than the middle.
    const half = (farM - nearM) / 2;
    const nearer = distanceM - tooFarM / Math.max(0.1, along) - half;
    if (!(tooFarM > 0 && nearer > 0)) return {};
    return { focalLengthM: (camera.lens.focalLengthM * nearer) / (LENS_MARGIN * (distanceM - half)) };
  }
}

/** Size ratio of the nearest to the farthest part; the lens that would give the same frame from far enough. */
function flatness({ nearM, farM, distanceM, camera }: PlacedCamera, limit: number): PlaceCheck {
  const value = farM / nearM;
  const half = (farM - nearM) / 2;
  const wantedM = (half * (limit + 1)) / (limit - 1);
  const met = value <= limit;
  return {
    what: 'flatness',
    met,
    value,
    limit,
    ...(met ? {} : { focalLengthM: (LENS_MARGIN * camera.lens.focalLengthM * wantedM) / distanceM }),
  };
}

/** How far the frame reaches on ground and backdrop, against how far they go. */
function groundChecks(view: View, { bench, backdrop }: Surroundings): PlaceCheck[] {
  const ground = backdrop && backdrop.kind !== 'panel' ? backdrop : null;
  const wallY = !backdrop ? null : backdrop.kind === 'panel' ? backdrop.centreM[1] : backdrop.backM;
  const wall: Vector[] = [];
  const floor: Vector[] = [];
  let open = false;
  for (const across of [0, 0.5, 1]) {
    for (const down of [0, 0.5, 1]) {
      const hit = whereRayEnds(view, across, down, wallY);
      if (!hit) open = true;
      else if (hit.onWall) wall.push(hit.point);
      else floor.push(hit.point);
    }
  }
  const checks: PlaceCheck[] = [];
  if (backdrop && (wall.length > 0 || open)) {
    const half = backdrop.widthM / 2;
    const centreX = backdrop.kind === 'panel' ? backdrop.centreM[0] : 0;
    const top = backdrop.kind === 'panel' ? backdrop.centreM[2] + backdrop.heightM / 2 : backdrop.heightM;
    const width = 2 * Math.max(0, ...wall.map(([x]) => Math.abs(x - centreX)));
    const tall = wall.every(([, , z]) => z <= top);
    checks.push({ what: 'backdrop', met: width <= 2 * half && tall && !open, value: width, limit: 2 * half });
  }
  if (floor.length > 0 && (ground || bench)) {
    const limit = ground ? ground.widthM : (bench as Bench).widthM;
    const front = ground ? ground.frontM : (bench as Bench).centreM[1] - (bench as Bench).depthM / 2;
    const back = ground ? ground.backM : (bench as Bench).centreM[1] + (bench as Bench).depthM / 2;
    const centreX = ground ? 0 : (bench as Bench).centreM[0];
    const value = 2 * Math.max(...floor.map(([x]) => Math.abs(x - centreX)));
    const within = floor.every(([, y]) => y >= front && y <= back);
    checks.push({ what: 'ground', met: value <= limit && within, value, limit });
  }
  return checks;
}

function whereRayEnds(view: View, across: number, down: number, wallY: number | null) {
  const direction = new Float64Array(3);
  rayThrough(direction, view, across, down);
  const [dx, dy, dz] = direction as unknown as [number, number, number];
  const toWall = wallY !== null && dy > 1e-9 ? (wallY - view.origin[1]) / dy : Infinity;
  const toFloor = dz < -1e-9 ? -view.origin[2] / dz : Infinity;
  const t = Math.min(toWall, toFloor);
  if (!Number.isFinite(t)) return null;
  return { onWall: toWall < toFloor, point: add(view.origin, scale([dx, dy, dz], t)) };
}

/** Where the corners of a crop lie on the bench top, m from its left and front edge; null where the frame leaves it. */
export function tapeMarks(
  view: View,
  crop: FrameRect,
  bench: Bench,
): ({ fromLeftM: number; fromFrontM: number } | null)[] {
  const left = bench.centreM[0] - bench.widthM / 2;
  const front = bench.centreM[1] - bench.depthM / 2;
  const corners: [number, number][] = [
    [crop.left, crop.top],
    [crop.right, crop.top],
    [crop.right, crop.bottom],
    [crop.left, crop.bottom],
  ];
  return corners.map(([across, down]) => {
    const hit = whereRayEnds(view, across, down, null);
    if (!hit) return null;
    const fromLeftM = hit.point[0] - left;
    const fromFrontM = hit.point[1] - front;
    const within =
      fromLeftM >= 0 && fromLeftM <= bench.widthM && fromFrontM >= 0 && fromFrontM <= bench.depthM;
    return within ? { fromLeftM, fromFrontM } : null;
  });
}
