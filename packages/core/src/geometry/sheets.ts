import type { Sheet, SheetOf, Vector } from '@fendrix/contract';
import { strewLeaves } from '../photometry/leaves.js';
import { radians } from '../units/angle.js';
import { aimedPose, aimFrame, type Pose, placed, turned } from '../units/frame.js';
import { add, normalise, scale } from '../units/vector.js';
import type { SceneParts } from './builder.js';
import { cornerOf, type FlatLimits, type Sides, wallPiece } from './primitives.js';

/** Pieces that the curve of a dome is cut into. */
const DOME_PIECES = 16;

/** With its middle this low over the table a sheet lies on it, m. */
const LYING_M = 0.01;

/** Whether a sheet lies on the table, which holds it up. */
export const liesOnTable = ({ positionM }: Pick<Sheet, 'positionM'>): boolean => positionM[2] < LYING_M;

/** Adds a sheet of any form; its front faces the aim point, or is the inside of what is hollow. */
export function addSheet(parts: SceneParts, sheet: Sheet): void {
  const thing = parts.thing('sheet', sheet.tag, `${sheet.kind} ${sheet.tag}, ${sheet.name}`);
  const sides = parts.sides(thing, sheet.front, sheet.back);
  switch (sheet.kind) {
    case 'disc': {
      const pose = aimedPose(sheet.positionM, sheet.aimM, sheet.rollDeg);
      parts.list.disc(pose, 0, sheet.diameterM / 2, (sheet.holeDiameterM ?? 0) / 2, sides);
      break;
    }
    case 'fold':
      addFold(parts, sheet, sides);
      break;
    case 'curve':
      addCurve(parts, sheet, sides);
      break;
    case 'cone':
      addCone(parts, sheet, sides);
      break;
    case 'tent':
      addTent(parts, sheet, sides);
      break;
    case 'leaves':
      addLeaves(parts, sheet, sides);
      break;
    case 'cut-out':
      addCutOut(parts, sheet, sides);
      break;
    default:
      addFacing(parts, aimedPose(sheet.positionM, sheet.aimM, sheet.rollDeg), sheet, sides);
  }
}

/**
 * A rectangle round the origin of a pose that faces its z, as sheets and softboxes do. Its pattern runs from left
 * to right as seen from the front, and up.
 */
export function addFacing(
  parts: SceneParts,
  pose: Pose,
  size: { widthM: number; heightM: number; holeDiameterM?: number | undefined },
  sides: Sides,
  limits?: FlatLimits,
): void {
  const u = scale(pose.x, -size.widthM);
  const v = scale(pose.y, -size.heightM);
  const hole = size.holeDiameterM
    ? { innerRho2: (size.holeDiameterM / 2) ** 2, scaleA: size.widthM / 2, scaleB: size.heightM / 2 }
    : {};
  parts.list.flat(cornerOf(pose.origin, u, v), u, v, pose.z, sides, { ...hole, ...limits });
}

function addFold(parts: SceneParts, sheet: SheetOf<'fold'>, sides: Sides): void {
  const { right, up, forward } = aimFrame(sheet.positionM, sheet.aimM, sheet.rollDeg);
  const half = radians(sheet.openingDeg / 2);
  const high = scale(up, sheet.heightM);
  const foot = add(sheet.positionM, scale(high, -0.5));
  for (const side of [1, -1]) {
    const leaf = add(scale(right, side * Math.sin(half)), scale(forward, Math.cos(half)));
    const facing = add(scale(right, -side * Math.cos(half)), scale(forward, Math.sin(half)));
    parts.list.flat(foot, scale(leaf, sheet.widthM), high, facing, sides);
  }
}

