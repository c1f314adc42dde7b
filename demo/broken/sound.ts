import type { SetDocument } from '@fendrix/contract';
import { bowl, box, gloss, jar, labelledJar, matte, metal, rowOf, shirt } from './products.js';
import { soundInSeries } from './seriesFaults.js';
import { soft, studioSet } from './studio.js';

/** A set with nothing wrong. */
export interface SoundSet {
  name: string;
  set: SetDocument;
}

/** Looked at straight down, under two large lights from both sides. */
export const layCamera = {
  positionM: [0, -0.001, 1.4] as [number, number, number],
  aimM: [0, 0, 0] as [number, number, number],
  focusM: 1.38,
};

export const laySet = (seed: number, more: object = {}): SetDocument => {
  const set = studioSet(seed, [shirt(seed)], {
    lights: [
      soft('A', -1.3, -0.7, { positionM: [-1.3, 0, 0.9], aimM: [0, 0, 0], widthM: 0.9, heightM: 0.9 }),
      soft('B', 1.3, -1.3, { positionM: [1.3, 0, 0.9], aimM: [0, 0, 0], widthM: 0.9, heightM: 0.9 }),
    ],
    ...more,
  });
  return { ...set, camera: { ...set.camera, ...layCamera } };
};

/** A low row needs a wider frame. */
export const rowCamera = (set: SetDocument): SetDocument => ({
  ...set,
  camera: { ...set.camera, positionM: [0, -2, 0.4], focusM: 1.97 },
});

/** Sets that a photographer would take as they are. */
export function soundSets(): SoundSet[] {
  const named = (name: string, sets: readonly SetDocument[]) =>
    sets.map((set, i) => ({ name: `${name} ${i + 1}`, set }));
  const over = (seeds: readonly number[], make: (seed: number) => SetDocument) => seeds.map(make);
  return [
    ...named(
      'a matte jar',
      over([0, 1, 2, 3], (seed) => studioSet(seed, [jar(seed)])),
    ),
    ...named(
      'a box',
      over([4, 5, 6], (seed) => studioSet(seed, [box(seed)])),
    ),
    ...named(
      'a gloss jar',
      over([7, 8], (seed) => studioSet(seed, [jar(seed, gloss(0.3))])),
    ),
    ...named(
      'a labelled jar',
      over([9, 10, 11], (seed) => studioSet(seed, [labelledJar(seed)])),
    ),
    ...named(
      'a bowl of food',
      over([12, 13], (seed) => studioSet(seed, [bowl(seed)], { wishes: { sharp: 'front' } })),
    ),
    ...named(
      'a satin tin',
      over([14, 15], (seed) => studioSet(seed, [jar(seed, metal(0.35))])),
    ),
    ...named(
      'a shirt from above',
      over([16, 17], (seed) => laySet(seed)),
    ),
    ...named(
      'the next of a series',
      over([0, 1, 3], (seed) => soundInSeries(seed)),
    ),
    ...named(
      'a row of jars',
      over([0, 5], (seed) => rowCamera(studioSet(seed, rowOf(jar(seed, matte(0.35)), 3, 0.16)))),
    ),
  ];
}
