import { BALL, CONE, FLAT, TRIANGLE } from '../engine/layouts.js';
import { WALLS } from '../engine/room.js';
import { type PrimitiveTable, primitiveBounds } from '../geometry/primitives.js';
import { sortByKey } from './sortByKey.js';

/**
 * Binary bounding-volume hierarchy; node 0 is the root. Each inner node keeps the boxes of both its children,
 * so that one visit tests two boxes and knows the nearer one.
 */
export interface BoundingTree {
  /** 12 a node: min x y z, max x y z of the first child, then of the second; padded against rounding. */
  boxes: Float64Array;
  /** 2 a node: index of an inner node, or -1 - index of a leaf. */
  children: Int32Array;
  /** 2 a leaf: first place in `order` and number of primitives. */
  leaves: Int32Array;
  /** Primitive indices, leaf after leaf. */
  order: Int32Array;
  /** 6 a primitive, those of the room too: min x y z, max x y z, not padded. */
  bounds: Float64Array;
}

const BINS = 24;
/** Up to so many primitives every cut between neighbours is tried: bins would part a room, not what stands in it. */
const MOST_SORTED = 256;
const MOST_IN_LEAF = 16;
/** A kernel tests so many primitives of one kind at once: that is a pack. */
const PACK_SIZE = 4;
/** Cost of a subtree that is entered, over that of a pack of flat primitives; measured on the demo sets. */
const NODE_COST = 0.4;
/** Cost of a pack, and of the exact test that some of its primitives need, by kind: FLAT, CONE, BALL, TRIANGLE. */
const PACK_COST = Float64Array.of(1, 2.2, 1, 1);
const EXACT_COST = Float64Array.of(0.1, 0.7, 0.2, 0.2);
/** Kinds of primitive, see engine/tables.ts. */
const KINDS = 4;

/** Builds the tree of all but the room by the surface-area heuristic over binned centroids. Source: Wald 2007. */
export function buildBoundingTree(table: PrimitiveTable): BoundingTree {
  const boxes = boundsOf(table);
  const centroids = [0, 1, 2].map((axis) =>
    Float64Array.from(
      { length: table.count },
      (_, i) => ((boxes[6 * i + axis] as number) + (boxes[6 * i + axis + 3] as number)) / 2,
    ),
  );
  const order = Int32Array.from({ length: table.count }, (_, i) => i).filter((i) => !isWall(table, i));
  const n = order.length;
  // The root of less than two primitives has empty children.
  const size = n + 2;
  const tree: BoundingTree = {
    boxes: new Float64Array(size * 12),
    children: new Int32Array(size * 2),
    leaves: new Int32Array(size * 2),
    order,
    bounds: boxes,
  };
  let nodes = 0;
  let leaves = 0;

  function makeLeaf(from: number, to: number): number {
    tree.leaves[2 * leaves] = from;
    tree.leaves[2 * leaves + 1] = to - from;
    return -1 - leaves++;
  }

  /** Makes the subtree over a range of `order` and returns its reference. */
  function split(from: number, to: number, isRoot: boolean): number {
    const cut =
      to === from || (!isRoot && fitsOnePack(table.kind, order, from, to))
        ? null
        : bestCut({ boxes, centroids, kinds: table.kind, order, from, to });
    let middle = cut ? partition(centroids, order, from, to, cut) : from;
    if (middle <= from || middle >= to) {
      if (!isRoot && to - from <= MOST_IN_LEAF) return makeLeaf(from, to);
      middle = (from + to + 1) >> 1;
    }
    const node = nodes++;
    tree.boxes.set(padded(enclose(boxes, order, from, middle)), node * 12);
    tree.boxes.set(padded(enclose(boxes, order, middle, to)), node * 12 + 6);
    tree.children[2 * node] = from < middle ? split(from, middle, false) : makeLeaf(from, from);
    tree.children[2 * node + 1] = middle < to ? split(middle, to, false) : makeLeaf(to, to);
    return node;
  }

  split(0, n, true);
  return {
    ...tree,
    boxes: tree.boxes.slice(0, 12 * nodes),
    children: tree.children.slice(0, 2 * nodes),
    leaves: tree.leaves.slice(0, 2 * leaves),
  };
}

/** So much may all boxes of a tree grow together, by area, before it is built anew: by the surface-area heuristic a ray then takes about as much longer. */
const MOST_GROWN = 1.25;

/**
 * The tree of a table of which only places have changed since another's was built, as in a drag: the same nodes with new boxes.
 * Of the same table it is the same to the last bit.
 * @param built the other's tree, and the kinds of what is in it
 * @returns null where the tables differ in more than places, or so much has moved that rays are better off with a new tree
 */