function addCurve(parts: SceneParts, sheet: SheetOf<'curve'>, sides: Sides): void {
  const { right, up, forward } = aimFrame(sheet.positionM, sheet.aimM, sheet.rollDeg);
  const bend = radians(sheet.bendDeg);
  const radius = sheet.widthM / bend;
  const axis = add(add(sheet.positionM, scale(forward, radius)), scale(up, -sheet.heightM / 2));
  const pose: Pose = { origin: axis, x: right, y: forward, z: up };
  const arc = { bearingRad: 0, halfWidthRad: bend / 2 };
  parts.list.cone(pose, { ...wallPiece(radius, 0, sheet.heightM), arc, inwards: true }, sides);
}

function addCone(parts: SceneParts, sheet: SheetOf<'cone'>, sides: Sides): void {
  const pose = aimedPose(sheet.positionM, sheet.aimM, sheet.rollDeg);
  addFrustum(parts, pose, sheet.diameterM / 2, sheet.farDiameterM / 2, 0, sheet.lengthM, sides);
}

/** An open cone round the z axis of a pose; its front is the inside. */
export function addFrustum(
  parts: SceneParts,
  pose: Pose,
  fromRadiusM: number,
  toRadiusM: number,
  fromZ: number,
  toZ: number,
  sides: Sides,
): void {
  const slope = (toRadiusM - fromRadiusM) / (toZ - fromZ);
  const size = Math.hypot(1, slope);
  const end = (r: number, z: number) => ({ r, z, nr: 1 / size, nz: -slope / size });
  const piece = { lower: end(fromRadiusM, fromZ), upper: end(toRadiusM, toZ), inwards: true };
  parts.list.cone(pose, piece, sides);
}

function addTent(parts: SceneParts, tent: SheetOf<'tent'>, sides: Sides): void {
  const { positionM, aimM } = tent;
  const level: Vector = [aimM[0] - positionM[0], aimM[1] - positionM[1], 0];
  const front = normalise(Math.hypot(level[0], level[1]) > 1e-9 ? level : [0, -1, 0]);
  // Seen from the front: x right, y away, z up.
  const pose: Pose = { origin: positionM, x: [-front[1], front[0], 0], y: scale(front, -1), z: [0, 0, 1] };
  if (tent.form === 'dome') addDome(parts, tent, pose, sides);
  else addBoxTent(parts, tent, pose, sides);
}

function addBoxTent(parts: SceneParts, tent: SheetOf<'tent'>, pose: Pose, sides: Sides): void {
  const { widthM: w, depthM: d, heightM: h, opening } = tent;
  const wall = (corner: Vector, u: Vector, v: Vector, facing: Vector) =>
    parts.list.flat(placed(pose, corner), turned(pose, u), turned(pose, v), turned(pose, facing), sides);
  const x = w / 2;
  const y = d / 2;
  wall([-x, y, 0], [w, 0, 0], [0, 0, h], [0, -1, 0]);
  wall([-x, -y, 0], [0, d, 0], [0, 0, h], [1, 0, 0]);
  wall([x, -y, 0], [0, d, 0], [0, 0, h], [-1, 0, 0]);
  wall([-x, -y, h], [w, 0, 0], [0, d, 0], [0, 0, -1]);
  if (tent.floor) wall([-x, -y, FLOOR_CLOTH_M], [w, 0, 0], [0, d, 0], [0, 0, 1]);
  const slotW = Math.min(opening.widthM, w);
  const slotH = Math.min(opening.heightM, h);
  const rest = (w - slotW) / 2;
  if (rest > 1e-6) {
    wall([-x, -y, 0], [rest, 0, 0], [0, 0, h], [0, 1, 0]);
    wall([x - rest, -y, 0], [rest, 0, 0], [0, 0, h], [0, 1, 0]);
  }
  if (h - slotH > 1e-6) wall([-slotW / 2, -y, slotH], [slotW, 0, 0], [0, 0, h - slotH], [0, 1, 0]);
}

/** Cloth on the bench lies this high, so that the two are two surfaces, m. */
const FLOOR_CLOTH_M = 2e-4;

