import { defaultKit } from '@fendrix/catalogue';
import { setDocument } from '@fendrix/contract';
import { withFocusKept } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import {
  addFromKit,
  changeCamera,
  changeLight,
  changeProduct,
  changeSheet,
  freeTag,
  giveMaterial,
  keyOfAdded,
  moveThing,
  pinSpot,
  positionOf,
  removeSpot,
  removeThing,
  type ThingRef,
} from '../src/features/bench/state/edits';
import { starterSet } from '../src/features/sets/starterSet';

const set = demoSet('cordial');

describe('changes of a set', () => {
  test.each<[ThingRef]>([
    [{ kind: 'light', key: 'A' }],
    [{ kind: 'sheet', key: '2' }],
    [{ kind: 'product', key: 'bottle' }],
    [{ kind: 'camera', key: '' }],
  ])('%j is moved, and nothing else changes', (thing) => {
    const moved = moveThing(thing, [0.1, -0.9, 0.2])(set);
    expect(positionOf(moved, thing)).toEqual([0.1, -0.9, 0.2]);
    expect(moved.room).toBe(set.room);
    expect(moved.spots).toBe(set.spots);
    if (thing.key !== 'A') expect(moved.lights[0]).toBe(set.lights[0]);
    if (thing.key !== '1') expect(moved.sheets[0]).toBe(set.sheets[0]);
    expect(setDocument.safeParse(moved).success).toBe(true);
  });

  test('a moved camera keeps its plane of focus on the same place', () => {
    const { camera } = withFocusKept(set, moveThing({ kind: 'camera', key: '' }, [0, -1.2, 0.123])(set));
    const before = Math.hypot(...set.camera.aimM.map((value, a) => value - (set.camera.positionM[a] ?? 0)));
    expect(camera.focusM).toBeCloseTo(set.camera.focusM + 1.2 - before, 4);
  });

  test('a thing that is not there is moved nowhere', () => {
    expect(positionOf(set, { kind: 'light', key: 'Z' })).toBeNull();
    expect(moveThing({ kind: 'sheet', key: '77' }, [0, 0, 0])(set)).toEqual(set);
  });

  test('camera, light, sheet, product and spots take their changes', () => {
    expect(changeCamera({ iso: 400 })(set).camera.iso).toBe(400);
    expect(changeLight('A', (light) => ({ ...light, on: false }))(set).lights[0]?.on).toBe(false);
    expect(changeSheet('1', (sheet) => ({ ...sheet, name: 'other' }))(set).sheets[0]?.name).toBe('other');
    expect(
      changeProduct('bottle', (product) => ({ ...product, turnDeg: 20 }))(set).products[0]?.turnDeg,
    ).toBe(20);
    const spot = {
      name: 'new',
      pointM: [0, 0, 0] as [number, number, number],
      normal: [0, 0, 1] as [number, number, number],
    };
    const pinned = pinSpot(spot)(set);
    expect(pinned.spots.at(-1)).toBe(spot);
    expect(removeSpot('new')(pinned).spots).toEqual(set.spots);
  });

  test('what is taken off is only that', () => {
    const without = removeThing({ kind: 'sheet', key: '1' })(set);
    expect(without.sheets.map(({ tag }) => tag)).toEqual(['2']);
    expect(without.lights).toEqual(set.lights);
    expect(removeThing({ kind: 'product', key: 'bottle' })(set).products).toEqual([]);
  });

  test('things of the kit get free tags and make a valid set', () => {
    expect(freeTag(set, 'light')).toBe('B');
    expect(freeTag(set, 'sheet')).toBe('3');
    const { entries } = defaultKit();
    const softbox = entries.find(({ id }) => id === 'softbox-40x60');
    if (softbox?.what !== 'light') throw new Error('the kit has a softbox');
    const full = {
      ...set,
      lights: Array.from({ length: 26 }, (_, i) => ({ ...softbox.thing, tag: String.fromCharCode(65 + i) })),
    };
    expect(keyOfAdded(full, softbox)).toBeNull();
    let more = set;
    for (const id of ['softbox-40x60', 'tracing-paper', 'jar', 'jar']) {
      const entry = entries.find((candidate) => candidate.id === id);
      if (!entry || entry.what === 'material' || entry.what === 'equipment') throw new Error(`${id} stands`);
      const ref = keyOfAdded(more, entry);
      if (!ref) throw new Error(`${id} fits on the set`);
      more = addFromKit(entry, ref.key)(more);
    }
    expect(more.products.map(({ id }) => id)).toEqual(['bottle', 'jar', 'jar-2']);
    expect(setDocument.safeParse(more).success).toBe(true);
  });

  test('a material goes on what is selected, see-through ones on both sides of a sheet', () => {
    const steel = { kind: 'metal', metal: 'steel', roughness: 0 } as const;
    const made = giveMaterial({ kind: 'product', key: 'bottle' }, steel)(set);
    expect(made.products[0]?.material).toBe(steel);
    const frost = { kind: 'translucent', reflectance: 0.4, transmittance: 0.5, haze: 1 } as const;
    const sheet = giveMaterial({ kind: 'sheet', key: '1' }, frost)(set).sheets[0];
    expect([sheet?.front, sheet?.back]).toEqual([frost, frost]);
  });

  test('a new set starts valid, with a product, a light and the camera on it', () => {
    const starter = starterSet([]);
    expect(starter.products).toHaveLength(1);
    expect(starter.lights).toHaveLength(1);
    expect(starter.camera.aimM[2]).toBeGreaterThan(0);
  });
});
