import type { Product } from '@fendrix/contract';
import { demoNames, demoSet } from '@fendrix/demo';
import { expect, test } from 'vitest';
import { productBounds } from '../src/index.js';

const moved = (product: Product, by: number): Product => {
  const [x, y, z] = product.positionM;
  return { ...product, positionM: [x + by, y - 2 * by, z + by / 2] };
};

test('bounds of a product that was moved are those of one that always stood there', () => {
  for (const name of demoNames)
    for (const product of demoSet(name).products) {
      productBounds(product);
      const there = moved(product, 0.137);
      // Of another material object nothing is known yet.
      const fresh = productBounds({ ...there, material: { ...there.material } } as Product);
      const followed = productBounds(there);
      for (const side of ['low', 'high'] as const)
        for (let a = 0; a < 3; a++)
          expect(followed[side][a], `${product.name}, ${side} ${a}`).toBeCloseTo(fresh[side][a] as number, 9);
    }
});

test('one that is changed otherwise is measured anew, also after a move', () => {
  const box = demoSet('tent').products.find(({ kind }) => kind === 'box') as Extract<
    Product,
    { kind: 'box' }
  >;
  productBounds(box);
  const wider = { ...box, widthM: box.widthM + 0.05 };
  const turned = { ...moved(wider, 0.1), turnDeg: box.turnDeg + 90 };
  const size = (product: Product) => {
    const { low, high } = productBounds(product);
    return high[0] - low[0];
  };
  const before = size(box);
  expect(size(wider)).toBeGreaterThan(before + 0.04);
  expect(size(turned)).not.toBeCloseTo(size(wider), 3);
  expect(size(box)).toBe(before);
});
