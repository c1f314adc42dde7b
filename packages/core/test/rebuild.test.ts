import type { Product, SetDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { changesBetween, focusPoint, type Rebuilt, type RebuiltImage, rebuildWith } from '../src/index.js';
import { defaultKitProducts } from './kitProducts.js';

const kitProduct = (id: string): Product => {
  const found = defaultKitProducts().find(([own]) => own === id);
  if (!found) throw new Error(`the kit has no ${id}`);
  return found[1];
};
const named = (name: RegExp): Product => {
  const found = defaultKitProducts().find(([, product]) => name.test(product.name));
  if (!found) throw new Error(`the kit has no ${name}`);
  return found[1];
};
const rebuilt = (set: SetDocument, product: Product, align: 'base' | 'centre' = 'base'): Rebuilt => {
  const found = rebuildWith(set, { product: set.products[0]?.id ?? '', with: product, align });
  if (!found) throw new Error('it was not rebuilt');
  return found;
};
const off = ({ was, now }: RebuiltImage) =>
  now ? Math.max(Math.abs(was.from - now.from), Math.abs(was.to - now.to)) : Number.POSITIVE_INFINITY;

describe('an old set with another product', () => {
  test('of the same form: nothing else is touched', () => {
    const set = demoSet('mill');
    const { set: after, images, cameraBackM, liftM } = rebuilt(set, named(/Polished cylinder/));
    expect(images.length).toBeGreaterThan(1);
    for (const image of images) {
      expect(image.how).toBe('stays');
      expect(off(image)).toBeLessThan(0.015);
    }
    expect([cameraBackM, liftM]).toEqual([0, 0]);
    expect(after.lights).toEqual(set.lights);
    expect(after.sheets).toEqual(set.sheets);
    expect(after.camera.positionM).toEqual(set.camera.positionM);
    expect(changesBetween(set, after).map(({ thing }) => thing.kind)).toEqual(
      expect.arrayContaining(['product']),
    );
  });

  test('much lower: what made its highlights is moved or cut until they lie as they did; the light arrives as before', () => {
    const set = demoSet('cordial');
    const { set: after, images } = rebuilt(set, named(/Jar with lid/));
    const touched = images.filter(({ how }) => how !== 'stays');
    expect(touched.length).toBeGreaterThan(0);
    for (const image of images) expect(off(image), image.name).toBeLessThan(0.02);
    // What is said to be cut is cut, what is said to be moved has moved, and nothing else has.
    for (const { kind, key, how } of images) {
      const [was, now] = [set, after].map((own) =>
        kind === 'light'
          ? own.lights.find(({ tag }) => tag === key)
          : own.sheets.find(({ tag }) => tag === key),
      );
      // One that faced a point over the jar faces the jar.
      if (how === 'stays') expect({ ...now, aimM: null }).toEqual({ ...was, aimM: null });
      if (how === 'size') expect(now).not.toHaveProperty('widthM', (was as { widthM: number }).widthM);
    }
    for (const light of after.lights) {
      const was = set.lights.find(({ tag }) => tag === light.tag);
      if (!was || !('aimM' in light) || !('aimM' in was) || light.positionM === was.positionM) continue;
      // To where it faces now: that is on the jar.
      const away = (own: typeof light) =>
        Math.hypot(...own.positionM.map((v, a) => v - (light.aimM[a] as number)));
      const stops =
        light.powerStops - was.powerStops - 2 * Math.log2(away(light) / away(was as typeof light));
      expect(Math.abs(stops)).toBeLessThan(0.06);
    }
  });

  test('on a riser its middle is where the old one’s was, and less has to change', () => {
    const set = demoSet('cordial');
    const jar = named(/Jar with lid/);
    const [base, centre] = [rebuilt(set, jar), rebuilt(set, jar, 'centre')];
    expect(centre.liftM).toBeCloseTo((base.size.was.heightM - base.size.now.heightM) / 2, 6);
    expect(centre.set.products[0]?.positionM[2]).toBeCloseTo(centre.liftM, 6);
    const moved = (own: Rebuilt) => own.images.filter(({ how }) => how !== 'stays').length;
    expect(moved(centre)).toBeLessThanOrEqual(moved(base));
    // A taller one is not sunk into the table.
    expect(rebuilt(demoSet('mill'), named(/Round bottle/), 'centre').liftM).toBe(0);
  });

  test('too large for the frame: the camera goes back as little as it takes, or it is said that it cannot', () => {
    const set = demoSet('mill');
    const bottle = named(/Round bottle/);
    const own = rebuilt(set, bottle);
    expect(own.fits).toBe(true);
    expect(own.cameraBackM).toBeGreaterThan(0.01);
    const { room } = set;
    const roomy = { widthM: 3, depthM: 3, heightM: 2.6, markFromLeftM: 1.5 } as const;
    const walls = { kind: 'matte', reflectance: 0.5 } as const;
    const tight: SetDocument = {
      ...set,
      room: {
        ...(room ?? { ...roomy, walls, ceiling: walls, floor: walls }),
        markFromFrontM: -set.camera.positionM[1] + 0.01,
      },
    };
    const stuck = rebuilt(tight, bottle);
    expect(stuck.fits).toBe(false);
    expect(stuck.cameraBackM).toBe(0);
    expect(stuck.set.camera).toEqual({ ...set.camera, focusM: stuck.set.camera.focusM });
  });

  test('of matt stuff: nothing is moved for images that are not there, and that is said', () => {
    const set = demoSet('mill');
    const matt: Product = {
      ...named(/Polished cylinder/),
      material: { kind: 'matte', reflectance: 0.4 },
    } as Product;
    const { images, set: after } = rebuilt(set, matt);
    expect(images.map(({ limited }) => limited)).toEqual(images.map(() => 'not-mirrored'));
    expect(after.lights).toEqual(set.lights);
  });

  test('spots stay on its surface, focus and highlights go along, takes are those of the old one', () => {
    const set = demoSet('cordial');
    const jar = named(/Jar with lid/);
    const { set: after } = rebuilt(set, jar);
    const [label] = set.spots;
    const moved = after.spots.find(({ name }) => name === label?.name);
    const tall = 'profile' in jar ? Math.max(...jar.profile.map(({ heightM }) => heightM)) : 0;
    expect(moved?.pointM[2]).toBeLessThan(tall);
    const radius = Math.hypot(moved?.pointM[0] ?? 9, moved?.pointM[1] ?? 9);
    const wide = 'profile' in jar ? Math.max(...jar.profile.map(({ radiusM }) => radiusM)) : 0;
    expect(radius).toBeLessThan(wide + 0.001);
    expect(radius).toBeGreaterThan(0.5 * wide);
    expect(after.takes).toEqual([]);
    expect(focusPoint(after).product).toBe(after.products[0]?.id);
    expect(after.products[0]?.name).toBe(jar.name);
    // What refers to the old one by its id refers to the new one.
    expect(after.products[0]?.id).toBe(set.products[0]?.id);
  });

  test('what is said to lie as it did does, and what does not is said, on every demo set and form', {
    tags: ['more'],
  }, () => {
    for (const name of ['bottle', 'vinegar'] as const) {
      for (const product of [named(/Polished cylinder/), named(/Box with label/)]) {
        for (const image of rebuilt(demoSet(name), product).images)
          expect(image.limited === null, `${name} ${image.key}`).toBe(off(image) <= 0.015);
      }
    }
  });

  test('of which the set has none: nothing', () => {
    expect(
      rebuildWith(demoSet('mill'), {
        product: 'none',
        with: kitProduct(defaultKitProducts()[0]?.[0] ?? ''),
        align: 'base',
      }),
    ).toBeNull();
  });
});
