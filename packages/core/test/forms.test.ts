import { checkDocument, productDocument, setDocument, type Turned, type Vector } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { sweepMesh } from '../src/geometry/products/sweep.js';
import {
  buildScene,
  MEASURE_WORDS,
  MEASURED_FORMS,
  type Measure,
  type MeasuredForm,
  measuredProduct,
  productBounds,
  scaleTurned,
  turnedSize,
} from '../src/index.js';
import { testSet } from './sets.js';

const checked = (form: MeasuredForm, measures = {}) =>
  checkDocument(productDocument, measuredProduct(form, measures));

const made = (id: string, measures = {}) => {
  const form = MEASURED_FORMS.find((one) => one.id === id);
  if (!form) throw new Error(`there is a form ${id}`);
  const result = checked(form, measures);
  if (!result.ok) throw new Error(JSON.stringify(result.problems));
  return result.value;
};

/** Edges that are not shared by just two triangles, and the volume inside, m3. */
function closedness({ points, corners }: { points: Float32Array; corners: Uint32Array }) {
  const edges = new Map<string, number>();
  let volume = 0;
  const at = (i: number): Vector => [points[3 * i] ?? 0, points[3 * i + 1] ?? 0, points[3 * i + 2] ?? 0];
  for (let t = 0; t < corners.length; t += 3) {
    const [a, b, c] = [corners[t], corners[t + 1], corners[t + 2]] as [number, number, number];
    for (const [from, to] of [
      [a, b],
      [b, c],
      [c, a],
    ] as const) {
      const key = `${Math.min(from, to)} ${Math.max(from, to)}`;
      edges.set(key, (edges.get(key) ?? 0) + (from < to ? 1 : -1));
    }
    const [p, q, r] = [at(a), at(b), at(c)];
    volume +=
      (p[0] * (q[1] * r[2] - q[2] * r[1]) +
        p[1] * (q[2] * r[0] - q[0] * r[2]) +
        p[2] * (q[0] * r[1] - q[1] * r[0])) /
      6;
  }
  return { open: [...edges.values()].filter((count) => count !== 0).length, volume };
}

describe('a bar swept along a line', () => {
  test('a straight one has the volume of its cylinder, a tapering one of its cone frustum; faces look outwards', () => {
    const straight: Vector[] = [
      [0, 0, 0],
      [0, 0, 0.05],
      [0, 0, 0.1],
    ];
    const polygon = (20 / 2) * Math.sin((2 * Math.PI) / 20);
    const bar = closedness(sweepMesh(straight, 0.02, 0.02));
    expect(bar.open).toBe(0);
    expect(bar.volume).toBeCloseTo(polygon * 0.01 ** 2 * 0.1, 9);
    const cone = closedness(sweepMesh(straight, 0.02, 0.01));
    expect(cone.volume).toBeCloseTo((polygon * 0.1 * (0.01 ** 2 + 0.01 * 0.005 + 0.005 ** 2)) / 3, 8);
  });

  test('a bent one goes through its points, closed, without twisting flat', () => {
    const path: Vector[] = [
      [0.04, 0, 0.08],
      [0.07, 0, 0.075],
      [0.072, 0, 0.05],
      [0.04, 0, 0.02],
    ];
    const mesh = sweepMesh(path, 0.008, 0.008);
    const { open, volume } = closedness(mesh);
    expect(open).toBe(0);
    expect(volume).toBeGreaterThan(Math.PI * 0.004 ** 2 * 0.08);
    for (const point of path) {
      const nearest = Math.min(
        ...Array.from({ length: mesh.points.length / 3 }, (_, i) =>
          Math.hypot(...point.map((value, axis) => value - (mesh.points[3 * i + axis] as number))),
        ),
      );
      expect(nearest).toBeLessThan(0.0045);
    }
  });
});

