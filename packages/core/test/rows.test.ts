import type { SetDocument } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { labelsToLens, linedUp, pieceAt, productBounds, spacedEvenly, vector } from '../src/index.js';
import { matte, testSet } from './sets.js';

const tin = (id: string, x: number, y: number, radiusM = 0.03, more: object = {}) => ({
  kind: 'turned' as const,
  id,
  name: id,
  positionM: [x, y, 0] as [number, number, number],
  material: matte(0.4),
  profile: [
    { radiusM, heightM: 0 },
    { radiusM, heightM: 0.1 },
  ],
  ...more,
});

const row = () =>
  testSet({ products: [tin('a', -0.2, 0), tin('b', -0.08, 0.02, 0.05), tin('c', 0.3, -0.01)] });
const gaps = ({ products }: SetDocument) => {
  const bounds = products.map(productBounds);
  return bounds.slice(1).map(({ low }, i) => low[0] - (bounds[i]?.high[0] ?? 0));
};

describe('products in a row', () => {
  test('are spaced evenly by their outlines, the outer two stay', () => {
    const set = row();
    const spaced = spacedEvenly(set) as SetDocument;
    const [first, second] = gaps(spaced);
    expect(first).toBeCloseTo(second as number, 9);
    expect([0, 2].map((i) => spaced.products[i]?.positionM)).toEqual(
      [0, 2].map((i) => set.products[i]?.positionM),
    );
    expect(spacedEvenly(spaced)).toBeNull();
    expect(spacedEvenly({ ...set, products: set.products.slice(0, 2) })).toBeNull();
  });

  test('that have no room between the outer two are left', () => {
    expect(
      spacedEvenly(testSet({ products: [tin('a', 0, 0), tin('b', 0.02, 0), tin('c', 0.04, 0)] })),
    ).toBeNull();
  });

  test('are lined up by their fronts', () => {
    const lined = linedUp(row()) as SetDocument;
    const fronts = lined.products.map((product) => productBounds(product).low[1]);
    for (const front of fronts) expect(front).toBeCloseTo(fronts[0] as number, 9);
    expect(linedUp(lined)).toBeNull();
  });

  test.each([0, 40, -130])(
    'turn a label at %i degrees to the lens, wherever they stand',
    (centreBearingDeg) => {
      const label = {
        name: 'Label',
        fromM: 0.02,
        toM: 0.08,
        centreBearingDeg,
        widthDeg: 20,
        material: matte(0.8),
      };
      const set = testSet({
        products: [-0.3, 0, 0.25].map((x, i) =>
          tin(`p${i}`, x, 0.1 * i, 0.03, { labels: [label], turnDeg: 77 }),
        ),
      });
      const turned = labelsToLens(set) as SetDocument;
      for (const product of turned.products) {
        const { positionM } = set.camera;
        const [dx, dy] = vector.subtract(positionM, product.positionM);
        const out = vector.normalise([dx, dy, 0]);
        const front = vector.add(vector.add(product.positionM, [0, 0, 0.05]), vector.scale(out, 0.03));
        expect(pieceAt(product, front).name).toBe('Label');
      }
      expect(labelsToLens(turned)).toBeNull();
    },
  );

  test('without a label, or with one all round, are not turned', () => {
    const round = {
      name: 'Band',
      fromM: 0.02,
      toM: 0.08,
      centreBearingDeg: 90,
      widthDeg: 360,
      material: matte(0.8),
    };
    expect(labelsToLens(row())).toBeNull();
    expect(labelsToLens(testSet({ products: [tin('a', 0, 0, 0.03, { labels: [round] })] }))).toBeNull();
  });
});
