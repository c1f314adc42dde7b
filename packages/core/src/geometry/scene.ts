import type {
  Backdrop,
  Bench,
  BoxProduct,
  Light,
  OpaqueMaterial,
  Product,
  Room,
  SetDocument,
  Sheet,
  Vector,
} from '@fendrix/contract';
import { BLACK_CLOTH, type Emitter, lampEmitter, softboxEmitter } from '../photometry/emitter.js';
import { radians } from '../units/angle.js';
import { add, scale, turnUpright } from '../units/vector.js';
import { aimFrame } from './frame.js';
import { PrimitiveList, type PrimitiveTable, type Sides } from './primitives.js';
import { type Medium, type Surface, SurfaceList } from './surface.js';
import { addTurned } from './turned.js';

/** Something with a name that can be hit by a ray. */
export interface Thing {
  kind: 'light' | 'sheet' | 'product' | 'bench' | 'backdrop' | 'room';
  /** Tag of a light or sheet, id of a product, otherwise the kind or the wall's name. */
  key: string;
  name: string;
}

/** A set document as traced: exact primitives, surfaces, emitters. Made for one geometry, read only. */
export interface Scene {
  things: Thing[];
  table: PrimitiveTable;
  surfaces: Surface[];
  media: Medium[];
  emitters: Emitter[];
  /** Number of films: one for each light, in the document's order. */
  lightCount: number;
  /** Lights that shine from beyond everything; indices of lights. */
  surrounds: number[];
}

/** Air left under a product, so that its foot and the paper are two surfaces, m. */
export const FOOT_GAP_M = 1e-4;
/** Thickness of sweep paper: the bench top lies this far below z = 0, m. */
export const PAPER_M = 5e-4;

/** Builds the traced scene of a valid set document. @throws {DomainError} more than 31 clear materials */
export function buildScene(set: SetDocument): Scene {
  const builder = new SceneBuilder();
  builder.addLiquids(set.products);
  set.lights.forEach((light, index) => {
    builder.addLight(light, index);
  });
  for (const sheet of set.sheets) builder.addSheet(sheet);
  for (const product of set.products) builder.addProduct(product);
  if (set.backdrop) builder.addBackdrop(set.backdrop);
  if (set.bench) builder.addBench(set.bench, set.backdrop?.kind === 'sweep');
  if (set.room) builder.addRoom(set.room, set.mark.heightAboveFloorM);
  return builder.finish(set.lights.length);
}

class SceneBuilder {
  private readonly list = new PrimitiveList();
  private readonly surfaces = new SurfaceList();
  private readonly things: Thing[] = [];
  private readonly emitters: Emitter[] = [];
  private readonly surrounds: number[] = [];

  finish(lightCount: number): Scene {
    return {
      things: this.things,
      table: this.list.pack(),
      surfaces: this.surfaces.surfaces,
      media: this.surfaces.media,
      emitters: this.emitters,
      lightCount,
      surrounds: this.surrounds,
    };
  }

  /** Liquids take the low places among the media, so that glass wins where they overlap. */
  addLiquids(products: readonly Product[]): void {
    for (const product of products) {
      if (product.kind !== 'turned' || !product.hollow?.liquid) continue;
      this.surfaces.addMedium(product.hollow.liquid.material, 'liquid');
    }
  }

  addLight(light: Light, index: number): void {
    if (light.kind === 'surround') {
      this.surrounds.push(index);
      return;
    }
    const sides: Sides = {
      ...this.sides('light', light.tag, light.name, BLACK_CLOTH, BLACK_CLOTH),
      emitter: this.emitters.length,
    };
    if (light.kind === 'bare-lamp') {
      this.emitters.push(lampEmitter(light, index));
      this.list.ball(light.positionM, light.radiusM, sides);
    } else {
      this.emitters.push(softboxEmitter(light, index));
      this.addRectangle(light, sides);
    }
  }

  addSheet(sheet: Sheet): void {
    const name = `${sheet.kind} ${sheet.tag}, ${sheet.name}`;
    this.addRectangle(sheet, this.sides('sheet', sheet.tag, name, sheet.front, sheet.back));
  }

  addProduct(product: Product): void {
    const thing = this.thing('product', product.id, product.name);
    const foot = add(product.positionM, [0, 0, FOOT_GAP_M]);
    if (product.kind === 'turned') addTurned(this.list, this.surfaces, product, foot, thing);
    else this.addBoxProduct(product, foot, thing);
  }