export function refittedTree(
  built: Omit<BoundingTree, 'bounds'> & { kind: ArrayLike<number>; room: number },
  table: PrimitiveTable,
): BoundingTree | null {
  const { children, leaves, order, kind, room } = built;
  if (kind.length !== table.count || room !== table.room) return null;
  for (let i = 0; i < table.count; i++) if (kind[i] !== table.kind[i]) return null;
  const bounds = boundsOf(table);
  const boxes = new Float64Array(built.boxes.length);
  // A child stands after its parent.
  for (let at = boxes.length - 6; at >= 0; at -= 6) {
    const child = children[at / 6] as number;
    if (child >= 0) {
      empty(boxes, at);
      for (const own of [12 * child, 12 * child + 6]) if (!isEmpty(boxes, own)) growBy(boxes, at, boxes, own);
      continue;
    }
    const first = leaves[2 * (-1 - child)] as number;
    const count = leaves[2 * (-1 - child) + 1] as number;
    boxes.set(padded(enclose(bounds, order, first, first + count)), at);
  }
  if (areaOfAll(boxes) > MOST_GROWN * areaOfAll(built.boxes)) return null;
  return { boxes, children, leaves, order, bounds };
}

const isEmpty = (boxes: Float64Array, at: number): boolean =>
  !((boxes[at] as number) <= (boxes[at + 3] as number));

/** Of all boxes of a tree. */
function areaOfAll(boxes: Float64Array): number {
  let sum = 0;
  for (let at = 0; at < boxes.length; at += 6) sum += area(boxes.subarray(at, at + 6));
  return sum;
}

function boundsOf(table: PrimitiveTable): Float64Array {
  const bounds = new Float64Array(table.count * 6);
  for (let i = 0; i < table.count; i++) primitiveBounds(table, i, bounds, 6 * i);
  return bounds;
}

const isWall = ({ room }: PrimitiveTable, i: number) => room >= 0 && i >= room && i < room + WALLS;

interface Cut {
  axis: number;
  at: number;
}

function enclose(boxes: Float64Array, order: Int32Array, from: number, to: number): Float64Array {
  const box = new Float64Array(6);
  empty(box, 0);
  for (let i = from; i < to; i++) growBy(box, 0, boxes, 6 * (order[i] as number));
  return box;
}

function area(box: Float64Array): number {
  const x = Math.max(0, (box[3] as number) - (box[0] as number));
  const y = Math.max(0, (box[4] as number) - (box[1] as number));
  const z = Math.max(0, (box[5] as number) - (box[2] as number));
  return x * y + y * z + z * x;
}

/** An empty box stays empty: no ray enters [1, 1, 1] to [-1, -1, -1]. */
function padded(box: Float64Array): Float64Array {
  if (isEmpty(box, 0)) return Float64Array.of(1, 1, 1, -1, -1, -1);
  return box.map((value, i) => {
    const pad = 1e-7 + 1e-9 * Math.abs(value);
    return i < 3 ? value - pad : value + pad;
  });
}

function fitsOnePack(kinds: ArrayLike<number>, order: Int32Array, from: number, to: number): boolean {
  if (to - from > PACK_SIZE) return false;
  const kind = kinds[order[from] as number];
  for (let i = from + 1; i < to; i++) if (kinds[order[i] as number] !== kind) return false;
  return true;
}

/** Cost of testing primitives of one kind. */
const kindCost = (kind: number, count: number): number =>
  (PACK_COST[kind] as number) * Math.ceil(count / PACK_SIZE) + (EXACT_COST[kind] as number) * count;

// Boxes and counts by kind of the bins; the same of what lies on one side of a cut, and what testing it costs by kind; cost of
// the right side by cut.
const binBoxes = new Float64Array(BINS * 6);
const binCounts = new Float64Array(BINS * KINDS);
const side = new Float64Array(6);
const sideCounts = new Float64Array(KINDS);
const sideCosts = new Float64Array(KINDS);
const rightCosts = new Float64Array(Math.max(BINS, MOST_SORTED));
// Primitives that are sorted, and room for merging them.
const sorted = new Int32Array(MOST_SORTED);
const merged = new Int32Array(MOST_SORTED);

/** Primitives that are to be parted: their places in `order`. */
interface Stretch {
  boxes: Float64Array;
  /** Of each primitive, by axis. */
  centroids: readonly Float64Array[];
  kinds: ArrayLike<number>;
  order: Int32Array;
  from: number;
  to: number;
}

/** The cut that costs least; null where a leaf of them all costs less. */
function bestCut(stretch: Stretch): Cut | null {
  const { boxes, kinds, order, from, to } = stretch;
  const wholeArea = area(enclose(boxes, order, from, to));
  startSide();
  for (let i = from; i < to; i++) takeKind(kinds[order[i] as number] as number, 1);
  const leafCost = sideCost();
  return to - from <= MOST_SORTED
    ? bestOfAllCuts(stretch, wholeArea, leafCost)
    : bestOfBins(stretch, wholeArea, leafCost);
}

