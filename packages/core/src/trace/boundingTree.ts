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
}

const BINS = 12;
const LEAF_SIZE = 4;
const MOST_IN_LEAF = 16;
/** Cost of visiting a node over that of testing a primitive. */
const NODE_COST = 1;

/** Builds the tree by the surface-area heuristic over binned centroids. Source: Wald 2007. */
export function buildBoundingTree(table: PrimitiveTable): BoundingTree {
  const n = table.count;
  const boxes = new Float64Array(n * 6);
  for (let i = 0; i < n; i++) primitiveBounds(table, i, boxes.subarray(i * 6, i * 6 + 6));
  const order = Int32Array.from({ length: n }, (_, i) => i);
  // One leaf more than primitives: a root with a single primitive has an empty second child.
  const size = n + 1;
  const tree: BoundingTree = {
    boxes: new Float64Array(size * 12),
    children: new Int32Array(size * 2),
    leaves: new Int32Array(size * 2),
    order,
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
    const cut = to - from <= LEAF_SIZE && !isRoot ? null : bestCut(boxes, order, from, to);
    let middle = cut ? partition(boxes, order, from, to, cut) : from;
    if (middle <= from || middle >= to) {
      if (!isRoot && to - from <= MOST_IN_LEAF) return makeLeaf(from, to);
      middle = (from + to + 1) >> 1;
    }
    const node = nodes++;
    tree.boxes.set(padded(enclose(boxes, order, from, middle)), node * 12);
    tree.boxes.set(padded(enclose(boxes, order, middle, to)), node * 12 + 6);
    tree.children[2 * node] = split(from, middle, false);
    tree.children[2 * node + 1] = middle < to ? split(middle, to, false) : makeLeaf(to, to);
    return node;
  }

  if (n > 0) split(0, n, true);
  return tree;
}

interface Cut {
  axis: number;
  at: number;
}

const centroid = (boxes: Float64Array, primitive: number, axis: number): number =>
  ((boxes[primitive * 6 + axis] as number) + (boxes[primitive * 6 + axis + 3] as number)) / 2;

function enclose(boxes: Float64Array, order: Int32Array, from: number, to: number): number[] {
  const box = [...EMPTY];
  for (let i = from; i < to; i++) grow(box, boxes, order[i] as number);
  return box;
}

function grow(box: number[], boxes: Float64Array, primitive: number): void {
  for (let a = 0; a < 3; a++) {
    box[a] = Math.min(box[a] as number, boxes[primitive * 6 + a] as number);
    box[a + 3] = Math.max(box[a + 3] as number, boxes[primitive * 6 + a + 3] as number);
  }
}

function area(box: number[]): number {
  const [x0, y0, z0, x1, y1, z1] = box as [number, number, number, number, number, number];
  const x = Math.max(0, x1 - x0);
  const y = Math.max(0, y1 - y0);
  const z = Math.max(0, z1 - z0);
  return x * y + y * z + z * x;
}

/** An empty box stays empty: no ray enters [1, 1, 1] to [-1, -1, -1]. */
function padded(box: number[]): number[] {
  if (!((box[0] as number) <= (box[3] as number))) return [1, 1, 1, -1, -1, -1];
  return box.map((value, i) => {
    const pad = 1e-7 + 1e-9 * Math.abs(value);
    return i < 3 ? value - pad : value + pad;
  });
}

function bestCut(boxes: Float64Array, order: Int32Array, from: number, to: number): Cut | null {
  const wholeArea = area(enclose(boxes, order, from, to));
  let best: Cut | null = null;
  let least = to - from;
  for (let axis = 0; axis < 3; axis++) {
    let low = Infinity;
    let high = -Infinity;
    for (let i = from; i < to; i++) {
      const c = centroid(boxes, order[i] as number, axis);
      low = Math.min(low, c);
      high = Math.max(high, c);
    }
    if (!(high - low > 1e-9)) continue;
    const binBoxes = Array.from({ length: BINS }, () => [...EMPTY]);
    const binCounts = new Array<number>(BINS).fill(0);
    for (let i = from; i < to; i++) {
      const primitive = order[i] as number;
      const share = (centroid(boxes, primitive, axis) - low) / (high - low);
      const bin = Math.min(BINS - 1, Math.floor(share * BINS));
      grow(binBoxes[bin] as number[], boxes, primitive);
      binCounts[bin] = (binCounts[bin] as number) + 1;
    }
    // What lies right of each cut, from the last bin backwards; then what lies left of it, forwards.
    const rightCosts = new Array<number>(BINS).fill(0);
    const right = [...EMPTY];
    let rightCount = 0;
    for (let bin = BINS - 1; bin > 0; bin--) {
      growBy(right, binBoxes[bin] as number[]);
      rightCount += binCounts[bin] as number;
      rightCosts[bin] = rightCount === 0 ? -1 : rightCount * area(right);
    }
    const left = [...EMPTY];
    let leftCount = 0;
    for (let cut = 1; cut < BINS; cut++) {
      growBy(left, binBoxes[cut - 1] as number[]);
      leftCount += binCounts[cut - 1] as number;
      const rightCost = rightCosts[cut] as number;
      if (leftCount === 0 || rightCost < 0) continue;
      const cost = NODE_COST + (leftCount * area(left) + rightCost) / wholeArea;
      if (cost < least) {
        least = cost;
        best = { axis, at: low + ((high - low) * cut) / BINS };
      }
    }
  }
  return best;
}

const EMPTY = [Infinity, Infinity, Infinity, -Infinity, -Infinity, -Infinity];

function growBy(box: number[], other: readonly number[]): void {
  for (let a = 0; a < 3; a++) {
    box[a] = Math.min(box[a] as number, other[a] as number);
    box[a + 3] = Math.max(box[a + 3] as number, other[a + 3] as number);
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
