/**
 * The bounding tree as the kernel walks it: nodes of eight boxes over packs of four primitives of a kind, in 32-bit
 * numbers. Compiled by AssemblyScript only.
 */
import { packBall, packCone, packFlat, packTriangle } from './packs';
import { BALL, CONE, FLAT, SceneTables, STRIDE, TRIANGLE } from './tables';

/** Boxes of a node. */
const BOXES = 8;
/** Bytes of a row of planes of a node, one for each box. */
export const PLANES: usize = 32;
/** Bytes of a node: six rows of 32-bit planes (least x y z, most x y z), then references. */
export const NODE: usize = 224;
export const REFERENCES: usize = 192;
/** Bytes of a pack: its rows (packs.ts), four primitives, kind, lanes in use, 1 at the last of a leaf, whole lanes. */
export const PACK: usize = 240;
export const PRIMITIVES: usize = 208;
export const PACK_KIND: usize = 224;
export const LANES: usize = 228;
export const LAST: usize = 232;
export const PLAIN: usize = 236;

export class WideTree {
  nodes: usize = 0;
  /** Packs, leaf after leaf; a leaf is known by -1 - its first pack. */
  packs: usize = 0;
  /** Largest coordinate of the scene, m. */
  extent: f32 = 0;
  private made: i32 = 0;
  private packed: i32 = 0;
  private tables: SceneTables;
  private children: usize = 0;
  private kinds: usize = 0;
  private data: usize = 0;

  constructor(tables: SceneTables) {
    this.tables = tables;
    this.children = changetype<usize>(tables.children);
    this.kinds = changetype<usize>(tables.kind);
    this.data = changetype<usize>(tables.data);
    this.nodes = aligned(<usize>(tables.children.length / 2 + 2) * NODE);
    // No leaf has more packs than primitives, nor fewer than one.
    this.packs = aligned(<usize>(tables.count + tables.leaves.length / 2 + 1) * PACK);
    if (tables.count > 0) {
      for (let i = 0; i < 12; i++) {
        const plane = f32(Math.abs(tables.boxes[i]));
        if (plane > this.extent) this.extent = plane;
      }
      this.widen(0);
    }
  }

  /**
   * Makes a node of up to eight children out of a binary node, by opening the largest inner child until there are
   * as many; returns its index.
   */
  private widen(node: i32): i32 {
    const index = this.made++;
    const at = this.nodes + <usize>index * NODE;
    const boxes = this.tables.boxes;
    // The children so far: their references, and where their boxes are.
    const child = new StaticArray<i32>(BOXES);
    const box = new StaticArray<i32>(BOXES);
    let filled = 2;
    for (let side = 0; side < 2; side++) {
      child[side] = load<i32>(this.children + (<usize>(2 * node + side) << 2));
      box[side] = node * 12 + side * 6;
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
      box[largest] = opened * 12;
      child[filled] = load<i32>(this.children + (<usize>(2 * opened + 1) << 2));
      box[filled] = opened * 12 + 6;
      filled++;
    }
    for (let i = 0; i < filled; i++) this.place(at, i, boxes, box[i]);
    for (let i = filled; i < BOXES; i++) {
      for (let row = 0; row < 6; row++) {
        store<f32>(at + (<usize>(row * BOXES + i) << 2), row < 3 ? Infinity : -Infinity);
      }
      store<i32>(at + REFERENCES + (<usize>i << 2), -1);
    }
    for (let i = 0; i < filled; i++) {
      const reference = child[i] >= 0 ? this.widen(child[i]) : this.packLeaf(-1 - child[i]);
      store<i32>(at + REFERENCES + (<usize>i << 2), reference);
    }
    return index;
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
      const d = this.data + <usize>primitive * (STRIDE * 8);
      let plain = kind === TRIANGLE;
      if (kind === FLAT) plain = packFlat(at, lane, d);
      else if (kind === TRIANGLE) packTriangle(at, lane, d);
      else if (kind === CONE) packCone(at, lane, d);
      else packBall(at, lane, d);
      store<i32>(at + PRIMITIVES + (<usize>lane << 2), primitive);
      lane++;
      store<i32>(at, (1 << lane) - 1, LANES);
      if (plain) store<i32>(at, load<i32>(at, PLAIN) | (1 << (lane - 1)), PLAIN);
    }
  }

  private beginPack(kind: i32): usize {
    const at = this.packs + <usize>this.packed * PACK;
    this.packed++;
    memory.fill(at, 0, PACK);
    store<i32>(at, kind, PACK_KIND);
    return at;
  }

  private place(at: usize, slot: i32, boxes: Float64Array, from: i32): void {
    for (let row = 0; row < 3; row++) {
      const low = boxes[from + row];
      const high = boxes[from + row + 3];
      // An empty box of the binary tree is turned inside out and stays so.
      const pad = low <= high ? 1e-6 * (1 + Math.max(Math.abs(low), Math.abs(high))) : 0;
      store<f32>(at + (<usize>(row * BOXES + slot) << 2), f32(low - pad));
      store<f32>(at + (<usize>((row + 3) * BOXES + slot) << 2), f32(high + pad));
    }
  }
}

/** Room on a 16-byte boundary. */
export function aligned(bytes: usize): usize {
  return (heap.alloc(bytes + 16) + 15) & ~15;
}

function halfArea(boxes: Float64Array, at: i32): f64 {
  const x = Math.max(0, boxes[at + 3] - boxes[at]);
  const y = Math.max(0, boxes[at + 4] - boxes[at + 1]);
  const z = Math.max(0, boxes[at + 5] - boxes[at + 2]);
  return x * y + y * z + z * x;
}
