/**
 * The bounding tree as the kernel walks it: nodes of eight boxes over packs of four primitives of a kind, in 32-bit
 * numbers. Compiled by AssemblyScript only.
 */
import { packBall, packCone, packFlat, packTriangle } from './packs';
import { BALL, BOX_LEAST, BOX_MOST, BOX_STRIDE, CONE, FLAT, NODE_STRIDE, PRIMITIVE_STRIDE, TRIANGLE } from './layouts';
import { SceneTables } from './tables';

/** Boxes of a node. */
export const BOXES = 8;
/** Bytes of a row of planes of a node, one for each box. */
export const PLANES: usize = 32;
/** Bytes of a node: six rows of 32-bit planes (least x y z, most x y z), then references. */
export const NODE: usize = 224;
export const REFERENCES: usize = 192;
/** Bytes of a pack: its rows (packs.ts), four primitives, kind, lanes in use, 1 at the last of a leaf, lanes with limits. */
export const PACK: usize = 320;
export const PRIMITIVES: usize = 288;
export const PACK_KIND: usize = 304;
export const LANES: usize = 308;
export const LAST: usize = 312;
/** Lanes of flat primitives that are less than the whole parallelogram. */
export const RAGGED: usize = 316;
/** Bytes of the boxes of a pack: six rows of planes as in a node, one for each lane. */
export const PACK_BOX: usize = 96;
/** Packs and nodes kept free behind those of the tree, see frustum.ts. */
export const SPARE_PACKS = 24;
const SPARE_NODES = 4;

