import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { checkDocument, setDocument } from '../src/index.js';

const place = { positionM: [0.5, 0, 0.4], aimM: [0, 0, 0.1] };
const light = { tag: 'Z', name: 'light', ...place, output: { kind: 'flash-energy', energyJ: 100 } };
const continuous = { kind: 'lumens', lumens: 1000 };
const white = { kind: 'matte', reflectance: 0.8 };
const frost = { kind: 'translucent', reflectance: 0.4, transmittance: 0.5 };
const sheet = { tag: '99', name: 'sheet', ...place, widthM: 0.3, heightM: 0.4, front: white, back: white };
const product = { id: 'thing', name: 'thing', positionM: [0.2, 0.1, 0], material: white };

const cutOut = (heightsM: number[], halfWidthM = 0.05) => ({
  tag: '99',
  name: 'sheet',
  ...place,
  front: white,
  back: white,
  kind: 'cut-out',
  outline: heightsM.map((heightM) => ({ halfWidthM, heightM })),
});

/** Problems of the demo set with one thing more. */
function problemsWith(list: 'lights' | 'sheets' | 'products', thing: object) {
  const set = demoSet('cordial');
  const index = set[list].length;
  const checked = checkDocument(setDocument, { ...set, [list]: [...set[list], thing] });
  const start = `${list}[${index}].`;
  return checked.ok
    ? []
    : checked.problems.map(({ path, message }) => [path.replace(start, ''), message] as const);
}

const table = (changes: object) => ({
  ...light,
  kind: 'ies',
  output: continuous,
  openingWidthM: 0.1,
  openingLengthM: 0.1,
  distribution: { verticalDeg: [0, 45, 90], horizontalDeg: [0], candela: [[100, 50, 0]], ...changes },
});
const base64 = (bytes: number[]) => btoa(String.fromCharCode(...bytes));
const floats = (...values: number[]) => base64([...new Uint8Array(Float32Array.from(values).buffer)]);
const wholes = (...values: number[]) => base64([...new Uint8Array(Uint32Array.from(values).buffer)]);
const mesh = (positions: string, triangles: string) => ({
  ...product,
  kind: 'mesh',
  positionsBase64: positions,
  trianglesBase64: triangles,
});

describe('rules within one light', () => {
  test.each<[string, object, string, string]>([
    [
      'power below the dial',
      { ...light, kind: 'softbox', widthM: 1, heightM: 1, powerStops: -8, dial: { leastStops: -6 } },
      'powerStops',
      'dial',
    ],
    [
      'a modelling lamp on a continuous light',
      { ...light, kind: 'panel', widthM: 1, heightM: 1, output: continuous, modelling: { lumens: 100 } },
      'modelling',
      'flash',
    ],
    [
      'a ring without a ring',
      { ...light, kind: 'ring', outerDiameterM: 0.1, innerDiameterM: 0.2 },
      'innerDiameterM',
      'no ring',
    ],
    [
      'a deflector over the whole mouth',
      { ...light, kind: 'dish', diameterM: 0.2, deflectorDiameterM: 0.2, beamDeg: 60 },
      'deflectorDiameterM',
      'whole mouth',
    ],
    [
      'sun that leaves by the window',
      {
        ...light,
        kind: 'window',
        widthM: 1,
        heightM: 1,
        output: continuous,
        sun: { towards: [1, 0, 0], illuminanceLx: 1000 },
      },
      'sun.towards',
      'out of the room',
    ],
    ['falling angles', table({ verticalDeg: [0, 90, 45] }), 'distribution.verticalDeg', 'rise'],
    ['a row too few', table({ horizontalDeg: [0, 90] }), 'distribution.candela', '1 rows for 2'],
    ['a value too few', table({ candela: [[100, 50]] }), 'distribution.candela[0]', '2 values for 3'],
    ['no light ahead', table({ candela: [[0, 0, 50]] }), 'distribution.candela', 'ahead'],
    [
      'counted by a dark axis',
      { ...table({ candela: [[0, 50, 0]] }), output: { kind: 'guide-number', guideNumberM: 20 } },
      'output.kind',
      'straight ahead',
    ],
    [
      'a gobo of another size',
      {
        ...light,
        kind: 'projector',
        lensDiameterM: 0.1,
        fieldDeg: 30,
        focusM: 1,
        gobo: { kind: 'picture', widthPx: 3, heightPx: 2, greyBase64: base64([1, 2]) },
      },
      'gobo.greyBase64',
      '6',
    ],
    [
      'a gobo cut off',
      {
        ...light,
        kind: 'projector',
        lensDiameterM: 0.1,
        fieldDeg: 30,
        focusM: 1,
        gobo: { kind: 'picture', widthPx: 1, heightPx: 1, greyBase64: 'gA' },
      },
      'gobo.greyBase64',
      'cut off',
    ],
  ])('%s', (_name, thing, path, words) => {
    const found = problemsWith('lights', thing).find(([at]) => at === path);
    expect(found?.[1]).toContain(words);
  });

  test('each of these is taken once it is right', () => {
    expect(
      problemsWith('lights', { ...light, kind: 'ring', outerDiameterM: 0.2, innerDiameterM: 0.1 }),
    ).toEqual([]);
    expect(problemsWith('lights', table({}))).toEqual([]);
  });
});

