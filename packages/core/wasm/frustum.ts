/**
 * What rays of the camera through a block of the picture may meet, as a leaf or a node of their own: primitives whose
 * boxes stand out of the block's pyramid, and those that the middle ray passes farther off than any other strays from it,
 * are left out once for all. Compiled by AssemblyScript only.
 */
import { rowsOf, testPack } from './packs';
import { BALL, CONE, FLAT, TRIANGLE, VIEW_FORWARD, VIEW_HALF_HEIGHT, VIEW_HALF_WIDTH, VIEW_ORIGIN, VIEW_RIGHT, VIEW_UP, RAY_DIRECTION, RAY_FROM, RAY_ORIGIN, RAY_STRIDE } from './layouts';
import { ORIGIN, REACH, SLACK, WIDE_RAY, widenRay } from './wideRay';
import {
  aligned,
  BOXES,
  LANES,
  LAST,
  NODE,
  PACK,
  PACK_BOX,
  PACK_KIND,
  PLANES,
  PRIMITIVES,
  RAGGED,
  REFERENCES,
  SPARE_PACKS,
  WideTree,
} from './wideTree';

/** Bytes of a side of the pyramid: outward normal x y z and reach, four times each, then places of the nearest rows. */
const SIDE: usize = 80;
const SIDE_REACH: usize = 48;
const ROWS: usize = 64;
/** Left, right, bottom, top, and what lies behind the lens. */
const SIDES: usize = 5;
/** The pyramid is larger by this, m and part of the coordinates: more than 32-bit numbers round. */
const ROUNDED: f64 = 1e-5;

/** Nodes that may wait: seven a level. */
const STACK = 512;
/** So many packs are tested one after the other; more have their boxes tested first. */
const CHAINED = 2;
/** More primitives than these are found faster by the tree. */
const MOST = 4 * SPARE_PACKS;

export class Frustum {
  private tree: WideTree;
  private sides: usize = aligned(SIDES * SIDE);
  /** The ray through the middle; how far others stray from it for each metre. */
  private ray: StaticArray<f64> = new StaticArray<f64>(RAY_STRIDE);
  private wide: usize = aligned(WIDE_RAY);
  private strays: f32 = 0;
  /** By how much the pyramid is larger, m. */
  private room: f64 = 0;
  private stack: usize = aligned(STACK * 4);
  /** Of each primitive that may be met: its pack and its lane there. */
  private found: usize = aligned(MOST * 8);
  private count: i32 = 0;

  constructor(tree: WideTree) {
    this.tree = tree;
  }

  /**
   * Takes up a block of the picture, by its edges from 0 to 1.
   * @param view see `writeView`; rays start at its origin
   * @returns where its rays start in the tree: at a leaf of their own, or at the root where that would be too large
   */
  open(view: StaticArray<f64>, left: f64, right: f64, top: f64, bottom: f64): i32 {
    this.room = ROUNDED * (1 + f64(this.tree.extent) + Math.abs(view[VIEW_ORIGIN]) + Math.abs(view[VIEW_ORIGIN + 1]) + Math.abs(view[VIEW_ORIGIN + 2]));
    this.setSides(view, left, right, top, bottom);
    this.setMiddle(view, left, right, top, bottom);
    if (!this.find()) return 0;
    return this.packUp();
  }

  private setSides(view: StaticArray<f64>, left: f64, right: f64, top: f64, bottom: f64): void {
    const width = view[VIEW_HALF_WIDTH];
    const height = view[VIEW_HALF_HEIGHT];
    this.setSide(0, view, -1, 0, (2 * left - 1) * width);
    this.setSide(1, view, 1, 0, (1 - 2 * right) * width);
    this.setSide(2, view, 0, -1, (1 - 2 * bottom) * height);
    this.setSide(3, view, 0, 1, (2 * top - 1) * height);
    this.setSide(4, view, 0, 0, -1);
  }

  /** The side `across` right + `up` up + `along` forward, through the origin. */
  private setSide(side: i32, view: StaticArray<f64>, across: f64, up: f64, along: f64): void {
    const at = this.sides + <usize>side * SIDE;
    let from = this.room;
    for (let a = 0; a < 3; a++) {
      const normal = across * view[VIEW_RIGHT + a] + up * view[VIEW_UP + a] + along * view[VIEW_FORWARD + a];
      from += normal * view[VIEW_ORIGIN + a];
      v128.store(at + (<usize>a << 4), f32x4.splat(f32(normal)));
      store<i32>(at + (<usize>a << 2), normal > 0 ? a : a + 3, ROWS);
    }
    v128.store(at, f32x4.splat(f32(from)), SIDE_REACH);
  }

