import { type SetDocument, setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  applyChange,
  changeBetween,
  lampBehindFrost,
  loseGlare,
  mirrorBand,
  placeForBand,
  prepareTracing,
} from '../src/index.js';

/** Everything that traces no ray is edited, and what can be edited beside: none of it is the answer's to change. */
function editedMeanwhile(set: SetDocument): SetDocument {
  return {
    ...set,
    name: 'Another name',
    lights: set.lights.map((light) => ({ ...light, powerStops: -1.3, name: `${light.name} 2` })),
    sheets: set.sheets.map((sheet) => ({ ...sheet, name: `${sheet.name} 2` })),
    camera: { ...set.camera, iso: 400, shutterS: 1 / 60 },
  };
}

/** Whether the edits are all still there. */
function expectKept(changed: SetDocument | null, edited: SetDocument): void {
  if (!changed) throw new Error('the change could not be made');
  expect(setDocument.safeParse(changed).success).toBe(true);
  expect(changed.name).toBe(edited.name);
  expect(changed.lights.map(({ tag, powerStops, name }) => [tag, powerStops, name])).toEqual(
    edited.lights.map(({ tag, powerStops, name }) => [tag, powerStops, name]),
  );
  expect(changed.sheets.slice(0, edited.sheets.length).map(({ name }) => name)).toEqual(
    edited.sheets.map(({ name }) => name),
  );
  expect(changed.camera).toMatchObject({ iso: 400, shutterS: 1 / 60 });
}

/** A spot of the products that mirrors a light or a sheet. */
function glareOf(set: SetDocument): [number, number] {
  for (const product of set.products) {
    const band = mirrorBand(prepareTracing(set), product);
    const length = band?.lengths.find(({ kind }) => kind === 'light' || kind === 'sheet');
    if (band && length)
      return [band.left + ((length.from + length.to) / 2) * (band.right - band.left), band.down];
  }
  throw new Error('nothing is mirrored');
}

describe('an answer worked out for an older state changes nothing but what it is about', () => {
  const { takeId: _takeId, ...shown } = demoSet('mill');
  const mill: SetDocument = { ...shown, takes: [] };

  test('every way to lose a glare', () => {
    const ways = loseGlare(mill, ...glareOf(mill));
    expect(ways.length).toBeGreaterThan(1);
    for (const way of ways) expectKept(applyChange(editedMeanwhile(mill), way.change), editedMeanwhile(mill));
  });

  test.each(['move', 'size'] as const)('a card placed for the band by %s', (by) => {
    const product = mill.products[0]?.id ?? '';
    const sheet = mill.sheets[0]?.tag ?? '';
    const answer = placeForBand(mill, {
      kind: 'sheet',
      key: sheet,
      product,
      heightM: 0.05,
      from: 0.1,
      to: 0.3,
      by,
    });
    expect(answer?.change.length).toBeGreaterThan(0);
    expectKept(applyChange(editedMeanwhile(mill), answer?.change ?? []), editedMeanwhile(mill));
  });

  test('a lamp behind frost', () => {
    const set = { ...demoSet('cordial-frost'), takes: [] };
    const sheet = set.sheets.find(({ front }) => front.kind === 'translucent')?.tag ?? '';
    const answer = lampBehindFrost(set, {
      light: set.lights[0]?.tag ?? '',
      sheet,
      bright: 'bottom',
      differenceStops: 2,
    });
    if (!answer || 'refused' in answer) throw new Error('no gradient');
    expectKept(applyChange(editedMeanwhile(set), answer.change), editedMeanwhile(set));
  });
});

describe('a change of a set as data', () => {
  const before = { ...demoSet('mill'), takes: [] };
  const [first] = before.lights;
  if (!first) throw new Error('the mill has no light');

  test('leads from one state to the other, and back', () => {
    const { backdrop: _backdrop, ...rest } = before;
    const after = {
      ...rest,
      lights: [{ ...first, powerStops: -3 }],
      people: [],
      note: before.note,
    } as SetDocument;
    expect(applyChange(before, changeBetween(before, after))).toEqual(after);
    expect(applyChange(after, changeBetween(after, before))).toEqual(before);
  });

  test('cannot be made where what it changes is gone, or what it adds has a name that is taken', () => {
    const dimmed = { ...before, lights: before.lights.map((light) => ({ ...light, powerStops: -3 })) };
    expect(applyChange({ ...before, lights: [] }, changeBetween(before, dimmed))).toBeNull();
    const added = { ...before, lights: [...before.lights, { ...first, tag: 'Z' }] };
    expect(applyChange(added, changeBetween(before, added))).toBeNull();
  });

  test('a thing of another kind takes its place whole', () => {
    const { material: _material, ...product } = before.products[0] as Extract<
      SetDocument['products'][number],
      { material?: unknown }
    >;
    const matte = {
      ...before,
      products: [{ ...product, material: { kind: 'matte', reflectance: 0.5 } }],
    } as SetDocument;
    const change = changeBetween(before, matte);
    expect(change).toEqual([
      { path: ['products', product.id, 'material'], value: { kind: 'matte', reflectance: 0.5 } },
    ]);
  });
});
