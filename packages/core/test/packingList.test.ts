import { defaultKit } from '@fendrix/catalogue';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { packingList } from '../src/index.js';

const kit = defaultKit();
const [cordial, perry] = [demoSet('cordial'), demoSet('perry')];
const day = [
  { name: 'One', set: cordial },
  { name: 'Two', set: cordial },
  { name: 'Three', set: perry },
];

describe('a packing list', () => {
  test('holds all that stands on any set once, as many as stand on one set, with its pictures', () => {
    const list = packingList(day, kit);
    const lights = list.filter(({ what }) => what === 'light');
    const sum = lights.reduce((all, { count }) => all + count, 0);
    expect(sum).toBeGreaterThanOrEqual(perry.lights.length);
    expect(sum).toBeLessThanOrEqual(perry.lights.length + cordial.lights.length);
    for (const { pictures, count } of list) {
      expect(count).toBeGreaterThan(0);
      expect(new Set(pictures).size).toBe(pictures.length);
    }
    const products = list.filter(({ what }) => what === 'product');
    expect(products.find(({ name }) => name === cordial.products[0]?.name)?.pictures).toEqual(['One', 'Two']);
  });

  test('what the kit has not, or has too few of, comes first with what could stand in', () => {
    const poor = { ...kit, entries: kit.entries.filter(({ what }) => what !== 'light') };
    const list = packingList(day, poor);
    const missing = list.filter(({ inKit }) => inKit === false);
    expect(missing.length).toBeGreaterThan(0);
    expect(list.slice(0, missing.length).every(({ inKit }) => inKit === false)).toBe(true);
    // A set with more of a size than there are pieces.
    const lights = [...'ABCDEFGH'].map((tag) => ({ ...perry.lights[0], tag }));
    const short = packingList([{ name: 'Row', set: { ...perry, lights: lights as never } }], kit).filter(
      ({ what, inKit }) => what === 'light' && inKit === false,
    );
    expect(short.reduce((all, { count }) => all + count, 0)).toBeGreaterThan(0);
    expect(short.some(({ instead }) => instead.length > 0)).toBe(true);
  });

  test('a net is no black card, a shiny black flag is one', () => {
    const flag = (front: object, widthM = 0.2, heightM = 0.3) => {
      const [sheet] = cordial.sheets;
      const own = { ...sheet, kind: 'flag', name: 'Own flag', widthM, heightM, front, back: front };
      const list = packingList([{ name: 'One', set: { ...cordial, sheets: [own] as never } }], kit);
      return list.find(({ what }) => what === 'sheet')?.name;
    };
    expect(flag({ kind: 'matte', reflectance: 0.04 })).toBe('Black flag 20 x 30');
    const net = kit.entries.find(({ name }) => name === 'Net, half a stop');
    if (net?.what !== 'sheet' || !('widthM' in net.thing) || !('heightM' in net.thing))
      throw new Error('the kit has a net');
    const { front, widthM, heightM } = net.thing as { front: object; widthM: number; heightM: number };
    expect(flag(front, widthM, heightM)).not.toBe('Black flag 20 x 30');
    expect(flag({ kind: 'matte', reflectance: 0.04 }, widthM, heightM)).not.toBe('Net, half a stop');
  });

  test('a lens is told by its focal length, a body by its name; a kit without any does not keep them', () => {
    const lens = (focalLengthM: number) =>
      packingList(
        [
          {
            name: 'One',
            set: {
              ...cordial,
              camera: { ...cordial.camera, lens: { ...cordial.camera.lens, focalLengthM } },
            },
          },
        ],
        kit,
      ).find(({ what }) => what === 'lens')?.inKit;
    expect(lens(0.1)).toBe(true);
    expect(lens(1.2)).toBe(false);
    const none = packingList(day, { entries: [] });
    expect(
      none.filter(({ what }) => what === 'body' || what === 'lens').every(({ inKit }) => inKit === null),
    ).toBe(true);
  });
});
