import type { Backdrop, Bench, OpaqueMaterial, Product, Room, SetDocument } from '@fendrix/contract';
import { channelsOf } from '../photometry/channels.js';
import type { Emitter } from '../photometry/emitter.js';
import { radians } from '../units/angle.js';
import { type Pose, standingPose } from '../units/frame.js';
import { add, scale, turnUpright } from '../units/vector.js';
import { liesOnTable } from './backdrop.js';
import { SceneParts, type Thing } from './builder.js';
import { addCameraBody, addPerson, addStand } from './bystanders.js';
import { addLight } from './lights.js';
import { type PrimitiveTable, wallPiece } from './primitives.js';
import { addProduct } from './products/addProduct.js';
import { addBox } from './products/boxes.js';
import { addSheet } from './sheets.js';
import type { Medium, Surface } from './surface.js';

export type { Thing } from './builder.js';
export { FOOT_GAP_M } from './products/addProduct.js';

/** A set document as traced: exact primitives, surfaces, emitters. Made for one geometry, read only. */
export interface Scene {
  things: Thing[];
  table: PrimitiveTable;
  surfaces: Surface[];
  media: Medium[];
  emitters: Emitter[];
  /** Number of films, see `channelsOf`. */
  channelCount: number;
  /** Film of each channel for level less upright light, see `SceneTables.planeChannel`; -1 where there is none. */
  planeChannel: Int32Array;
  /** Lights that shine from beyond everything; indices of channels. */
  surrounds: number[];
}

/** Thickness of sweep paper: the bench top lies this far below z = 0, m. */
export const PAPER_M = 5e-4;

/**
 * Builds the traced scene of a valid set document.
 * @throws {DomainError} more than 31 clear materials
 */
export function buildScene(set: SetDocument): Scene {
  const parts = new SceneParts();
  const emitters: Emitter[] = [];
  const surrounds: number[] = [];
  addLiquids(parts, set.products);
  const channels = channelsOf(set);
  const planeChannel = Int32Array.from(channels, (channel, index) =>
    channel.stokes === 'all' && channels[index + 1]?.stokes === 'plane' ? index + 1 : -1,
  );
  set.lights.forEach((light, index) => {
    const place = (part: string) => channels.findIndex((c) => c.light === index && c.part === part);
    const whole = place('whole');
    if (light.kind === 'surround') surrounds.push(whole);
    else addLight(parts, emitters, light, whole, place('sun'));
  });
  for (const sheet of set.sheets) addSheet(parts, sheet);
  for (const product of set.products) addProduct(parts, product);
  addCameraBody(parts, set.camera, set);
  for (const person of set.people) addPerson(parts, person, set);
  for (const held of [...set.lights, ...set.sheets]) addStand(parts, held, set);
  if (set.backdrop) addBackdrop(parts, set.backdrop);
  if (set.bench) addBench(parts, set.bench, liesOnTable(set.backdrop));
  if (set.room) addRoom(parts, set.room, set.mark.heightAboveFloorM);
  return {
    things: parts.things,
    table: parts.list.pack(),
    surfaces: parts.surfaces.surfaces,
    media: parts.surfaces.media,
    emitters,
    channelCount: channels.length,
    planeChannel,
    surrounds,
  };
}

/** Liquids take the low places among the media, so that glass wins where they overlap. */
function addLiquids(parts: SceneParts, products: readonly Product[]): void {
  for (const product of products) {
    if (product.kind !== 'turned' || !product.hollow?.liquid) continue;
    parts.surfaces.addMedium(product.hollow.liquid.material, 'liquid');
  }
}

function addBackdrop(parts: SceneParts, backdrop: Backdrop): void {
  const { material, widthM, heightM } = backdrop;
  const thing = parts.thing('backdrop', 'backdrop', 'background');
  const sides = parts.sides(thing, material);
  if (backdrop.kind === 'panel') {
    const right = turnUpright([widthM, 0, 0], radians(backdrop.turnDeg));
    const corner = add(backdrop.centreM, add(scale(right, -0.5), [0, 0, -heightM / 2]));
    const facing = turnUpright([0, -1, 0], radians(backdrop.turnDeg));
    parts.list.flat(corner, right, [0, 0, heightM], facing, sides);
    return;
  }
  const { frontM, backM } = backdrop;
  const left = -widthM / 2;
  const lying = (toM: number, of: typeof sides) =>
    parts.list.flat([left, frontM, 0], [widthM, 0, 0], [0, toM - frontM, 0], [0, 0, 1], of);
  const upright = (fromM: number) =>
    parts.list.flat([left, backM, fromM], [widthM, 0, 0], [0, 0, heightM - fromM], [0, -1, 0], sides);
  if (backdrop.kind === 'boards') {
    lying(backM, parts.sides(thing, backdrop.lyingMaterial));
    upright(0);
    return;
  }
  const { radiusM } = backdrop;
  const bendStart = backM - radiusM;
  lying(bendStart, sides);
  // The bend is a quarter of a tube that lies across: behind and below its axis.
  const tube: Pose = { origin: [left, bendStart, radiusM], x: [0, 1, 0], y: [0, 0, 1], z: [1, 0, 0] };
  const arc = { bearingRad: Math.PI / 4, halfWidthRad: Math.PI / 4 };
  parts.list.cone(tube, { ...wallPiece(radiusM, 0, widthM), arc, inwards: true }, sides);
  if (heightM - radiusM > 1e-6) upright(radiusM);
}

function addBench(parts: SceneParts, bench: Bench, underPaper: boolean): void {
  const sides = parts.sides(parts.thing('bench', 'bench', 'table'), bench.material);
  const top = underPaper ? -PAPER_M : 0;
  const [x, y] = bench.centreM;
  const pose = standingPose([x, y, top - bench.thicknessM], 0);
  addBox(parts, pose, bench.widthM, bench.depthM, bench.thicknessM, sides);
}

function addRoom(parts: SceneParts, room: Room, markHeightM: number): void {
  const wall = (name: string, material: OpaqueMaterial) =>
    parts.sides(parts.thing('room', name, name), material);
  parts.list.room(
    [-room.markFromLeftM, -room.markFromFrontM, -markHeightM],
    [room.widthM, room.depthM, room.heightM],
    [
      wall('left wall', room.walls),
      wall('right wall', room.walls),
      wall('wall behind the camera', room.walls),
      wall('wall behind the set', room.walls),
      wall('floor', room.floor),
      wall('ceiling', room.ceiling),
    ],
  );
}