describe('rules within one sheet', () => {
  test.each<[string, object, string, string]>([
    ['an outline that falls', cutOut([0, 0.1, 0.1]), 'outline[2].heightM', 'above the point before it'],
    ['an outline that floats', cutOut([0.01, 0.1]), 'outline[0].heightM', 'must be 0'],
    ['an outline without width', cutOut([0, 0.1], 0), 'outline', 'no width'],
    ['frost on one side only', { ...sheet, kind: 'frame', front: frost, back: white }, 'back', 'both sides'],
    [
      'a hole as large as the card',
      { ...sheet, kind: 'card', holeDiameterM: 0.3 },
      'holeDiameterM',
      'nothing of the sheet',
    ],
    [
      'more light than falls on it',
      {
        ...sheet,
        kind: 'frame',
        front: { ...frost, reflectance: 0.7 },
        back: { ...frost, reflectance: 0.7 },
      },
      'front.transmittance',
      'more than 1',
    ],
    [
      'a slot wider than the tent',
      { ...sheet, kind: 'tent', form: 'box', depthM: 0.3, opening: { widthM: 0.4, heightM: 0.1 } },
      'opening.widthM',
      'wider',
    ],
    [
      'a print of another size',
      {
        ...sheet,
        kind: 'card',
        front: { ...white, tone: { kind: 'picture', widthPx: 2, heightPx: 1, rgbBase64: base64([1, 2, 3]) } },
      },
      'front.tone.rgbBase64',
      '3 bytes',
    ],
  ])('%s', (_name, thing, path, words) => {
    const found = problemsWith('sheets', thing).find(([at]) => at === path);
    expect(found?.[1]).toContain(words);
  });
});

describe('rules within one product', () => {
  const box = { ...product, kind: 'box', widthM: 0.1, depthM: 0.1, heightM: 0.1 };
  const label = { name: 'label', widthM: 0.05, heightM: 0.05, centreHeightM: 0.05, material: white };
  const right = floats(0, 0, 0, 0.1, 0, 0, 0, 0.1, 0);
  test.each<[string, object, string, string]>([
    ['edges rounder than the box', { ...box, edgeRadiusM: 0.06 }, 'edgeRadiusM', 'half'],
    ['a label wider than the front', { ...box, label: { ...label, widthM: 0.2 } }, 'label.widthM', 'wider'],
    [
      'a label over the edge',
      { ...box, label: { ...label, centreHeightM: 0.09 } },
      'label.centreHeightM',
      'beyond',
    ],
    [
      'a plate on a lying ring',
      {
        ...product,
        kind: 'ring',
        innerDiameterM: 0.02,
        bandWidthM: 0.004,
        bandThicknessM: 0.002,
        pose: 'lying',
        signet: { diameterM: 0.01, heightM: 0.002 },
      },
      'signet',
      'standing',
    ],
    [
      'a dish wider at its foot',
      { ...product, kind: 'dish', diameterM: 0.2, heightM: 0.03, footDiameterM: 0.3 },
      'footDiameterM',
      'wider',
    ],
    [
      'wax whiter than any',
      { ...box, material: { kind: 'wax', reflectance: 0.99, meanFreePathM: 0.001 } },
      'material.reflectance',
      '0.98',
    ],
    ['half a point', mesh(floats(0, 0, 0, 1), wholes(0, 1, 2)), 'positionsBase64', 'three points'],
    ['half a triangle', mesh(right, wholes(0, 1)), 'trianglesBase64', 'whole triangle'],
    [
      'a point that is none',
      mesh(floats(0, 0, 0, Number.NaN, 0, 0, 0, 1, 0), wholes(0, 1, 2)),
      'positionsBase64',
      'point 1',
    ],
    [
      'more triangles in parts than there are',
      { ...mesh(right, wholes(0, 1, 2)), parts: [{ name: 'lid', triangles: 2 }] },
      'parts',
      'name 2 triangles of 1',
    ],
    ['a corner that is none', mesh(right, wholes(0, 1, 3)), 'trianglesBase64', 'point 3 of 3'],
  ])('%s', (_name, thing, path, words) => {
    const found = problemsWith('products', thing).find(([at]) => at === path);
    expect(found?.[1]).toContain(words);
  });

  test('liquid would spill from a leaning bottle', () => {
    const [bottle] = demoSet('cordial').products;
    const found = problemsWith('products', { ...bottle, id: 'leaning', lean: { deg: 20 } });
    expect(found.map(([path]) => path)).toContain('lean');
  });

  test('meshes are bounded together too, and the one that is too much is named', () => {
    const many = 'AAAA'.repeat(210_000 * 4);
    const one = { ...mesh(right, many), kind: 'mesh' };
    const set = (count: number) =>
      setDocument.safeParse({
        ...demoSet('cordial'),
        products: Array.from({ length: count }, (_, i) => ({ ...one, id: `mesh-${i}` })),
      });
    expect(set(1).success).toBe(true);
    const words = set(3).error?.issues.filter(({ message }) => message.includes('together'));
    expect(words?.map(({ path }) => path.slice(0, 2))).toEqual([['products', 1]]);
    expect(words?.[0]?.message).toContain('400000 triangles together');
  });

  test('a mesh that is right is taken', () => {
    expect(problemsWith('products', mesh(right, wholes(0, 1, 2)))).toEqual([]);
  });
});
