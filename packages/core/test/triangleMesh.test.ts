import type { Material, SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { smoothed } from '../src/geometry/triangleMesh.js';
import { buildScene, traceKey } from '../src/index.js';

/** A grid bent by `height`, each triangle with points of its own where `apart`. */
function grid(height: (x: number, y: number) => number, apart: boolean, n = 6) {
  const points: number[] = [];
  const corners: number[] = [];
  const at = new Map<number, number>();
  const point = (column: number, row: number): number => {
    const key = row * (n + 1) + column;
    const known = at.get(key);
    if (known !== undefined && !apart) return known;
    const [x, y] = [column / 100, row / 100];
    points.push(x, y, height(x, y));
    at.set(key, points.length / 3 - 1);
    return points.length / 3 - 1;
  };
  for (let row = 0; row < n; row++) {
    for (let column = 0; column < n; column++) {
      const [a, b, c] = [point(column, row), point(column + 1, row), point(column, row + 1)];
      corners.push(a, b, c, point(column + 1, row), point(column + 1, row + 1), point(column, row + 1));
    }
  }
  return [Float32Array.from(points), Uint32Array.from(corners)] as const;
}

const normalAt = (normals: Float64Array, i: number) => Array.from(normals.subarray(3 * i, 3 * i + 3));

describe('triangles with shading normals', () => {
  test('what lies flat faces straight up at each corner', () => {
    const { normals, corners } = smoothed(...grid(() => 0, false), 40);
    expect(normals.length).toBe(3 * corners.length);
    for (let i = 0; i < corners.length; i++) expect(normalAt(normals, i)[2]).toBeCloseTo(1, 12);
  });

  test('a gentle bend is one surface: each place has one normal, also where triangles have points of their own', () => {
    const bend = (x: number) => 0.3 * x * x;
    const [points, corners] = grid(bend, true);
    const { normals } = smoothed(points, corners, 40);
    const met = new Map<string, number[]>();
    for (let i = 0; i < corners.length; i++) {
      const p = 3 * (corners[i] as number);
      const key = `${points[p]} ${points[p + 1]}`;
      const normal = normalAt(normals, i);
      expect(Math.hypot(...normal)).toBeCloseTo(1, 12);
      const first = met.get(key) ?? normal;
      met.set(key, first);
      for (let axis = 0; axis < 3; axis++) expect(normal[axis]).toBeCloseTo(first[axis] as number, 12);
    }
    expect(met.size).toBe(49);
  });

  test('a sharp edge stays one: its two sides keep their own normals', () => {
    const fold = (x: number) => Math.abs(x - 0.03);
    const { normals, corners, points } = smoothed(...grid(fold, false), 40);
    for (let t = 0; 3 * t < corners.length; t++) {
      const middle = [0, 1, 2].reduce(
        (sum, i) => sum + (points[3 * (corners[3 * t + i] as number)] as number) / 3,
        0,
      );
      for (let i = 0; i < 3; i++) {
        expect(normalAt(normals, 3 * t + i)[0]).toBeCloseTo((middle < 0.03 ? 1 : -1) * Math.SQRT1_2, 6);
      }
    }
    const soft = smoothed(...grid(fold, false), 120);
    expect(Math.max(...soft.normals.filter((_, i) => i % 3 === 2))).toBeGreaterThan(0.8);
  });

  test('triangles without a face are left out', () => {
    const points = Float32Array.from([0, 0, 0, 1, 0, 0, 0, 1, 0, 2, 0, 0]);
    const { corners, normals } = smoothed(points, Uint32Array.from([0, 1, 3, 0, 1, 2, 1, 1, 1]), 40);
    expect(Array.from(corners)).toEqual([0, 1, 2]);
    expect(normals.length).toBe(9);
  });
});

describe('a set with a large mesh', () => {
  const text = (data: Float32Array | Uint32Array) => Buffer.from(data.buffer).toString('base64');
  function withMesh(
    lift: number,
    positionM: [number, number, number],
    turnDeg = 0,
    parts: { name: string; triangles: number; material?: Material }[] = [],
  ): SetDocument {
    const set = demoSet('cordial');
    const [points, corners] = grid((x, y) => lift + x * y, false, 80);
    const material = set.products[0]?.material;
    const product = { kind: 'mesh', id: 'm', name: 'Mesh', positionM, turnDeg, material, smoothDeg: 40 };
    const mesh = { ...product, parts, positionsBase64: text(points), trianglesBase64: text(corners) };
    return { ...set, products: [mesh as SetDocument['products'][number]], spots: [], takes: [] };
  }

  test('stands where it is moved to: what is kept of it is not where it stood', () => {
    const before = buildScene(withMesh(0.01, [0, 0, 0]));
    const after = buildScene(withMesh(0.01, [0.25, -0.1, 0], 90));
    const from = before.table.kind.indexOf(3);
    expect(before.table.count).toBe(after.table.count);
    const [x, y, z] = before.table.data.subarray(20 * from, 20 * from + 3);
    const moved = after.table.data.subarray(20 * from, 20 * from + 3);
    expect(moved[0]).toBeCloseTo(0.25 - (y as number), 9);
    expect(moved[1]).toBeCloseTo(-0.1 + (x as number), 9);
    expect(moved[2]).toBeCloseTo(z as number, 9);
  });

  test('named parts are of their own material, in the order of the triangles of the file', () => {
    const red: Material = { kind: 'matte', reflectance: [0.5, 0, 0] };
    const parts = [
      { name: 'lid', triangles: 3000, material: red },
      { name: 'body', triangles: 2000 },
    ];
    const whole = buildScene(withMesh(0.01, [0, 0, 0]));
    const scene = buildScene(withMesh(0.01, [0, 0, 0], 0, parts));
    expect(scene.table.count).toBe(whole.table.count);
    expect(scene.table.data).toEqual(whole.table.data);
    const from = scene.table.kind.indexOf(3);
    const fronts = Array.from(scene.table.front.subarray(from, from + 80 * 80 * 2));
    expect(new Set(fronts.slice(0, 3000)).size).toBe(1);
    expect(new Set(fronts.slice(3000)).size).toBe(1);
    expect(fronts[2999]).not.toBe(fronts[3000]);
  });

  test('its key is short, and another with another mesh', () => {
    const key = traceKey(withMesh(0.01, [0, 0, 0]));
    expect(key.length).toBeLessThan(20_000);
    expect(traceKey(withMesh(0.01, [0, 0, 0]))).toBe(key);
    expect(traceKey(withMesh(0.011, [0, 0, 0]))).not.toBe(key);
  });
});