  private setMiddle(view: StaticArray<f64>, left: f64, right: f64, top: f64, bottom: f64): void {
    const across = (left + right - 1) * view[VIEW_HALF_WIDTH];
    const up = (1 - top - bottom) * view[VIEW_HALF_HEIGHT];
    const over = 1 / Math.sqrt(1 + across * across + up * up);
    for (let a = 0; a < 3; a++) {
      this.ray[RAY_ORIGIN + a] = view[VIEW_ORIGIN + a];
      this.ray[RAY_DIRECTION + a] =
        over * (view[VIEW_FORWARD + a] + across * view[VIEW_RIGHT + a] + up * view[VIEW_UP + a]);
    }
    this.ray[RAY_FROM] = 0;
    widenRay(this.wide, this.ray, this.tree.extent);
    v128.store(this.wide, f32x4.splat(Infinity), REACH);
    const width = (right - left) * view[VIEW_HALF_WIDTH];
    const height = (bottom - top) * view[VIEW_HALF_HEIGHT];
    this.strays = f32(Math.sqrt(width * width + height * height));
  }

  /** Notes down all primitives that may be met; false where there are too many. */
  private find(): bool {
    const nodes = this.tree.nodes;
    const stack = this.stack;
    let top = stack;
    let reference = 0;
    this.count = 0;
    while (true) {
      if (reference >= 0) {
        const node = nodes + <usize>reference * NODE;
        let outside = this.outside(node, PLANES) | (this.outside(node + 16, PLANES) << 4);
        // Boxes that are none are turned inside out.
        outside |= i32x4.bitmask(f32x4.gt(v128.load(node), v128.load(node, 3 * PLANES)));
        outside |= i32x4.bitmask(f32x4.gt(v128.load(node, 16), v128.load(node, 3 * PLANES + 16))) << 4;
        for (let mask = ~outside & 255; mask !== 0; mask &= mask - 1) {
          store<i32>(top, load<i32>(node + (<usize>ctz(mask) << 2), REFERENCES));
          top += 4;
        }
      } else if (!this.findInLeaf(-1 - reference)) return false;
      if (top === stack) return true;
      top -= 4;
      reference = load<i32>(top);
    }
  }

  private findInLeaf(first: i32): bool {
    let pack = first;
    while (true) {
      const at = this.tree.packs + <usize>pack * PACK;
      const boxes = this.tree.packBoxes + <usize>pack * PACK_BOX;
      let mask = ~this.outside(boxes, 16) & load<i32>(at, LANES);
      if (mask !== 0) mask &= this.nearMiddle(at, boxes);
      for (; mask !== 0; mask &= mask - 1) {
        if (this.count === MOST) return false;
        const place = this.found + (<usize>this.count << 3);
        store<i32>(place, pack);
        store<i32>(place, ctz(mask), 4);
        this.count++;
      }
      if (load<i32>(at, LAST) !== 0) return true;
      pack++;
    }
  }

  /** Lanes of a pack that the middle ray passes no farther off than others may stray from it as far as the lane reaches. */
  private nearMiddle(pack: usize, boxes: usize): i32 {
    const wide = this.wide;
    let far2 = f32x4.splat(0);
    for (let row: usize = 0; row < 48; row += 16) {
      const origin = v128.load(wide + row, ORIGIN);
      const low = f32x4.abs(f32x4.sub(v128.load(boxes + row), origin));
      const far = f32x4.pmax(low, f32x4.abs(f32x4.sub(v128.load(boxes + row, 48), origin)));
      far2 = f32x4.add(far2, f32x4.mul(far, far));
    }
    const more = f32x4.mul(f32x4.splat(this.strays), f32x4.sqrt(far2));
    v128.store(wide, f32x4.add(f32x4.splat(f32(this.room)), more), SLACK);
    return testPack(load<i32>(pack, PACK_KIND), pack, wide) & 15;
  }

  /** Those of four boxes that stand wholly outside of one of the sides. @param row bytes from row to row of planes */
  private outside(boxes: usize, row: usize): i32 {
    let mask = 0;
    for (let side: usize = 0; side < SIDES * SIDE; side += SIDE) {
      const at = this.sides + side;
      const x = f32x4.mul(v128.load(at), v128.load(boxes + <usize>load<i32>(at, ROWS) * row));
      const y = f32x4.mul(v128.load(at, 16), v128.load(boxes + <usize>load<i32>(at, ROWS + 4) * row));
      const z = f32x4.mul(v128.load(at, 32), v128.load(boxes + <usize>load<i32>(at, ROWS + 8) * row));
      mask |= i32x4.bitmask(f32x4.gt(f32x4.add(x, f32x4.add(y, z)), v128.load(at, SIDE_REACH)));
    }
    return mask;
  }

