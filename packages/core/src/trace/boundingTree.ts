import { WALLS } from '../engine/room.js';
import { type PrimitiveTable, primitiveBounds } from '../geometry/primitives.js';

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
  const boxes = new Float64Array(table.count * 6);
  for (let i = 0; i < table.count; i++) primitiveBounds(table, i, boxes.subarray(i * 6, i * 6 + 6));
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
        : bestCut({ boxes, kinds: table.kind, order, from, to });
    let middle = cut ? partition(boxes, order, from, to, cut) : from;
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

const isWall = ({ room }: PrimitiveTable, i: number) => room >= 0 && i >= room && i < room + WALLS;

interface Cut {
  axis: number;
  at: number;
}

const centroid = (boxes: Float64Array, primitive: number, axis: number): number =>
  ((boxes[primitive * 6 + axis] as number) + (boxes[primitive * 6 + axis + 3] as number)) / 2;

function enclose(boxes: Float64Array, order: Int32Array, from: number, to: number): Float64Array {
  const box = Float64Array.from(EMPTY);
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
  if (!((box[0] as number) <= (box[3] as number))) return Float64Array.of(1, 1, 1, -1, -1, -1);
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

/** Cost of testing primitives, by how many there are of each kind. */
function testCost(counts: Float64Array, from: number): number {
  let cost = 0;
  for (let kind = 0; kind < KINDS; kind++) {
    const count = counts[from + kind] as number;
    cost += (PACK_COST[kind] as number) * Math.ceil(count / PACK_SIZE) + (EXACT_COST[kind] as number) * count;
  }
  return cost;
}

// Boxes and counts by kind of the bins; the same of what lies on one side of a cut; cost of the right side by cut.
const binBoxes = new Float64Array(BINS * 6);
const binCounts = new Float64Array(BINS * KINDS);
const side = new Float64Array(6);
const sideCounts = new Float64Array(KINDS);
const rightCosts = new Float64Array(BINS);

/** Primitives that are to be parted: their places in `order`. */
interface Stretch {
  boxes: Float64Array;
  kinds: ArrayLike<number>;
  order: Int32Array;
  from: number;
  to: number;
}

/** The cut that costs least; null where a leaf of them all costs less. */
function bestCut(stretch: Stretch): Cut | null {
  const { boxes, kinds, order, from, to } = stretch;
  const wholeArea = area(enclose(boxes, order, from, to));
  sideCounts.fill(0);
  for (let i = from; i < to; i++) countOne(sideCounts, kinds[order[i] as number] as number);
  const leafCost = testCost(sideCounts, 0);
  return to - from <= MOST_SORTED
    ? bestOfAllCuts(stretch, wholeArea, leafCost)
    : bestOfBins(stretch, wholeArea, leafCost);
}

/** Of the cuts between any two neighbours along an axis. */
function bestOfAllCuts(
  { boxes, kinds, order, from, to }: Stretch,
  wholeArea: number,
  leafCost: number,
): Cut | null {
  const n = to - from;
  const costs = new Float64Array(n);
  let best: Cut | null = null;
  let least = leafCost;
  for (let axis = 0; axis < 3; axis++) {
    const sorted = order.slice(from, to).sort((a, b) => centroid(boxes, a, axis) - centroid(boxes, b, axis));
    startSide();
    for (let i = n - 1; i > 0; i--) {
      takeOne(boxes, kinds, sorted[i] as number);
      costs[i] = testCost(sideCounts, 0) * area(side);
    }
    startSide();
    for (let i = 1; i < n; i++) {
      takeOne(boxes, kinds, sorted[i - 1] as number);
      const before = centroid(boxes, sorted[i - 1] as number, axis);
      const after = centroid(boxes, sorted[i] as number, axis);
      if (!(after > before)) continue;
      const cost = NODE_COST + (testCost(sideCounts, 0) * area(side) + (costs[i] as number)) / wholeArea;
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
  countOne(sideCounts, kinds[primitive] as number);
}

/** Of the cuts between bins of centroids. */
function bestOfBins(
  { boxes, kinds, order, from, to }: Stretch,
  wholeArea: number,
  leafCost: number,
): Cut | null {
  // As many as can part what is there: emptying and weighing bins costs more than filling them where it is little.
  const bins = Math.min(BINS, Math.max(4, (to - from) >> 1));
  let best: Cut | null = null;
  let least = leafCost;
  for (let axis = 0; axis < 3; axis++) {
    let low = Infinity;
    let high = -Infinity;
    for (let i = from; i < to; i++) {
      const c = centroid(boxes, order[i] as number, axis);
      low = Math.min(low, c);
      high = Math.max(high, c);
    }
    if (!(high - low > 1e-9)) continue;
    for (let bin = 0; bin < bins; bin++) binBoxes.set(EMPTY, 6 * bin);
    binCounts.fill(0);
    for (let i = from; i < to; i++) {
      const primitive = order[i] as number;
      const share = (centroid(boxes, primitive, axis) - low) / (high - low);
      const bin = Math.min(bins - 1, Math.floor(share * bins));
      growBy(binBoxes, 6 * bin, boxes, 6 * primitive);
      countOne(binCounts, KINDS * bin + (kinds[primitive] as number));
    }
    // What lies right of each cut, from the last bin backwards; then what lies left of it, forwards.
    startSide();
    for (let bin = bins - 1; bin > 0; bin--) {
      takeBin(bin);
      rightCosts[bin] = testCost(sideCounts, 0) * area(side);
    }
    startSide();
    for (let cut = 1; cut < bins; cut++) {
      takeBin(cut - 1);
      // The first and last bin are never empty, so neither is a side.
      const tests = testCost(sideCounts, 0) * area(side) + (rightCosts[cut] as number);
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
  side.set(EMPTY);
  sideCounts.fill(0);
}

function takeBin(bin: number): void {
  growBy(side, 0, binBoxes, 6 * bin);
  for (let kind = 0; kind < KINDS; kind++) {
    sideCounts[kind] = (sideCounts[kind] as number) + (binCounts[KINDS * bin + kind] as number);
  }
}

function countOne(counts: Float64Array, at: number): void {
  counts[at] = (counts[at] as number) + 1;
}

const EMPTY = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];

function growBy(box: Float64Array, at: number, other: Float64Array, from: number): void {
  for (let a = 0; a < 3; a++) {
    box[at + a] = Math.min(box[at + a] as number, other[from + a] as number);
    box[at + a + 3] = Math.max(box[at + a + 3] as number, other[from + a + 3] as number);
  }
}

function partition(boxes: Float64Array, order: Int32Array, from: number, to: number, cut: Cut): number {
  let left = from;
  let right = to - 1;
  while (left <= right) {
    const primitive = order[left] as number;
    if (centroid(boxes, primitive, cut.axis) < cut.at) left++;
    else {
      order[left] = order[right] as number;
      order[right--] = primitive;
    }
  }
  return left;
}
