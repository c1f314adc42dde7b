import { type Material, type Product, type SetDocument, setDocument, type Vector } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { MEASURED_FORMS, measuredProduct, pieceAt, piecesOf, withPieceMaterial } from '../src/index.js';

const RED: Material = { kind: 'matte', reflectance: [0.5, 0.02, 0.02] };
const bottle = demoSet('cordial').products[0] as Product;

function checked(product: object): Product {
  const set = setDocument.parse({
    ...demoSet('cordial'),
    products: [product],
    spots: [],
    takes: [],
    highlights: [],
  });
  return (set as SetDocument).products[0] as Product;
}

const formed = (id: string): Product => {
  const form = MEASURED_FORMS.find((own) => own.id === id);
  if (!form) throw new Error(id);
  return checked(measuredProduct(form, {}));
};

describe('the pieces of a product', () => {
  test('a bottle: body, cap, label and what is in it, each by its name', () => {
    expect(Object.fromEntries(piecesOf(bottle).map(({ list, takes }) => [list, takes]))).toEqual({
      body: 'body',
      parts: 'opaque',
      labels: 'opaque',
      liquid: 'liquid',
    });
  });

  test.each(['bottle', 'jug', 'pump', 'box', 'plate', 'ring', 'garment', 'tube'])(
    '%s: every piece takes another material, and only that piece changes',
    (id) => {
      const product = formed(id);
      for (const piece of piecesOf(product)) {
        const material: Material =
          piece.takes === 'liquid'
            ? { kind: 'dielectric', index: 1.4, absorptionPerCm: 1, scatteringPerCm: 0, roughness: 0 }
            : RED;
        const changed = piecesOf(withPieceMaterial(product, piece, material));
        const others = (all: typeof changed) =>
          all
            .filter(({ list, at }) => list !== piece.list || at !== piece.at)
            .filter(({ list }) => list !== 'attached');
        expect(changed.find(({ list, at }) => list === piece.list && at === piece.at)?.material).toEqual(
          material,
        );
        expect(others(changed)).toEqual(others(piecesOf(product)));
      }
    },
  );

  test('the print stays on another paper, and goes with one that cannot hold it', () => {
    const tone = {
      kind: 'gradient',
      direction: 'up',
      from: 0.2,
      to: 0.8,
      start: 0,
      end: 1,
      gamma: 1,
    } as const;
    const printed = withPieceMaterial(
      bottle,
      { list: 'labels', at: 0 },
      { kind: 'matte', reflectance: 0.8, tone },
    );
    const label = (product: Product) => piecesOf(product).find(({ list }) => list === 'labels')?.material;
    expect(label(withPieceMaterial(printed, { list: 'labels', at: 0 }, RED))).toEqual({ ...RED, tone });
    const foil: Material = { kind: 'metal', metal: 'gold', roughness: 0.2 };
    expect(label(withPieceMaterial(printed, { list: 'labels', at: 0 }, foil))).toEqual(foil);
  });

  test('a piece that is gone meanwhile changes nothing', () => {
    const plain = { ...bottle, labels: [], hollow: undefined } as unknown as Product;
    expect(withPieceMaterial(plain, { list: 'labels', at: 0 }, RED)).toEqual(plain);
    expect(withPieceMaterial(plain, { list: 'liquid', at: 0 }, RED)).toBe(plain);
    expect(withPieceMaterial(formed('box'), { list: 'label', at: 0 }, RED)).toEqual(formed('box'));
  });
});

describe('the piece that is pointed at', () => {
  const nameAt = (product: Product, point: Vector) => pieceAt(product, point).name;
  const of = (list: string) => piecesOf(bottle).find((own) => own.list === list)?.name;

  test('on the demo bottle: cap above, label in front, glass behind it', () => {
    expect(nameAt(bottle, [0, -0.013, 0.24])).toBe(of('parts'));
    expect(nameAt(bottle, [0, -0.036, 0.07])).toBe(of('labels'));
    expect(nameAt(bottle, [0, -0.036, 0.15])).toBe('body');
  });

  test('turned, moved and leaning it is the same piece', () => {
    const label = (bottle as Extract<Product, { kind: 'turned' }>).labels[0];
    const half = (label?.widthDeg ?? 0) / 2;
    const turnDeg = Math.min(170, half + 20);
    const moved = { ...bottle, positionM: [0.2, 0.1, 0], turnDeg } as Product;
    const front: Vector = [0.2, 0.1 - 0.036, 0.07];
    expect(nameAt(moved, front)).toBe(half < 160 ? 'body' : of('labels'));
    expect(nameAt({ ...moved, turnDeg: 0 } as Product, front)).toBe(of('labels'));
    const lying = { ...bottle, positionM: [0, 0, 0.04], lean: { deg: 90, bearingDeg: 90 } } as Product;
    expect(nameAt(lying, [0.24, 0, 0.04 + 0.013])).toBe(of('parts'));
  });

  test('a handle and a spout stand out of a jug; between them is its body', () => {
    const jug = formed('jug');
    expect(nameAt(jug, [0.075, 0, 0.1])).toBe('handle');
    expect(nameAt(jug, [-0.055, 0, 0.169])).toBe('spout');
    expect(nameAt(jug, [0, -0.055, 0.065])).toBe('body');
  });

  test('the label of a box is on its front alone, food within the rim of its plate', () => {
    const box = checked({
      ...measuredProduct(
        MEASURED_FORMS.find(({ id }) => id === 'box') as (typeof MEASURED_FORMS)[number],
        {},
      ),
      label: { name: 'front label', widthM: 0.06, heightM: 0.05, centreHeightM: 0.07, material: RED },
    });
    expect(nameAt(box, [0.02, -0.025, 0.08])).toBe('front label');
    expect(nameAt(box, [0.02, 0.025, 0.08])).toBe('body');
    expect(nameAt(box, [0.02, -0.025, 0.12])).toBe('body');
    const plate = checked({ ...formed('plate'), food: { material: RED, form: 'flat', heightM: 0.01 } });
    expect(nameAt(plate, [0.03, 0.02, 0.014])).toBe('food');
    expect(nameAt(plate, [0.118, 0, 0.021])).toBe('body');
  });

  test('of an imported body the part whose triangle is nearest', () => {
    const tube = formed('tube') as Extract<Product, { kind: 'mesh' }>;
    const corners = new Uint32Array(Uint8Array.from(Buffer.from(tube.trianglesBase64, 'base64')).buffer);
    const points = new Float32Array(Uint8Array.from(Buffer.from(tube.positionsBase64, 'base64')).buffer);
    const middleOf = (triangle: number): Vector => {
      const at = [0, 1, 2].map((i) => 3 * (corners[3 * triangle + i] as number));
      return [0, 1, 2].map((axis) =>
        at.reduce((sum, from) => sum + (points[from + axis] as number) / 3, 0),
      ) as Vector;
    };
    const half = Math.floor(corners.length / 6);
    const named = checked({ ...tube, parts: [{ name: 'first half', triangles: half, material: RED }] });
    expect(nameAt(named, middleOf(0))).toBe('first half');
    expect(nameAt(named, middleOf(half - 1))).toBe('first half');
    expect(nameAt(named, middleOf(half))).toBe('body');
    expect(
      nameAt({ ...named, turnDeg: 180 } as Product, middleOf(half).map((v, i) => (i < 2 ? -v : v)) as Vector),
    ).toBe('body');
  });
});