  /** Lays out what was found behind the tree, kind by kind: as a leaf, or as leaves under a node; 0 if there is too much. */
  private packUp(): i32 {
    const first = this.tree.packed;
    let packs = this.packKind(FLAT, 0);
    packs = this.packKind(TRIANGLE, packs);
    packs = this.packKind(CONE, packs);
    packs = this.packKind(BALL, packs);
    if (packs > SPARE_PACKS) return 0;
    if (packs === 0) {
      this.tree.clearPack(first, BALL);
      packs = 1;
    }
    if (packs <= CHAINED) {
      store<i32>(this.tree.packs + <usize>(first + packs - 1) * PACK, 1, LAST);
      return -1 - first;
    }
    for (let i = 0; i < packs; i++) store<i32>(this.tree.packs + <usize>(first + i) * PACK, 1, LAST);
    const node = this.tree.made;
    if (packs <= BOXES) this.setNode(node, 0, packs);
    else {
      const parts = (packs + BOXES - 1) / BOXES;
      const at = this.tree.clearNode(node);
      for (let i = 0; i < parts; i++) {
        const from = i * BOXES;
        this.setNode(node + 1 + i, from, min(packs, from + BOXES));
        for (let pack = from; pack < min(packs, from + BOXES); pack++) this.growBox(at, i, pack);
        store<i32>(at + (<usize>i << 2), node + 1 + i, REFERENCES);
      }
    }
    return node;
  }

  /** Makes a node over packs that were laid out. */
  private setNode(node: i32, from: i32, end: i32): void {
    const at = this.tree.clearNode(node);
    for (let pack = from; pack < end; pack++) {
      this.growBox(at, pack - from, pack);
      store<i32>(at + (<usize>(pack - from) << 2), -1 - this.tree.packed - pack, REFERENCES);
    }
  }

  /** Makes a box of a node hold a pack. */
  private growBox(node: usize, slot: i32, pack: i32): void {
    const boxes = this.tree.packBoxes + <usize>(this.tree.packed + pack) * PACK_BOX;
    for (let row: usize = 0; row < 3; row++) {
      const least = node + row * PLANES + (<usize>slot << 2);
      let planes = f32x4.pmin(v128.load32_splat(least), v128.load(boxes + (row << 4)));
      planes = f32x4.pmin(planes, v128.shuffle<f32>(planes, planes, 2, 3, 2, 3));
      planes = f32x4.pmin(planes, v128.shuffle<f32>(planes, planes, 1, 1, 1, 1));
      store<f32>(least, f32x4.extract_lane(planes, 0));
      const most = least + 3 * PLANES;
      planes = f32x4.pmax(v128.load32_splat(most), v128.load(boxes + ((row + 3) << 4)));
      planes = f32x4.pmax(planes, v128.shuffle<f32>(planes, planes, 2, 3, 2, 3));
      planes = f32x4.pmax(planes, v128.shuffle<f32>(planes, planes, 1, 1, 1, 1));
      store<f32>(most, f32x4.extract_lane(planes, 0));
    }
  }

  /** @param packs laid out so far @returns those laid out then, more than `SPARE_PACKS` where there is no room */
  private packKind(kind: i32, packs: i32): i32 {
    const rows = rowsOf(kind);
    let lane = 4;
    for (let i = 0; i < this.count; i++) {
      const place = this.found + (<usize>i << 3);
      const from = this.tree.packs + <usize>load<i32>(place) * PACK;
      if (load<i32>(from, PACK_KIND) !== kind) continue;
      if (lane === 4) {
        if (packs >= SPARE_PACKS) return SPARE_PACKS + 1;
        this.tree.clearPack(this.tree.packed + packs, kind);
        packs++;
        lane = 0;
      }
      this.copyLane(this.tree.packed + packs - 1, lane, load<i32>(place), load<i32>(place, 4), rows);
      lane++;
    }
    return packs;
  }

  private copyLane(toPack: i32, lane: i32, fromPack: i32, fromLane: i32, rows: usize): void {
    const to = this.tree.packs + <usize>toPack * PACK + (<usize>lane << 2);
    const from = this.tree.packs + <usize>fromPack * PACK + (<usize>fromLane << 2);
    for (let row: usize = 0; row < rows; row += 16) store<i32>(to + row, load<i32>(from + row));
    store<i32>(to, load<i32>(from, PRIMITIVES), PRIMITIVES);
    const toBox = this.tree.packBoxes + <usize>toPack * PACK_BOX + (<usize>lane << 2);
    const fromBox = this.tree.packBoxes + <usize>fromPack * PACK_BOX + (<usize>fromLane << 2);
    for (let row: usize = 0; row < PACK_BOX; row += 16) store<f32>(toBox + row, load<f32>(fromBox + row));
    const at = this.tree.packs + <usize>toPack * PACK;
    const ragged = (load<i32>(this.tree.packs + <usize>fromPack * PACK, RAGGED) >> fromLane) & 1;
    store<i32>(at, load<i32>(at, LANES) | (1 << lane), LANES);
    store<i32>(at, load<i32>(at, RAGGED) | (ragged << lane), RAGGED);
  }
}
