import { defaultKit } from '@fendrix/catalogue';
import { type Studio, setDocument } from '@fendrix/contract';
import { overlaps } from '@fendrix/core';
import { expect, test } from 'vitest';
import { addFromKit, windowsToAdd } from '../src/features/bench/state/edits';
import { starterSet } from '../src/features/sets/starterSet';

const { entries, studio } = defaultKit();
if (!studio) throw new Error('the kit has a studio');
const lights = entries.flatMap((entry) => (entry.what === 'light' ? [entry.thing] : []));

const small: Studio = {
  ...studio,
  room: { ...studio.room, widthM: 2.4, depthM: 1.6, markFromLeftM: 1.2, markFromFrontM: 1.1 },
  bench: { ...studio.bench, widthM: 0.8, depthM: 0.6 },
  windows: [],
};
const large: Studio = {
  ...studio,
  room: { ...studio.room, widthM: 8, depthM: 9, heightM: 3.5, markFromLeftM: 3, markFromFrontM: 5 },
};

test.each<[string, Studio]>([
  ['the usual room', studio],
  ['a small room', small],
  ['a large room', large],
])('a new set stands in %s: table, walls, camera and paper within the walls', (_name, own) => {
  const set = starterSet(lights, own);
  expect(setDocument.safeParse(set).error?.issues).toBeUndefined();
  expect(set.room).toEqual(own.room);
  expect(set.bench).toEqual(own.bench);
  // Its windows are there to be put on it, each once.
  const windows = windowsToAdd(set, own);
  expect(windows.map(({ name }) => name)).toEqual(own.windows.map(({ name }) => name));
  const lit = windows.reduce((now, thing) => addFromKit({ what: 'light', thing }, 'W')(now), set);
  expect(setDocument.safeParse(lit).error?.issues).toBeUndefined();
  expect(windowsToAdd(lit, own)).toEqual([]);
  expect(-set.camera.positionM[1]).toBeLessThan(own.room.markFromFrontM - 0.2);
  const back = own.room.depthM - own.room.markFromFrontM;
  expect(set.backdrop?.kind === 'sweep' && set.backdrop.backM).toBeLessThan(back);
  expect(overlaps(set)).toEqual([]);
});

test('without a room that is known it stands in the dark, as before', () => {
  const set = starterSet(lights);
  expect(set.room).toBeUndefined();
  expect(set.lights).toHaveLength(1);
  expect(set.camera.positionM).toEqual([0, -1.2, 0.12]);
});
