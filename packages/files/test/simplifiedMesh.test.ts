import { describe, expect, test } from 'vitest';
import { bytesOf } from '../src/base64.js';
import { meshProduct } from '../src/mesh.js';
import { heldMesh, simplifiedMesh, trianglesIn } from '../src/simplifiedMesh.js';

/** A ball of 2 n n triangles. @param apart each triangle with points of its own, as in an STL */
function ball(n: number, apart = false) {
  const points: number[] = [];
  const corners: number[] = [];
  const point = (row: number, column: number) => {
    const [a, b] = [(2 * Math.PI * column) / n, (Math.PI * row) / n];
    points.push(
      0.05 * Math.sin(b) * Math.cos(a),
      0.05 * Math.sin(b) * Math.sin(a),
      0.05 - 0.05 * Math.cos(b),
    );
    return points.length / 3 - 1;
  };
  const grid = apart
    ? []
    : Array.from({ length: (n + 1) * (n + 1) }, (_, i) => point(Math.floor(i / (n + 1)), i % (n + 1)));
  const at = (row: number, column: number) =>
    apart ? point(row, column) : (grid[row * (n + 1) + column] as number);
  for (let r = 0; r < n; r++) {
    for (let c = 0; c < n; c++) {
      corners.push(at(r, c), at(r + 1, c), at(r, c + 1), at(r + 1, c), at(r + 1, c + 1), at(r, c + 1));
    }
  }
  const positions = Float32Array.from(points);
  return meshProduct('ball', 'Ball', {
    positions,
    triangles: Uint32Array.from(corners),
    parts: [],
    sizeM: [0.1, 0.1, 0.1],
  });
}

function measured(product: ReturnType<typeof ball>) {
  const points = new Float32Array(bytesOf(product.positionsBase64).buffer);
  const corners = new Uint32Array(bytesOf(product.trianglesBase64).buffer);
  let volume = 0;
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((i) => {
      const p = 3 * (corners[t + i] as number);
      return Array.from(points.subarray(p, p + 3)) as [number, number, number];
    }) as [[number, number, number], [number, number, number], [number, number, number]];
    volume +=
      (a[0] * (b[1] * c[2] - b[2] * c[1]) +
        a[1] * (b[2] * c[0] - b[0] * c[2]) +
        a[2] * (b[0] * c[1] - b[1] * c[0])) /
      6;
  }
  return {
    volume,
    points: points.length / 3,
    most: corners.reduce((most, corner) => Math.max(most, corner), 0),
  };
}

describe('a simplified mesh', () => {
  test.each([
    ['one surface', false],
    ['triangles with points of their own', true],
  ])('of %s has few triangles, its own points only, and nearly the same volume', async (_name, apart) => {
    const whole = ball(100, apart);
    const few = await simplifiedMesh(whole, 2000);
    expect(trianglesIn(whole)).toBe(20_000);
    expect(trianglesIn(few)).toBeLessThanOrEqual(4000);
    const { volume, points, most } = measured(few);
    expect(most).toBe(points - 1);
    expect(Math.abs(volume / measured(whole).volume - 1)).toBeLessThan(0.03);
    expect(few).toMatchObject({ id: 'ball', material: whole.material });
  });

  test('its parts stay apart, each with its share of the triangles and no gap between them', async () => {
    const whole = { ...ball(100), parts: [{ name: 'cap', triangles: 5000 }] };
    const few = await simplifiedMesh(whole, 2000);
    const [cap] = few.parts;
    expect(cap?.name).toBe('cap');
    expect(Math.abs((cap?.triangles ?? 0) / trianglesIn(few) - 0.25)).toBeLessThan(0.1);
    expect(Math.abs(measured(few).volume / measured(whole).volume - 1)).toBeLessThan(0.03);
    const corners = new Uint32Array(bytesOf(few.trianglesBase64).buffer);
    const inCap = new Set(corners.subarray(0, 3 * (cap?.triangles ?? 0)));
    expect(
      [...new Set(corners.subarray(3 * (cap?.triangles ?? 0)))].filter((at) => inCap.has(at)).length,
    ).toBe(101);
  });

  test('is the same where there is little to begin with', async () => {
    const whole = ball(10);
    expect(await simplifiedMesh(whole, 2000)).toBe(whole);
  });
});

test('a mesh with more triangles than a set can hold is thinned out, and keeps its size; others stay as they are', async () => {
  const large = ball(560);
  expect(trianglesIn(large)).toBeGreaterThan(600_000);
  const held = await heldMesh(large);
  expect(trianglesIn(held)).toBeLessThan(300_000);
  expect(trianglesIn(held)).toBeGreaterThan(100_000);
  expect(Math.abs(measured(held).volume / measured(large).volume - 1)).toBeLessThan(0.01);
  const small = ball(40);
  expect(await heldMesh(small)).toBe(small);
});