/** Of the cuts between any two neighbours along an axis. */
function bestOfAllCuts(
  { boxes, centroids, kinds, order, from, to }: Stretch,
  wholeArea: number,
  leafCost: number,
): Cut | null {
  const n = to - from;
  let best: Cut | null = null;
  let least = leafCost;
  for (let axis = 0; axis < 3; axis++) {
    const along = centroids[axis] as Float64Array;
    for (let i = 0; i < n; i++) sorted[i] = order[from + i] as number;
    sortByKey(sorted, n, along, merged);
    startSide();
    for (let i = n - 1; i > 0; i--) {
      takeOne(boxes, kinds, sorted[i] as number);
      rightCosts[i] = sideCost() * area(side);
    }
    startSide();
    for (let i = 1; i < n; i++) {
      takeOne(boxes, kinds, sorted[i - 1] as number);
      const before = along[sorted[i - 1] as number] as number;
      const after = along[sorted[i] as number] as number;
      if (!(after > before)) continue;
      const cost = NODE_COST + (sideCost() * area(side) + (rightCosts[i] as number)) / wholeArea;
      if (cost < least) {
        least = cost;
        best = { axis, at: after };
      }
    }
  }
  return best;
}

function takeOne(boxes: Float64Array, kinds: ArrayLike<number>, primitive: number): void {
  growBy(side, 0, boxes, 6 * primitive);
  takeKind(kinds[primitive] as number, 1);
}

/** Of the cuts between bins of centroids. */
function bestOfBins(
  { boxes, centroids, kinds, order, from, to }: Stretch,
  wholeArea: number,
  leafCost: number,
): Cut | null {
  // As many as can part what is there: emptying and weighing bins costs more than filling them where it is little.
  const bins = Math.min(BINS, Math.max(4, (to - from) >> 1));
  let best: Cut | null = null;
  let least = leafCost;
  for (let axis = 0; axis < 3; axis++) {
    const along = centroids[axis] as Float64Array;
    let low = Infinity;
    let high = -Infinity;
    for (let i = from; i < to; i++) {
      const c = along[order[i] as number] as number;
      low = Math.min(low, c);
      high = Math.max(high, c);
    }
    if (!(high - low > 1e-9)) continue;
    for (let bin = 0; bin < bins; bin++) empty(binBoxes, 6 * bin);
    binCounts.fill(0);
    for (let i = from; i < to; i++) {
      const primitive = order[i] as number;
      const share = ((along[primitive] as number) - low) / (high - low);
      const bin = Math.min(bins - 1, Math.floor(share * bins));
      growBy(binBoxes, 6 * bin, boxes, 6 * primitive);
      const at = KINDS * bin + (kinds[primitive] as number);
      binCounts[at] = (binCounts[at] as number) + 1;
    }
    // What lies right of each cut, from the last bin backwards; then what lies left of it, forwards.
    startSide();
    for (let bin = bins - 1; bin > 0; bin--) {
      takeBin(bin);
      rightCosts[bin] = sideCost() * area(side);
    }
    startSide();
    for (let cut = 1; cut < bins; cut++) {
      takeBin(cut - 1);
      // The first and last bin are never empty, so neither is a side.
      const tests = sideCost() * area(side) + (rightCosts[cut] as number);
      const cost = NODE_COST + tests / wholeArea;
      if (cost < least) {
        least = cost;
        best = { axis, at: low + ((high - low) * cut) / bins };
      }
    }
  }
  return best;
}

function startSide(): void {
  empty(side, 0);
  for (let kind = 0; kind < KINDS; kind++) sideCounts[kind] = sideCosts[kind] = 0;
}

/** Takes so many of a kind to the side. */
function takeKind(kind: number, more: number): void {
  const count = (sideCounts[kind] as number) + more;
  sideCounts[kind] = count;
  sideCosts[kind] = kindCost(kind, count);
}

/** Cost of testing all that lies on the side. */
const sideCost = (): number =>
  (sideCosts[FLAT] as number) +
  (sideCosts[CONE] as number) +
  (sideCosts[BALL] as number) +
  (sideCosts[TRIANGLE] as number);

function takeBin(bin: number): void {
  growBy(side, 0, binBoxes, 6 * bin);
  for (let kind = 0; kind < KINDS; kind++) takeKind(kind, binCounts[KINDS * bin + kind] as number);
}

function empty(box: Float64Array, at: number): void {
  for (let a = 0; a < 3; a++) {
    box[at + a] = Infinity;
    box[at + a + 3] = -Infinity;
  }
}

function growBy(box: Float64Array, at: number, other: Float64Array, from: number): void {
  for (let a = 0; a < 3; a++) {
    box[at + a] = Math.min(box[at + a] as number, other[from + a] as number);
    box[at + a + 3] = Math.max(box[at + a + 3] as number, other[from + a + 3] as number);
  }
}

function partition(
  centroids: readonly Float64Array[],
  order: Int32Array,
  from: number,
  to: number,
  { axis, at }: Cut,
): number {
  const along = centroids[axis] as Float64Array;
  let left = from;
  let right = to - 1;
  while (left <= right) {
    const primitive = order[left] as number;
    if ((along[primitive] as number) < at) left++;
    else {
      order[left] = order[right] as number;
      order[right--] = primitive;
    }
  }
  return left;
}
