import type { Camera, Light, OpaqueMaterial, Person, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { aimedPose, aimFrame, type Pose, placed } from '../units/frame.js';
import { add, normalise, scale } from '../units/vector.js';
import type { SceneParts } from './builder.js';
import { cornerOf, type Sides } from './primitives.js';
import { addFrustum } from './sheets.js';

/**
 * What stands on the set for other reasons than its light, but mirrors in the products and shades them all the same:
 * the camera with its tripod, people, the stands of lights and sheets. Plain bodies of usual sizes, dark and matte.
 */

const BLACK_PLASTIC: OpaqueMaterial = { kind: 'matte', reflectance: 0.04 };
const LENS_GLASS: OpaqueMaterial = { kind: 'matte', reflectance: 0.01 };
const SKIN: OpaqueMaterial = { kind: 'matte', reflectance: [0.42, 0.3, 0.24] };

/** The lens begins this far behind the point the picture is seen from, so that it never sees itself, m. */
const BEHIND_PUPIL_M = 1e-3;
const BODY_DEPTH_M = 0.06;
const LEG_M = 0.014;
const POLE_M = 0.0125;
const LEG_SPREAD_M = 0.42;
/** Looking or shining down steeper than this takes an arm: the upright stands aside. */
const STEEP = 0.87;
const ARM_M = 0.9;
/** From the face of a light or sheet to its upright, m. */
const BEHIND_FACE_M = 0.12;

/** Whether a point lies over the bench, whose top then is its floor. */
function floorUnder({ bench, mark }: Ground, [x, y]: Vector): number {
  if (!bench) return -mark.heightAboveFloorM;
  const [cx, cy] = bench.centreM;
  const over = Math.abs(x - cx) < bench.widthM / 2 && Math.abs(y - cy) < bench.depthM / 2;
  return over ? 0 : -mark.heightAboveFloorM;
}

/** What things stand on. */
export type Ground = Pick<SetDocument, 'bench' | 'mark'>;

/** The camera body, its lens and, where it has one, its tripod; nothing without a rig. */
export function addCameraBody(parts: SceneParts, camera: Camera, ground: Ground): void {
  const { rig } = camera;
  if (!rig) return;
  const thing = parts.thing('camera', 'camera', 'the camera');
  const black = parts.sides(thing, BLACK_PLASTIC);
  const pose = aimedPose(camera.positionM, camera.aimM, camera.rollDeg);
  const back: Pose = { ...pose, z: scale(pose.z, -1), y: scale(pose.y, -1) };
  parts.list.disc(back, BEHIND_PUPIL_M, rig.lensDiameterM / 2, 0, parts.sides(thing, LENS_GLASS), -1);
  const radius = rig.lensDiameterM / 2;
  addFrustum(parts, back, radius, radius, BEHIND_PUPIL_M, rig.lensLengthM, black);
  addBlock(parts, back, rig.bodyWidthM, rig.bodyHeightM, rig.lensLengthM, black);
  if (!rig.tripod) return;
  const head = placed(back, [0, 0, rig.lensLengthM + BODY_DEPTH_M / 2]);
  const stand = parts.sides(parts.thing('camera', 'tripod', 'the tripod'), BLACK_PLASTIC);
  const { forward } = aimFrame(camera.positionM, camera.aimM, camera.rollDeg);
  if (Math.abs(forward[2]) > STEEP) {
    addArm(parts, head, [0, -1, 0], ground, stand);
    return;
  }
  const low = -ground.mark.heightAboveFloorM;
  const apex: Vector = [head[0], head[1], head[2] - rig.bodyHeightM / 2 - 0.03];
  const height = apex[2] - low;
  for (const bearing of [Math.PI / 2, Math.PI / 2 + (2 * Math.PI) / 3, Math.PI / 2 - (2 * Math.PI) / 3]) {
    const spread = 0.45 * height;
    const foot: Vector = [apex[0] + spread * Math.cos(bearing), apex[1] - spread * Math.sin(bearing), low];
    addBar(parts, apex, foot, LEG_M, stand);
  }
}

/** A person: legs, trunk, shoulders and head. */
export function addPerson(parts: SceneParts, person: Person, { mark }: Ground): void {
  const thing = parts.thing('person', person.name, person.name);
  const clothes = parts.sides(thing, person.clothes);
  const [x, y] = person.positionM;
  const h = person.heightM;
  const pose: Pose = {
    origin: [x, y, -mark.heightAboveFloorM],
    x: [1, 0, 0],
    y: [0, 1, 0],
    z: [0, 0, 1],
  };
  const part = (from: number, to: number, low: number, high: number) =>
    addFrustum(parts, pose, from * h, to * h, low * h, high * h, clothes);
  part(0.07, 0.1, 0, 0.48);
  part(0.1, 0.125, 0.48, 0.8);
  part(0.125, 0.04, 0.8, 0.87);
  parts.list.ball([x, y, pose.origin[2] + 0.935 * h], 0.065 * h, parts.sides(thing, SKIN));
}

/** The stand of a light or sheet, where it has one. */
export function addStand(parts: SceneParts, held: Light | Sheet, ground: Ground): void {
  if (held.kind === 'surround' || !held.stand) return;
  const sides = parts.sides(parts.thing('stand', held.tag, `the stand of ${held.tag}`), BLACK_PLASTIC);
  const pole = uprightOf(held, ground);
  if (!pole) {
    addArm(parts, held.positionM, [held.positionM[0] < 0 ? -1 : 1, 0, 0], ground, sides);
    return;
  }
  addPole(parts, pole.top, ground, sides);
  addBar(parts, held.positionM, pole.top, POLE_M, sides);
}

/** Ends of the upright of a stand, behind what it holds and down to the floor or bench; null where it takes an arm. */
export function uprightOf(
  held: Exclude<Light, { kind: 'surround' }> | Sheet,
  ground: Ground,
): { top: Vector; foot: Vector } | null {
  const aim = 'aimM' in held ? held.aimM : ([held.positionM[0], held.positionM[1], -1e3] as Vector);
  const { forward } = aimFrame(held.positionM, aim);
  if (Math.abs(forward[2]) > STEEP) return null;
  const top = add(held.positionM, scale(normalise([forward[0], forward[1], 0]), -BEHIND_FACE_M));
  return { top, foot: [top[0], top[1], floorUnder(ground, top)] };
}

/** A level arm to an upright aside. */
function addArm(parts: SceneParts, from: Vector, towards: Vector, ground: Ground, sides: Sides): void {
  const end = add(from, scale(towards, ARM_M));
  addBar(parts, add(from, [0, 0, 0.03]), add(end, [0, 0, 0.03]), POLE_M, sides);
  addPole(parts, add(end, [0, 0, 0.06]), ground, sides);
}

/** An upright from the floor (or the bench under it) on three short legs. */
function addPole(parts: SceneParts, top: Vector, ground: Ground, sides: Sides): void {
  const low = floorUnder(ground, top);
  if (top[2] - low < 0.02) return;
  addBar(parts, [top[0], top[1], low], top, POLE_M, sides);
  if (top[2] - low < 0.8) return;
  for (const bearing of [0, (2 * Math.PI) / 3, (4 * Math.PI) / 3]) {
    const foot: Vector = [
      top[0] + LEG_SPREAD_M * Math.cos(bearing),
      top[1] + LEG_SPREAD_M * Math.sin(bearing),
      low + 0.01,
    ];
    addBar(parts, [top[0], top[1], low + 0.4], foot, POLE_M, sides);
  }
}

/** A round bar between two points. */
function addBar(parts: SceneParts, from: Vector, to: Vector, radiusM: number, sides: Sides): void {
  const along = aimedPose(from, to);
  const length = Math.hypot(to[0] - from[0], to[1] - from[1], to[2] - from[2]);
  if (length < 1e-4) return;
  addFrustum(parts, along, radiusM, radiusM, 0, length, sides);
}

/** The camera's body: a block behind the lens. */
function addBlock(
  parts: SceneParts,
  pose: Pose,
  width: number,
  height: number,
  from: number,
  sides: Sides,
): void {
  const x = scale(pose.x, width);
  const y = scale(pose.y, height);
  const z = scale(pose.z, BODY_DEPTH_M);
  const middle = placed(pose, [0, 0, from + BODY_DEPTH_M / 2]);
  const faces: [Vector, Vector, Vector][] = [
    [z, x, y],
    [x, y, z],
    [y, z, x],
  ];
  for (const [away, u, v] of faces) {
    for (const sign of [-1, 1]) {
      const out = scale(away, sign / 2);
      parts.list.flat(cornerOf(add(middle, out), u, v), u, v, out, sides);
    }
  }
}
