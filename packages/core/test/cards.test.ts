import { defaultKit } from '@fendrix/catalogue';
import { type SetDocument, setDocument } from '@fendrix/contract';
import { describe, expect, test } from 'vitest';
import { partAt } from '../src/geometry/products/partAt.js';
import {
  applyChange,
  cardTries,
  offeredCards,
  placeCard,
  pointsOfRegion,
  prepareTracing,
  tryCard,
} from '../src/index.js';
import { overheadSoftbox, testCamera, testSet } from './sets.js';

const matte = (reflectance: number) => ({ kind: 'matte' as const, reflectance });
const jar = (more: object = {}) => ({
  kind: 'turned',
  id: 'jar',
  name: 'Jar',
  positionM: [0, 0, 0],
  material: matte(0.4),
  profile: [
    { radiusM: 0.05, heightM: 0 },
    { radiusM: 0.05, heightM: 0.16 },
  ],
  parts: [{ name: 'Lid', fromM: 0.14, toM: 0.16, material: matte(0.2) }],
  labels: [{ name: 'Label', fromM: 0.03, toM: 0.1, widthDeg: 100, material: matte(0.7) }],
  ...more,
});

/** A jar on a table before a camera 1.2 m away, one small light from the left. */
function stand(products: object[] = [jar()], lights: object = {}): SetDocument {
  return testSet({
    bench: { widthM: 1.4, depthM: 1.2, material: matte(0.3) },
    products: products as never,
    lights: [
      overheadSoftbox(0, {
        name: 'Small light',
        positionM: [-0.8, -0.5, 0.6],
        aimM: [0, 0, 0.08],
        widthM: 0.1,
        heightM: 0.1,
        output: { kind: 'flash-energy', energyJ: 200, modifierEfficiency: 0.5 },
        ...lights,
      }),
    ],
    camera: { ...testCamera(), positionM: [0, -1.2, 0.1], aimM: [0, 0, 0.08], focusM: 1.17 },
  });
}

const LABEL = { across: 0.5, down: 0.55 };
const LID = { across: 0.5, down: 0.22 };
const regionOf = (set: SetDocument, region: Parameters<typeof pointsOfRegion>[2], most = 5000) =>
  pointsOfRegion(prepareTracing(set), set, region, most);

describe('parts of a product', () => {
  test('labels lie over parts, parts over the body; a turn and a lean go along', () => {
    const [plain] = stand().products;
    const [turned] = stand([jar({ turnDeg: 90 })]).products;
    if (!plain || !turned) throw new Error('there is one');
    expect(partAt(plain, [0, -0.05, 0.06]).kind).toBe('label');
    expect(partAt(plain, [0, 0.05, 0.06]).kind).toBe('body');
    expect(partAt(plain, [0, -0.05, 0.15])).toMatchObject({ kind: 'part', index: 0 });
    // Towards camera right: the label that faced the camera faces camera right.
    expect(partAt(turned, [0.05, 0, 0.06]).kind).toBe('label');
    expect(partAt(turned, [0, -0.05, 0.06]).kind).toBe('body');
  });

  test('liquid stands behind the glass between the base and its level', () => {
    const glass = { kind: 'dielectric', index: 1.5 };
    const liquid = { material: { kind: 'dielectric', index: 1.33 }, fillToM: 0.09 };
    const hollow = { wallM: 0.003, baseM: 0.01, liquid };
    const [bottle] = stand([jar({ material: glass, labels: [], parts: [], hollow })]).products;
    if (!bottle) throw new Error('there is one');
    const at = (z: number) => partAt(bottle, [0, -0.05, z]).liquid;
    expect([at(0.005), at(0.05), at(0.12)]).toEqual([false, true, false]);
  });
});

describe('regions', () => {
  test('a part is the label or the lid alone, a thing all of it', () => {
    const set = stand();
    const label = regionOf(set, { by: 'part', ...LABEL });
    const lid = regionOf(set, { by: 'part', ...LID });
    const whole = regionOf(set, { by: 'thing', ...LABEL });
    expect(label.length).toBeGreaterThan(20);
    for (const { pointM } of label) expect(pointM[2]).toBeLessThan(0.101);
    for (const { pointM } of lid) expect(pointM[2]).toBeGreaterThan(0.139);
    expect(whole.length).toBeGreaterThan(label.length + lid.length);
  });

  test('a face goes on over a flat front and stops at its edge', () => {
    const box = {
      kind: 'box',
      id: 'box',
      name: 'Box',
      positionM: [0, 0, 0],
      turnDeg: 30,
      material: matte(0.4),
      widthM: 0.1,
      depthM: 0.1,
      heightM: 0.12,
    };
    const set = stand([box]);
    const face = regionOf(set, { by: 'face', across: 0.46, down: 0.5 });
    const whole = regionOf(set, { by: 'thing', across: 0.46, down: 0.5 });
    expect(face.length).toBeGreaterThan(20);
    expect(face.length).toBeLessThan(0.9 * whole.length);
    const [first] = face;
    for (const { normal } of face)
      expect(normal.reduce((sum, value, a) => sum + value * (first?.normal[a] ?? 0), 0)).toBeGreaterThan(
        0.99,
      );
  });

  test('a brush takes what it was drawn over; no more points are given than are wanted', () => {
    const set = stand();
    const painted = regionOf(set, { by: 'brush', strokes: [{ ...LABEL, radius: 0.03 }] });
    expect(painted.length).toBeGreaterThan(5);
    for (const { across } of painted) expect(Math.abs(across - 0.5)).toBeLessThanOrEqual(0.03);
    expect(regionOf(set, { by: 'thing', ...LABEL }, 12).length).toBeLessThanOrEqual(12);
    expect(regionOf(stand([]), { by: 'part', across: 0.5, down: 0.01 }).length).toBe(0);
  });
});

