import { demoNames, demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { type PrimitiveTable, primitiveBounds } from '../src/geometry/primitives.js';
import { buildScene } from '../src/index.js';
import { type BoundingTree, buildBoundingTree, refittedTree } from '../src/trace/boundingTree.js';
import { seededRandom } from './random.js';
import { strewnThings } from './strewnThings.js';

interface Leaf {
  primitives: number[];
  /** The box that its parent keeps of it. */
  box: Float64Array;
  depth: number;
}

/** All leaves, found from the root; every node is to be come by once. */
function leavesOf(tree: BoundingTree): Leaf[] {
  const leaves: Leaf[] = [];
  const seen = new Set<number>();
  const walk = (node: number, within: Float64Array | null, depth: number) => {
    expect(seen.has(node)).toBe(false);
    seen.add(node);
    for (let side = 0; side < 2; side++) {
      const box = tree.boxes.subarray(12 * node + 6 * side, 12 * node + 6 * side + 6);
      const child = tree.children[2 * node + side] as number;
      const isEmpty = (box[0] as number) > (box[3] as number);
      if (within && !isEmpty) expect(holds(within, box)).toBe(true);
      if (child >= 0) walk(child, box, depth + 1);
      else {
        const first = tree.leaves[2 * (-1 - child)] as number;
        const count = tree.leaves[2 * (-1 - child) + 1] as number;
        leaves.push({ primitives: [...tree.order.subarray(first, first + count)], box, depth });
      }
    }
  };
  walk(0, null, 0);
  expect(seen.size).toBe(tree.children.length / 2);
  return leaves;
}

/** Whether a box lies in another, but for the padding of either. */
const holds = (outer: Float64Array, inner: Float64Array) =>
  [0, 1, 2].every(
    (a) =>
      (outer[a] as number) <= (inner[a] as number) + 1e-6 &&
      (outer[a + 3] as number) >= (inner[a + 3] as number) - 1e-6,
  );

function expectSound(table: PrimitiveTable, tree = buildBoundingTree(table)): void {
  const leaves = leavesOf(tree);
  const own = new Float64Array(6);
  for (const { primitives, box } of leaves) {
    expect(primitives.length).toBeLessThanOrEqual(16);
    for (const primitive of primitives) {
      primitiveBounds(table, primitive, own);
      expect(holds(box, own)).toBe(true);
      expect([...tree.bounds.subarray(6 * primitive, 6 * primitive + 6)]).toEqual([...own]);
    }
  }
  const held = leaves.flatMap(({ primitives }) => primitives).sort((a, b) => a - b);
  const walls = Array.from({ length: 6 }, (_, i) => (table.room >= 0 ? table.room + i : -1));
  const wanted = Array.from({ length: table.count }, (_, i) => i).filter((i) => !walls.includes(i));
  expect(held).toEqual(wanted);
  // A stack of 128 is enough by far.
  expect(Math.max(...leaves.map(({ depth }) => depth))).toBeLessThan(64);
}

describe('the bounding tree', () => {
  test.each(demoNames)('of %s holds everything but the room, once, in boxes that hold it', (name) => {
    expectSound(buildScene(demoSet(name)).table);
  });

  test.each([0, 1, 2, 3, 17, 400, 5000])('of %d strewn things', (count) => {
    expectSound(strewnThings(seededRandom(count + 1), count));
  });
});

describe('a tree made to fit', () => {
  const fitted = (before: PrimitiveTable, after: PrimitiveTable) =>
    refittedTree({ ...buildBoundingTree(before), kind: before.kind, room: before.room }, after);
  const shifted = (name: (typeof demoNames)[number], byM: number) => {
    const set = structuredClone(demoSet(name));
    for (const { positionM } of set.products) positionM[0] += byM;
    return buildScene(set).table;
  };

  test.each(demoNames)('of %s is the same to the last bit where nothing has moved', (name) => {
    const { table } = buildScene(demoSet(name));
    expect(fitted(table, table)).toEqual(buildBoundingTree(table));
  });

  test.each(demoNames)('of %s holds everything where products have moved', (name) => {
    const { table } = buildScene(demoSet(name));
    const after = shifted(name, 0.01);
    const tree = fitted(table, after);
    expect(tree).not.toBeNull();
    if (tree) expectSound(after, tree);
  });

  test('is not made of another number or kind of things, nor where most has moved far', () => {
    const [before, more] = [strewnThings(seededRandom(1), 300), strewnThings(seededRandom(1), 301)];
    expect(fitted(before, more)).toBeNull();
    const otherKind = { ...before, kind: before.kind.map((kind, i) => (i === 7 ? (kind + 1) % 4 : kind)) };
    expect(fitted(before, otherKind)).toBeNull();
    expect(fitted(before, strewnThings(seededRandom(2), 300))).toBeNull();
  });
});
