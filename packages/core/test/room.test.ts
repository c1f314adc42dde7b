import { describe, expect, test } from 'vitest';
import { intersectPrimitive } from '../src/engine/intersect.js';
import { PRIMITIVE_STRIDE, RAY_TO } from '../src/engine/layouts.js';
import { Room } from '../src/engine/room.js';
import { SceneTables } from '../src/engine/tables.js';
import { PrimitiveList, type PrimitiveTable } from '../src/geometry/primitives.js';
import { setRay } from '../src/index.js';
import { packPrimitives } from '../src/trace/packScene.js';
import { engineOf, engines, sides } from './engines.js';
import { seededRandom } from './random.js';

const LOW = [-2, -1.5, -0.8];
const SIZE = [4.2, 3.4, 2.6];

/** A room with a ball and a sheet that stands through one of its walls. */
function furnishedRoom(): PrimitiveTable {
  const list = new PrimitiveList();
  list.ball([0.2, 0.1, 0], 0.2, sides);
  list.room(
    LOW as [number, number, number],
    SIZE as [number, number, number],
    [0, 1, 2, 3, 4, 5].map((wall) => ({ ...sides, thing: wall })),
  );
  list.flat([1.8, 0, 0], [0.8, 0, 0], [0, 0, 0.5], [0, 1, 0], sides);
  return list.pack();
}

/** The nearest hit by testing each primitive: of two in one place the first of the table. */
function slowHit(table: PrimitiveTable, ray: Float64Array): { hit: number; distance: number } {
  let [hit, distance] = [-1, ray[RAY_TO] as number];
  const own = Float64Array.from(ray);
  for (let p = 0; p < table.count; p++) {
    if (!intersectPrimitive(table.kind[p] as number, table.data, p * PRIMITIVE_STRIDE, own)) continue;
    hit = p;
    distance = own[7] as number;
  }
  return { hit, distance };
}

/** Rays from inside, from walls, from corners and from outside; some along the axes, some that graze a wall. */
function awkwardRay(random: () => number): { origin: number[]; direction: number[] } {
  const where = random();
  const origin = LOW.map((low, a) => {
    const part = random();
    // On a wall, a hair to either side of it, or somewhere about.
    if (where < 0.3 && part < 0.5) return low + (part < 0.25 ? 0 : (SIZE[a] as number));
    if (where < 0.5 && part < 0.3) return low + 1e-9 * (part - 0.15);
    return low + (SIZE[a] as number) * (where > 0.9 ? 2 * part - 0.5 : part);
  });
  const direction = [0, 1, 2].map(() => {
    const kind = random();
    if (kind < 0.1) return 0;
    return (2 * random() - 1) * (kind < 0.2 ? 1e-9 : kind < 0.3 ? 1e-4 : 1);
  });
  const length = Math.hypot(...direction);
  return length > 0
    ? { origin, direction: direction.map((value) => value / length) }
    : { origin, direction: [0, 0, 1] };
}

describe.each(engines)('%s: a room', (_name, create) => {
  test('is met like six walls, wherever a ray starts and however it runs', () => {
    const table = furnishedRoom();
    const engine = engineOf(create, table);
    const random = seededRandom(11);
    const ray = new Float64Array(8);
    const met = new Set<number>();
    for (let i = 0; i < 20_000; i++) {
      const { origin, direction } = awkwardRay(random);
      const farthest = i % 3 === 0 ? 3 * random() : Number.POSITIVE_INFINITY;
      setRay(ray, origin, direction, farthest);
      const slow = slowHit(table, ray);
      setRay(engine.ray, origin, direction, farthest);
      const hit = engine.closestHit();
      expect({ origin, direction, hit }).toEqual({ origin, direction, hit: slow.hit });
      if (hit >= 0) expect(engine.ray[RAY_TO]).toBeCloseTo(slow.distance, 12);
      setRay(engine.ray, origin, direction, farthest);
      expect(engine.anyHit()).toBe(hit >= 0);
      met.add(hit);
    }
    expect(met.size).toBe(table.count + 1);
  });

  test('alone with nothing in it still ends every ray from inside', () => {
    const list = new PrimitiveList();
    list.room([-1, -1, -1], [2, 2, 2], new Array(6).fill(sides));
    const engine = engineOf(create, list.pack());
    setRay(engine.ray, [0, 0, 0], [0.6, 0, 0.8]);
    expect(engine.closestHit()).toBe(5);
    expect(engine.ray[RAY_TO]).toBeCloseTo(1.25, 12);
  });
});

test('the wall that a ray leaves by is told without testing it, but not where it is close', () => {
  const tables = new SceneTables();
  packPrimitives(tables, furnishedRoom());
  const room = new Room(tables);
  const ray = new Float64Array(8);
  const exit = (origin: number[], direction: number[]) => {
    setRay(ray, origin, direction);
    return room.exit(ray);
  };
  expect(exit([0, 0, 0], [0.96, -0.28, 1e-3])).toBe(1);
  expect(room.exitM).toBeCloseTo(2.2 / 0.96, 12);
  expect(exit([0, 0, 0], [0.28, 1e-3, -0.96])).toBe(4);
  // From outside, towards an edge, and out of a wall that it starts on.
  expect(exit([-3, 0, 0], [0.96, -0.28, 1e-3])).toBe(-1);
  const towardsEdge = [2.2, 1.9, 0].map((value) => value / Math.hypot(2.2, 1.9));
  expect(exit([0, 0, 0], towardsEdge)).toBe(-1);
  expect(exit([-2, 0, 0], [-0.96, 0.28, 1e-3])).toBe(-1);
});