describe('products by their measures', () => {
  test.each(MEASURED_FORMS.map(({ id }) => id))(
    '%s: is as wide and high as measured, and stands on a set',
    (id) => {
      const form = MEASURED_FORMS.find((one) => one.id === id);
      const product = made(id);
      const set = testSet({ products: [product] });
      expect(setDocument.safeParse(set).success).toBe(true);
      expect(buildScene(set).table.count).toBeGreaterThan(0);
      const { low, high } = productBounds({ ...product, turnDeg: 0 });
      const usual = form?.usual ?? {};
      const across = high[0] - low[0];
      expect(low[2]).toBeGreaterThan(-2e-4);
      // A ring is measured by its hole, a watch by its case without the crown; handles, seams and soft bodies reach further.
      if (usual.height !== undefined) expect(high[2] - low[2]).toBeCloseTo(usual.height, 2);
      if (usual.width !== undefined && id !== 'ring') {
        expect(across).toBeGreaterThan(0.9 * usual.width);
        expect(across).toBeLessThan(1.75 * usual.width);
      }
      for (const measure of Object.keys(usual) as Measure[]) expect(MEASURE_WORDS[measure]).toBeTruthy();
    },
  );

  test('another measure makes another body, and what cannot be is told with its field', () => {
    const wide = made('can', { width: 0.1 });
    expect(productBounds(wide).high[0]).toBeCloseTo(0.05, 3);
    const [bottle] = MEASURED_FORMS;
    if (!bottle) throw new Error('there are forms');
    const tooLongANeck = checked(bottle, { neckHeight: 0.5 });
    expect(!tooLongANeck.ok && tooLongANeck.problems[0]?.path).toMatch(/profile/);
    const tooThick = checked(bottle, { wall: 0.05 });
    expect(!tooThick.ok && tooThick.problems.map(({ path }) => path)).toContain('hollow.wallM');
  });

  test.each(['tube', 'pouch', 'shoe'])('%s is a closed body', (id) => {
    const product = made(id);
    if (product.kind !== 'mesh') throw new Error('it is lofted');
    const bytes = (text: string) => Uint8Array.from(atob(text), (sign) => sign.charCodeAt(0)).buffer;
    const { open, volume } = closedness({
      points: new Float32Array(bytes(product.positionsBase64)),
      corners: new Uint32Array(bytes(product.trianglesBase64)),
    });
    expect(open).toBe(0);
    expect(volume).toBeGreaterThan(0);
  });
});

describe('an outline scaled as a whole', () => {
  const bottle = made('bottle') as Turned;

  test('is as wide and high as asked; wall and shape stay, what it carries goes along', () => {
    const scaled = scaleTurned(bottle, { widthM: 0.09, heightM: 0.3 });
    expect(turnedSize(scaled)).toEqual({ widthM: expect.closeTo(0.09, 9), heightM: expect.closeTo(0.3, 9) });
    expect(scaled.hollow?.wallM).toBe(bottle.hollow?.wallM);
    const up = 0.3 / turnedSize(bottle).heightM;
    expect(scaled.hollow?.liquid?.fillToM).toBeCloseTo(up * (bottle.hollow?.liquid?.fillToM ?? 0), 9);
    expect(scaled.parts[0]?.toM).toBeCloseTo(0.3, 9);
    expect(setDocument.safeParse(testSet({ products: [scaled] })).success).toBe(true);
  });

  test('one measure leaves the other; there and back is as before; a handle stays on its body', () => {
    expect(turnedSize(scaleTurned(bottle, { widthM: 0.1 })).heightM).toBe(turnedSize(bottle).heightM);
    const back = scaleTurned(scaleTurned(bottle, { heightM: 0.5 }), turnedSize(bottle));
    back.profile.forEach((point, i) => {
      expect(point.heightM).toBeCloseTo(bottle.profile[i]?.heightM ?? 0, 9);
    });
    const cup = made('cup') as Turned;
    const [, , , , end] = scaleTurned(cup, { widthM: 0.17, heightM: 0.14 }).attached[0]?.pathM ?? [];
    const [, , , , before] = cup.attached[0]?.pathM ?? [];
    expect(end).toEqual(before?.map((value) => expect.closeTo(2 * value, 9)));
  });
});
