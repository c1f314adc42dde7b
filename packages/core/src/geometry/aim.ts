import type { SetDocument, Sheet, Vector } from '@fendrix/contract';
import { requireDomain } from '../errors.js';
import { degrees, radians } from '../units/angle.js';
import { fromStand, toStand } from '../units/bearing.js';
import {
  add,
  cross,
  distance,
  dot,
  length,
  normalise,
  scale,
  subtract,
  turnUpright,
} from '../units/vector.js';
import { productBounds } from './shape.js';

/** Which way something faces, and how far off the point is that it faces. */
export interface Facing {
  /** Level: 0 towards the camera's side, 90 camera right, 180 away from the camera; in (-180, 180], degrees. */
  bearingDeg: number;
  /** Over the level, degrees; 90 straight up. */
  tiltDeg: number;
  /** To the point it faces, m. */
  distanceM: number;
}

/** Which way something at a place faces that is aimed at a point; straight up or down the bearing is 0. */
export function facingOf(positionM: Vector, aimM: Vector): Facing {
  const { bearingDeg, distanceM, heightM } = toStand(subtract(aimM, positionM));
  return {
    bearingDeg: distanceM < 1e-9 ? 0 : bearingDeg,
    tiltDeg: degrees(Math.atan2(heightM, distanceM)),
    distanceM: Math.hypot(distanceM, heightM),
  };
}

/**
 * The point that something at a place is aimed at when it faces that way.
 * @throws {DomainError} a figure is not finite, the distance is not above zero, or the tilt is steeper than upright
 */
export function aimFacing(positionM: Vector, { bearingDeg, tiltDeg, distanceM }: Facing): Vector {
  requireDomain(distanceM > 0, 'what is aimed at lies some way off');
  requireDomain(Math.abs(tiltDeg) <= 90, 'a tilt lies between straight down and straight up');
  const level = distanceM * Math.cos(radians(tiltDeg));
  const heightM = distanceM * Math.sin(radians(tiltDeg));
  return add(positionM, fromStand({ bearingDeg, distanceM: Math.max(0, level), heightM }));
}

/** What something can be made to face, or to stand parallel to. */
export type AimTarget = (typeof POINT_TARGETS)[number] | PlaneTarget;

const POINT_TARGETS = ['product', 'lens'] as const;

/** What has a plane to stand parallel to: background, table, or a flat sheet by its tag. */
type PlaneTarget = 'background' | 'table' | `sheet ${string}`;

const FLAT_SHEETS: ReadonlySet<Sheet['kind']> = new Set([
  'card',
  'flag',
  'frame',
  'roof',
  'disc',
  'leaves',
  'cut-out',
]);

/** What something could face or stand parallel to on this set; itself is not among it. */
export function aimTargets(set: SetDocument, positionM: Vector, aimM: Vector): AimTarget[] {
  return [...POINT_TARGETS, ...planeTargets(set, positionM)].filter(
    (target) => aimTowards(set, positionM, aimM, target) !== null,
  );
}

function planeTargets({ sheets }: SetDocument, positionM: Vector): PlaneTarget[] {
  const others = sheets.filter(
    (sheet) => FLAT_SHEETS.has(sheet.kind) && distance(sheet.positionM, positionM) > 1e-6,
  );
  return ['background', 'table', ...others.map(({ tag }) => `sheet ${tag}` as const)];
}

/**
 * The point that makes something face the nearest product or the lens, or stand parallel to background, table or a
 * flat sheet, on the side that it faces already.
 * @returns null where there is no such thing, or it stands in it
 */
export function aimTowards(
  set: SetDocument,
  positionM: Vector,
  aimM: Vector,
  target: AimTarget,
): Vector | null {
  if (target === 'lens') return apart(positionM, set.camera.positionM);
  if (target === 'product') {
    const middles = set.products
      .map(middleOf)
      .sort((a, b) => distance(a, positionM) - distance(b, positionM));
    return middles[0] ? apart(positionM, middles[0]) : null;
  }
  const normal = normalOf(set, target);
  if (!normal) return null;
  const now = subtract(aimM, positionM);
  return add(positionM, scale(normal, (dot(now, normal) < 0 ? -1 : 1) * length(now)));
}

/** What something faces or stands parallel to now, to a tenth of a millimetre or degree; null for a point of its own. */
export function aimTargetOf(set: SetDocument, positionM: Vector, aimM: Vector): AimTarget | null {
  for (const target of POINT_TARGETS) {
    const point = aimTowards(set, positionM, aimM, target);
    if (point && distance(point, aimM) < 1e-4) return target;
  }
  const way = normalise(subtract(aimM, positionM));
  for (const target of planeTargets(set, positionM)) {
    const normal = normalOf(set, target);
    if (normal && length(cross(way, normal)) < radians(0.1)) return target;
  }
  return null;
}

const apart = (positionM: Vector, point: Vector): Vector | null =>
  distance(positionM, point) > 1e-3 ? point : null;

function middleOf(product: SetDocument['products'][number]): Vector {
  const { low, high } = productBounds(product);
  return scale(add(low, high), 0.5);
}

function normalOf({ backdrop, bench, sheets }: SetDocument, target: PlaneTarget): Vector | null {
  if (target === 'table') return bench ? [0, 0, 1] : null;
  if (target !== 'background') {
    const sheet = sheets.find(({ tag }) => target === `sheet ${tag}`);
    return sheet ? normalise(subtract(sheet.aimM, sheet.positionM)) : null;
  }
  if (!backdrop) return null;
  return backdrop.kind === 'panel' ? normalise(turnUpright([0, 1, 0], radians(backdrop.turnDeg))) : [0, 1, 0];
}