/** Half an ellipsoid; the slot is an arc cut out of the pieces below its top. */
function addDome(parts: SceneParts, tent: SheetOf<'tent'>, pose: Pose, sides: Sides): void {
  const radius = tent.widthM / 2;
  const { heightM: height, opening } = tent;
  const at = (angle: number) => {
    const nr = Math.cos(angle) / radius;
    const nz = Math.sin(angle) / height;
    const size = Math.hypot(nr, nz);
    return { r: radius * Math.cos(angle), z: height * Math.sin(angle), nr: nr / size, nz: nz / size };
  };
  const slotAngle = Math.asin(Math.min(1, opening.heightM / height));
  const cuts = [
    slotAngle,
    ...Array.from({ length: DOME_PIECES + 1 }, (_, i) => (i * Math.PI) / 2 / DOME_PIECES),
  ]
    .sort((a, b) => a - b)
    .filter((angle, i, all) => i === 0 || angle - (all[i - 1] as number) > 1e-6);
  for (let i = 0; i + 1 < cuts.length; i++) {
    const lower = at(cuts[i] as number);
    const upper = at(cuts[i + 1] as number);
    const piece = { lower, upper: { ...upper, r: Math.max(0, upper.r) }, inwards: true };
    if (upper.z > opening.heightM + 1e-6) {
      parts.list.cone(pose, piece, sides);
      continue;
    }
    const half = Math.asin(Math.min(1, opening.widthM / (lower.r + upper.r)));
    const arc = { bearingRad: Math.PI, halfWidthRad: Math.PI - half };
    parts.list.cone(pose, { ...piece, arc }, sides);
  }
  if (tent.floor) parts.list.disc(pose, FLOOR_CLOTH_M, radius, 0, sides);
}

function addLeaves(parts: SceneParts, sheet: SheetOf<'leaves'>, sides: Sides): void {
  const pose = aimedPose(sheet.positionM, sheet.aimM, sheet.rollDeg);
  const leaves = strewLeaves(sheet.count, sheet.leafM, sheet.widthM, sheet.heightM, sheet.seed);
  leaves.forEach((leaf, index) => {
    const c = Math.cos(leaf.angleRad);
    const s = Math.sin(leaf.angleRad);
    // Each lies a little before the last, so that no two coincide.
    const middle = placed(pose, [leaf.x, leaf.y, index * 1e-4]);
    const u = turned(pose, [c * leaf.lengthM, s * leaf.lengthM, 0]);
    const v = turned(pose, [-s * leaf.widthM, c * leaf.widthM, 0]);
    parts.list.flat(cornerOf(middle, u, v), u, v, pose.z, sides, { outerRho2: 1 });
  });
}

/** Slabs between the points of the outline, each of two triangles. */
function addCutOut(parts: SceneParts, sheet: SheetOf<'cut-out'>, sides: Sides): void {
  const pose = aimedPose(sheet.positionM, sheet.aimM, sheet.rollDeg);
  const middle = cutOutSize(sheet).heightM / 2;
  /** Right and up as seen from the front. */
  const at = (right: number, heightM: number) => placed(pose, [-right, middle - heightM, 0]);
  for (let i = 0; i + 1 < sheet.outline.length; i++) {
    const [low, high] = [sheet.outline[i], sheet.outline[i + 1]];
    if (!low || !high) continue;
    const [a, b] = [at(-low.halfWidthM, low.heightM), at(low.halfWidthM, low.heightM)];
    const [c, d] = [at(high.halfWidthM, high.heightM), at(-high.halfWidthM, high.heightM)];
    parts.list.triangle(a, b, c, sides);
    parts.list.triangle(a, c, d, sides);
  }
}

/** Width at its widest and height of a sheet that is cut to an outline, m. */
export const cutOutSize = ({ outline }: Pick<SheetOf<'cut-out'>, 'outline'>) => ({
  widthM: 2 * Math.max(...outline.map(({ halfWidthM }) => halfWidthM)),
  heightM: outline.at(-1)?.heightM ?? 0,
});
