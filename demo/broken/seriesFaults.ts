import { type SetDocument, setDocument } from '@fendrix/contract';
import { evidenceOf, likenessOf, prepareTracing, traceView } from '@fendrix/core';
import { camera, type Fault, light, moved, wished } from './changes.js';
import { jar, labelledJar, matte } from './products.js';
import { lamp, studioSet } from './studio.js';

/** A set whose picture is to be like that of another one. */
export function like(set: SetDocument, first: SetDocument): SetDocument {
  const found = likenessOf(
    evidenceOf(first, traceView(prepareTracing(first), first, { samples: 4 })),
    'First',
  );
  return found ? wished(set, { like: found }) : set;
}

/** The first of a series, and the next of it: another product at the same place. */
const first = (seed: number): SetDocument => studioSet(seed, [jar(seed)]);
const next = (seed: number): SetDocument => studioSet(seed, [jar(seed, matte(0.22))]);

/** Under daylight lamps, balanced to it. */
const underLamps = (seed: number): SetDocument => {
  const lamps = [lamp('A', 5600, { positionM: [-0.8, -0.6, 0.5] }), lamp('B', 5600, { powerStops: -1.3 })];
  return setDocument.parse(
    camera(studioSet(seed, [jar(seed)], { lights: lamps }), { whiteBalanceK: 5600, shutterS: 0.25 }),
  );
};

/** Faults of a picture that stands beside the first of its series. */
export const SERIES_FAULTS: readonly Fault[] = [
  {
    code: 'unlike-size',
    name: 'the camera pushed nearer between two of a series',
    cause: 'jar',
    seeds: [0, 2],
    make: (seed) => {
      const set = next(seed);
      const [x, y, z] = set.camera.positionM;
      return like(camera(set, { positionM: [x, y + 0.14, z - 0.025], focusM: 1.03 }), first(seed));
    },
  },
  {
    code: 'unlike-place',
    name: 'a product put down beside its mark',
    cause: 'jar',
    seeds: [1, 3],
    make: (seed) => like(moved(next(seed), 'jar', [0.06, 0, 0]), first(seed)),
  },
  {
    code: 'unlike-angle',
    name: 'the tripod wound up between two of a series',
    cause: null,
    seeds: [0, 4],
    make: (seed) => like(camera(next(seed), { positionM: [0, -1.17, 0.42] }), first(seed)),
  },
  {
    code: 'unlike-tone',
    name: 'a light turned up between two of a series',
    cause: 'A',
    seeds: [0, 2],
    make: (seed) => {
      const set = studioSet(seed, [labelledJar(seed)]);
      return like(light(set, 'A', { powerStops: -1.5 }), set);
    },
  },
  {
    code: 'unlike-colour',
    name: 'another white balance than the first of a series',
    cause: 'A',
    seeds: [1, 2],
    make: (seed) => {
      const set = underLamps(seed);
      return like(camera(set, { whiteBalanceK: 5000 }), set);
    },
  },
];

/** Sets that may stand beside the first of their series. */
export const soundInSeries = (seed: number): SetDocument => like(next(seed), first(seed));