export class WideTree {
  nodes: usize = 0;
  /** Packs, leaf after leaf; a leaf is known by -1 - its first pack. */
  packs: usize = 0;
  packBoxes: usize = 0;
  /** Largest coordinate of the scene, m. */
  extent: f32 = 0;
  /** Nodes of the tree. */
  made: i32 = 0;
  /** Packs of the tree. */
  packed: i32 = 0;
  private tables: SceneTables;
  private children: usize = 0;
  private kinds: usize = 0;
  private data: usize = 0;

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.children = changetype<usize>(tables.children);
    this.kinds = changetype<usize>(tables.kind);
    this.data = changetype<usize>(tables.data);
    this.nodes = aligned(<usize>(tables.children.length / 2 + SPARE_NODES) * NODE);
    const packs = <usize>(this.countPacks() + SPARE_PACKS);
    this.packs = aligned(packs * PACK);
    this.packBoxes = aligned(packs * PACK_BOX);
    for (let i = 0; i < NODE_STRIDE; i++) {
      const plane = f32(Math.abs(tables.boxes[i]));
      if (plane > this.extent) this.extent = plane;
    }
    this.widen(0);
  }

  /**
   * Makes a node of up to eight children out of a binary node, by opening the largest inner child until there are
   * as many; returns its index.
   */
  private widen(node: i32): i32 {
    const index = this.made++;
    const at = this.clearNode(index);
    const boxes = this.tables.boxes;
    // The children so far: their references, and where their boxes are.
    const child = new StaticArray<i32>(BOXES);
    const box = new StaticArray<i32>(BOXES);
    let filled = 2;
    for (let side = 0; side < 2; side++) {
      child[side] = load<i32>(this.children + (<usize>(2 * node + side) << 2));
      box[side] = node * NODE_STRIDE + side * BOX_STRIDE;
    }
    while (filled < BOXES) {
      let largest = -1;
      let most: f64 = -1;
      for (let i = 0; i < filled; i++) {
        const area = halfArea(boxes, box[i]);
        if (child[i] >= 0 && area > most) {
          largest = i;
          most = area;
        }
      }
      if (largest < 0) break;
      const opened = child[largest];
      child[largest] = load<i32>(this.children + (<usize>(2 * opened) << 2));
      box[largest] = opened * NODE_STRIDE;
      child[filled] = load<i32>(this.children + (<usize>(2 * opened + 1) << 2));
      box[filled] = opened * NODE_STRIDE + BOX_STRIDE;
      filled++;
    }
    for (let i = 0; i < filled; i++) this.placeBox(at, BOXES, i, boxes, box[i]);
    for (let i = 0; i < filled; i++) {
      const reference = child[i] >= 0 ? this.widen(child[i]) : this.packLeaf(-1 - child[i]);
      store<i32>(at + REFERENCES + (<usize>i << 2), reference);
    }
    return index;
  }

  /** Packs of all leaves: each has some for each kind in it, and one at least. */
  private countPacks(): i32 {
    const leaves = this.tables.leaves;
    const counts = new StaticArray<i32>(4);
    let packs = 0;
    for (let leaf = 0; leaf < leaves.length; leaf += 2) {
      counts.fill(0);
      const end = leaves[leaf] + leaves[leaf + 1];
      for (let i = leaves[leaf]; i < end; i++) {
        counts[load<i32>(this.kinds + (<usize>this.tables.order[i] << 2))]++;
      }
      let own = 0;
      for (let kind = 0; kind < 4; kind++) own += (counts[kind] + 3) >> 2;
      packs += max(1, own);
    }
    return packs;
  }

  /** Empties a node: its boxes are turned inside out; returns where it lies. */
  clearNode(node: i32): usize {
    const at = this.nodes + <usize>node * NODE;
    for (let place: usize = 0; place < REFERENCES; place += 4) {
      store<f32>(at + place, place < 3 * PLANES ? Infinity : -Infinity);
    }
    memory.fill(at + REFERENCES, 0, NODE - REFERENCES);
    return at;
  }

  /** Lays out the packs of a leaf; returns its reference: -1 - the first pack. */
  private packLeaf(leaf: i32): i32 {
    const first = this.packed;
    this.packKind(leaf, FLAT);
    this.packKind(leaf, TRIANGLE);
    this.packKind(leaf, CONE);
    this.packKind(leaf, BALL);
    if (this.packed === first) this.beginPack(BALL);
    store<i32>(this.packs + <usize>(this.packed - 1) * PACK, 1, LAST);
    return -1 - first;
  }

  private packKind(leaf: i32, kind: i32): void {
    const from = this.tables.leaves[2 * leaf];
    const end = from + this.tables.leaves[2 * leaf + 1];
    let lane = 4;
    let at: usize = 0;
    for (let i = from; i < end; i++) {
      const primitive = this.tables.order[i];
      const own = load<i32>(this.kinds + (<usize>primitive << 2));
      if (own !== kind) continue;
      if (lane === 4) {
        at = this.beginPack(kind);
        lane = 0;
      }
      const d = this.data + <usize>primitive * (PRIMITIVE_STRIDE * 8);
      if (kind === FLAT) {
        if (packFlat(at, lane, d)) store<i32>(at, load<i32>(at, RAGGED) | (1 << lane), RAGGED);
      } else if (kind === TRIANGLE) packTriangle(at, lane, d);
      else if (kind === CONE) packCone(at, lane, d);
      else packBall(at, lane, d);
      store<i32>(at + PRIMITIVES + (<usize>lane << 2), primitive);
      this.placeBox(this.packBoxes + <usize>(this.packed - 1) * PACK_BOX, 4, lane, this.tables.bounds, BOX_STRIDE * primitive);
      lane++;
      store<i32>(at, (1 << lane) - 1, LANES);
    }
  }

  private beginPack(kind: i32): usize {
    return this.clearPack(this.packed++, kind);
  }

  /** Empties a pack for primitives of a kind; returns where it lies. */
  clearPack(pack: i32, kind: i32): usize {
    const at = this.packs + <usize>pack * PACK;
    memory.fill(at, 0, PACK);
    store<i32>(at, kind, PACK_KIND);
    const boxes = this.packBoxes + <usize>pack * PACK_BOX;
    for (let place: usize = 0; place < PACK_BOX; place += 4) {
      store<f32>(boxes + place, place < PACK_BOX / 2 ? Infinity : -Infinity);
    }
    return at;
  }

  /** Writes a box among `slots` side by side. */
  private placeBox(at: usize, slots: i32, slot: i32, boxes: StaticArray<f64>, from: i32): void {
    for (let row = 0; row < 3; row++) {
      const low = boxes[from + BOX_LEAST + row];
      const high = boxes[from + BOX_MOST + row];
      // An empty box of the binary tree is turned inside out and stays so.
      const pad = low <= high ? 1e-6 * (1 + Math.max(Math.abs(low), Math.abs(high))) : 0;
      store<f32>(at + (<usize>(row * slots + slot) << 2), f32(low - pad));
      store<f32>(at + (<usize>((row + 3) * slots + slot) << 2), f32(high + pad));
    }
  }
}

/** Room on a 16-byte boundary. */
export function aligned(bytes: usize): usize {
  return (heap.alloc(bytes + 16) + 15) & ~15;
}

function halfArea(boxes: StaticArray<f64>, at: i32): f64 {
  const x = Math.max(0, boxes[at + BOX_MOST] - boxes[at + BOX_LEAST]);
  const y = Math.max(0, boxes[at + BOX_MOST + 1] - boxes[at + BOX_LEAST + 1]);
  const z = Math.max(0, boxes[at + BOX_MOST + 2] - boxes[at + BOX_LEAST + 2]);
  return x * y + y * z + z * x;
}