describe('keeping a light off', () => {
  test('the smallest flag takes the light from the label, spares the lid, and stays out of the frame', () => {
    const set = stand();
    const wish = {
      what: 'keep-off',
      light: 'A',
      region: { by: 'part', ...LABEL },
      spare: { by: 'part', ...LID },
    } as const;
    const [best] = placeCard(set, wish, null);
    expect(best).toBeDefined();
    expect(best?.regionStops).toBeLessThan(-1.5);
    expect(Math.abs(best?.spareStops ?? 9)).toBeLessThan(0.35);
    expect(best?.inFrame).toBe(false);
    const changed = best && applyChange(set, best.change);
    expect(changed?.sheets).toHaveLength(1);
    expect(setDocument.safeParse(changed).success).toBe(true);
  });

  test('of a light wider than what it shades, nearer to that it is smaller', () => {
    const set = stand([jar()], { widthM: 0.5, heightM: 0.5 });
    const wish = { what: 'keep-off', light: 'A', region: { by: 'part', ...LABEL }, spare: null } as const;
    const tracing = prepareTracing(set);
    const areas = [0.35, 0.65].map((part) => {
      const [one] = tryCard(tracing, set, wish, { part }, null);
      return (one?.widthM ?? 0) * (one?.heightM ?? 0);
    });
    expect(areas[1]).toBeGreaterThan(0);
    expect(areas[0]).toBeGreaterThan(areas[1] as number);
  });

  test('a flag of the kit that is large enough is named; nothing is asked of a light that is not there', () => {
    const set = stand();
    const region = { by: 'part', ...LABEL } as const;
    const cards = placeCard(set, { what: 'keep-off', light: 'A', region, spare: null }, defaultKit());
    expect(cards.some(({ fromKit }) => fromKit !== null)).toBe(true);
    expect(placeCard(set, { what: 'keep-off', light: 'Q', region, spare: null }, null)).toEqual([]);
  });
});

describe('lifting a place', () => {
  test('a card gives what is wanted within a quarter of a stop, out of the frame', () => {
    const set = stand([jar()], { positionM: [-0.6, 0.1, 0.3], widthM: 0.4, heightM: 0.4 });
    const region = { by: 'brush', strokes: [{ across: 0.55, down: 0.55, radius: 0.02 }] } as const;
    const [best] = placeCard(set, { what: 'lift', region, stops: 0.5 }, null);
    expect(best).toBeDefined();
    expect(Math.abs((best?.regionStops ?? 0) - 0.5)).toBeLessThan(0.26);
    expect(best?.inFrame).toBe(false);
  });

  test('in the dark nothing can be bounced', () => {
    const set = stand();
    const dark = { ...set, lights: set.lights.map((light) => ({ ...light, on: false })) };
    expect(placeCard(dark, { what: 'lift', region: { by: 'part', ...LABEL }, stops: 1 }, null)).toEqual([]);
  });
});

describe('mirroring a card', () => {
  const silver = { kind: 'metal', metal: 'silver', roughness: 0.02 };
  const box = {
    kind: 'box',
    id: 'box',
    name: 'Box',
    positionM: [0, 0, 0],
    turnDeg: 35,
    material: silver,
    widthM: 0.1,
    depthM: 0.1,
    heightM: 0.12,
  };

  test('a face mirrors the card all over, and the card clears the table', () => {
    const set = stand([box]);
    const wish = { what: 'mirror', region: { by: 'face', across: 0.46, down: 0.5 }, kind: 'white' } as const;
    const [best] = placeCard(set, wish, null);
    expect(best?.mirroredPart).toBeGreaterThan(0.8);
    const sheet = best && applyChange(set, best.change)?.sheets[0];
    if (!sheet || !('heightM' in sheet)) throw new Error('a flat sheet');
    expect(sheet.positionM[2] - sheet.heightM / 2).toBeGreaterThan(-1e-3);
  });

  test('a matte thing mirrors none', () => {
    const wish = { what: 'mirror', region: { by: 'part', ...LABEL }, kind: 'black' } as const;
    expect(placeCard(stand(), wish, null)).toEqual([]);
  });
});

test('what does too little is no answer; what comes into the frame comes last', () => {
  const card = (more: object) => ({
    change: [],
    tag: '1',
    fromKit: null,
    widthM: 0.2,
    heightM: 0.2,
    regionStops: -2,
    spareStops: null,
    mirroredPart: null,
    elsewhere: [],
    inFrame: false,
    mirrored: false,
    ...more,
  });
  const wish = { what: 'keep-off', light: 'A', region: { by: 'thing', ...LABEL }, spare: null } as const;
  const [first, second, third] = offeredCards(
    [
      card({ tag: '3', inFrame: true }),
      card({ tag: '9', regionStops: -0.1 }),
      card({ tag: '2', mirrored: true }),
      card({}),
    ],
    wish,
  );
  expect([first?.tag, second?.tag, third?.tag]).toEqual(['1', '2', '3']);
  expect(cardTries(wish).length).toBeGreaterThan(1);
});
