import { defaultKit } from '@fendrix/catalogue';
import { setDocument } from '@fendrix/contract';
import { facingOf, withFocusKept } from '@fendrix/core';
import { demoSet } from '@fendrix/demo';
import { describe, expect, test } from 'vitest';
import { aimAlong, aimedOf, aimThing, faceThing } from '../src/features/bench/state/aiming';
import { changedSince } from '../src/features/bench/state/edit';
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
  standThing,
  type ThingRef,
} from '../src/features/bench/state/edits';
import { sheetAt } from '../src/features/bench/state/sheetPlaces';
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

describe('aiming', () => {
  test.each<[ThingRef]>([
    [{ kind: 'light', key: 'A' }],
    [{ kind: 'sheet', key: '2' }],
    [{ kind: 'camera', key: '' }],
  ])('%j is aimed where it stands; moved it faces its point, or keeps its direction', (thing) => {
    const aimed = aimThing(thing, { aimM: [0.4, 0.1, 0.3] })(set);
    expect(aimedOf(aimed, thing)?.aimM).toEqual([0.4, 0.1, 0.3]);
    expect(positionOf(aimed, thing)).toEqual(positionOf(set, thing));
    expect(setDocument.safeParse(aimed).success).toBe(true);
    const [x, y, z] = positionOf(set, thing) ?? [0, 0, 0];
    const to: [number, number, number] = [x + 0.1, y - 0.2, z + 0.05];
    expect(aimedOf(moveThing(thing, to)(aimed), thing)?.aimM).toEqual([0.4, 0.1, 0.3]);
    const keeps = aimThing(thing, { keepsDirection: true })(aimed);
    const moved = aimedOf(moveThing(thing, to)(keeps), thing);
    [0.5, -0.1, 0.35].forEach((value, axis) => {
      expect(moved?.aimM[axis]).toBeCloseTo(value, 9);
    });
    expect(setDocument.safeParse(keeps).success).toBe(true);
  });

  test('what is not aimed stays as it is', () => {
    const bottle: ThingRef = { kind: 'product', key: 'bottle' };
    expect(aimedOf(set, bottle)).toBeNull();
    expect(aimThing(bottle, { aimM: [1, 1, 1] })(set)).toBe(set);
  });

  test('a card with a lens hole is put at the lens, square to its axis', () => {
    const entry = defaultKit().entries.find(({ id }) => id.includes('lens-hole'));
    if (entry?.what !== 'sheet') throw new Error('the kit has a card with a lens hole');
    const added = addFromKit(entry, '9')(set).sheets.at(-1);
    const { positionM, aimM } = set.camera;
    const apart = Math.hypot(...positionM.map((value, axis) => value - (added?.positionM[axis] ?? 0)));
    expect(apart).toBeCloseTo(0.05, 6);
    expect(added?.aimM).toEqual(aimM);
    // Put there again after the camera has moved it goes along.
    const elsewhere = changeCamera({ positionM: [0.3, -1, 0.4] })(set);
    expect(added && sheetAt(elsewhere, added, 'lens')?.positionM[0]).toBeGreaterThan(0.25);
  });
});

describe('two figures typed before the panel is drawn anew', () => {
  const set = demoSet('cordial');
  const bottle: ThingRef = { kind: 'product', key: 'bottle' };

  test('distance and bearing both count, in either order', () => {
    const turns = [standThing(bottle, { distanceM: 0.12 }), standThing(bottle, { bearingDeg: -90 })] as const;
    const there = turns[1](turns[0](set)).products[0]?.positionM;
    expect(there).toEqual([expect.closeTo(-0.12, 9), expect.closeTo(0, 9), expect.closeTo(0, 9)]);
    expect(standThing({ kind: 'product', key: 'gone' }, { distanceM: 1 })(set)).toBe(set);
  });

  test('so do turn and tilt, and the point aimed at along each axis', () => {
    const light: ThingRef = { kind: 'light', key: 'A' };
    const aimed = faceThing(light, { tiltDeg: -30 })(faceThing(light, { bearingDeg: 45 })(set));
    const { positionM, aimM } = aimedOf(aimed, light) ?? { positionM: [0, 0, 0], aimM: [0, 0, 1] };
    expect(facingOf(positionM, aimM)).toMatchObject({
      bearingDeg: expect.closeTo(45, 6),
      tiltDeg: expect.closeTo(-30, 6),
    });
    const moved = aimAlong(light, 2, 0.3)(aimAlong(light, 0, 0.2)(set));
    expect(aimedOf(moved, light)?.aimM).toEqual([0.2, expect.any(Number), 0.3]);
    expect(faceThing(bottle, { tiltDeg: 1 })(set)).toBe(set);
    expect(aimAlong(bottle, 0, 1)(set)).toBe(set);
  });

  test('what a form changed of a thing as shown is changed of it as it is by then', () => {
    const shown = { width: 1, height: 2, label: { name: 'a' }, tone: 3 as number | undefined };
    const now = { ...shown, width: 9 };
    expect(changedSince(shown, { ...shown, height: 5 }, now)).toEqual({ ...now, height: 5 });
    const { tone: _gone, ...without } = shown;
    expect('tone' in changedSince(shown, without as typeof shown, now)).toBe(false);
    expect(changedSince<object>(shown, { ...shown, more: 1 }, now)).toEqual({ ...now, more: 1 });
    expect(changedSince(shown, now, shown)).toBe(now);
  });
});