  addBackdrop(backdrop: Backdrop): void {
    const { material, widthM, heightM } = backdrop;
    const sides = this.sides('backdrop', 'backdrop', 'backdrop', material, material);
    if (backdrop.kind === 'panel') {
      const right = turnUpright([widthM, 0, 0], radians(backdrop.turnDeg));
      const corner = add(backdrop.centreM, add(scale(right, -0.5), [0, 0, -heightM / 2]));
      this.list.quad(
        corner,
        right,
        [0, 0, heightM],
        turnUpright([0, -1, 0], radians(backdrop.turnDeg)),
        sides,
      );
      return;
    }
    const { frontM, backM, radiusM } = backdrop;
    const bendStart = backM - radiusM;
    const left = -widthM / 2;
    this.list.quad([left, frontM, 0], [widthM, 0, 0], [0, bendStart - frontM, 0], [0, 0, 1], sides);
    this.list.bend(bendStart, radiusM, radiusM, left, -left, sides);
    if (heightM - radiusM > 1e-6) {
      this.list.quad([left, backM, radiusM], [widthM, 0, 0], [0, 0, heightM - radiusM], [0, -1, 0], sides);
    }
  }

  addBench(bench: Bench, underPaper: boolean): void {
    const sides = this.sides('bench', 'bench', 'bench', bench.material, bench.material);
    const top = underPaper ? -PAPER_M : 0;
    const [x, y] = bench.centreM;
    this.addBox([x, y, top - bench.thicknessM], bench.widthM, bench.depthM, bench.thicknessM, 0, sides);
  }

  addRoom(room: Room, markHeightM: number): void {
    const x0 = -room.markFromLeftM;
    const y0 = -room.markFromFrontM;
    const z0 = -markHeightM;
    const { widthM: w, depthM: d, heightM: h } = room;
    const wall = (
      name: string,
      corner: Vector,
      u: Vector,
      v: Vector,
      facing: Vector,
      material: OpaqueMaterial,
    ) => this.list.quad(corner, u, v, facing, this.sides('room', name, name, material, material));
    wall('left wall', [x0, y0, z0], [0, d, 0], [0, 0, h], [1, 0, 0], room.walls);
    wall('right wall', [x0 + w, y0, z0], [0, d, 0], [0, 0, h], [-1, 0, 0], room.walls);
    wall('wall behind the camera', [x0, y0, z0], [w, 0, 0], [0, 0, h], [0, 1, 0], room.walls);
    wall('wall behind the set', [x0, y0 + d, z0], [w, 0, 0], [0, 0, h], [0, -1, 0], room.walls);
    wall('floor', [x0, y0, z0], [w, 0, 0], [0, d, 0], [0, 0, 1], room.floor);
    wall('ceiling', [x0, y0, z0 + h], [w, 0, 0], [0, d, 0], [0, 0, -1], room.ceiling);
  }

  private addBoxProduct(product: BoxProduct, foot: Vector, thing: number): void {
    const surface = this.surfaces.add(product.material);
    const sides: Sides = { thing, front: surface, back: surface };
    const { widthM, depthM, heightM, turnDeg } = product;
    this.addBox(foot, widthM, depthM, heightM, radians(turnDeg), sides);
  }

  /** A box by the centre of its underside, normals outwards. */
  private addBox(foot: Vector, w: number, d: number, h: number, turnRad: number, sides: Sides): void {
    const right = turnUpright([w, 0, 0], turnRad);
    const deep = turnUpright([0, d, 0], turnRad);
    const high: Vector = [0, 0, h];
    const corner = add(foot, scale(add(right, deep), -0.5));
    const out = (v: Vector) => scale(v, -1);
    this.list.quad(corner, right, high, out(deep), sides);
    this.list.quad(add(corner, deep), right, high, deep, sides);
    this.list.quad(corner, deep, high, out(right), sides);
    this.list.quad(add(corner, right), deep, high, right, sides);
    this.list.quad(corner, right, deep, out(high), sides);
    this.list.quad(add(corner, high), right, deep, high, sides);
  }

  private addRectangle(
    thing: { positionM: Vector; aimM: Vector; rollDeg: number; widthM: number; heightM: number },
    sides: Sides,
  ): void {
    const frame = aimFrame(thing.positionM, thing.aimM, thing.rollDeg);
    const u = scale(frame.right, thing.widthM);
    const v = scale(frame.up, thing.heightM);
    const corner = add(thing.positionM, scale(add(u, v), -0.5));
    this.list.quad(corner, u, v, frame.forward, sides);
  }

  private sides(
    kind: Thing['kind'],
    key: string,
    name: string,
    front: OpaqueMaterial,
    back: OpaqueMaterial,
  ): Sides {
    return {
      thing: this.thing(kind, key, name),
      front: this.surfaces.add(front),
      back: this.surfaces.add(back),
    };
  }

  private thing(kind: Thing['kind'], key: string, name: string): number {
    return this.things.push({ kind, key, name }) - 1;
  }
}
