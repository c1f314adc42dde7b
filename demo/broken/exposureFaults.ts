import { setDocument } from '@fendrix/contract';
import { camera, type Fault, light, radiusOf, STRONG, wished, withLights, withSheets } from './changes.js';
import { bowl, box, jar, labelledJar, matte } from './products.js';
import { laySet } from './sound.js';
import { card, lamp, soft, studioSet } from './studio.js';

/** Faults of light: too much, too little, of another colour, at another time, from the wrong side. */
export const EXPOSURE_FAULTS: readonly Fault[] = [
  {
    code: 'burnt',
    name: 'one light much too strong',
    cause: 'A',
    seeds: [0, 4],
    make: (seed) => light(studioSet(seed, [jar(seed, matte(0.8))]), 'A', { powerStops: 0 }),
  },
  {
    code: 'burnt',
    name: 'a box under too strong a light from the right',
    cause: 'B',
    seeds: [1, 5],
    make: (seed) => light(studioSet(seed, [box(seed, matte(0.8))]), 'B', { powerStops: 0, output: STRONG }),
  },
  {
    code: 'lost-in-black',
    name: 'much too dark',
    cause: 'A',
    seeds: [2, 3],
    make: (seed) =>
      camera(studioSet(seed, [seed % 2 === 0 ? jar(seed) : bowl(seed)], { wishes: { sharp: 'front' } }), {
        fNumber: 64,
        iso: 25,
      }),
  },
  {
    code: 'product-dark',
    name: 'half as much light as the f-stop asks for, and half of that again',
    cause: 'A',
    seeds: [1, 4],
    make: (seed) => {
      const set = studioSet(seed, [seed % 2 === 0 ? jar(seed, matte(0.6)) : box(seed, matte(0.5))]);
      return camera(set, { iso: set.camera.iso / 8 });
    },
  },
  {
    code: 'ground-not-white',
    name: 'a white ground that is grey',
    cause: 'A',
    seeds: [0, 6],
    make: (seed) => wished(studioSet(seed, [seed % 2 === 0 ? jar(seed) : box(seed)]), { ground: 'white' }),
  },
  {
    code: 'ground-not-black',
    name: 'a black ground that is grey',
    cause: 'A',
    seeds: [1, 7],
    make: (seed) => wished(studioSet(seed, [jar(seed)]), { ground: 'black' }),
  },
  {
    code: 'ground-off-grey',
    name: 'a grey of another tone',
    cause: 'A',
    seeds: [2, 8],
    make: (seed) => wished(studioSet(seed, [jar(seed)]), { ground: 'grey', greyStops: 1.2 }),
  },
  {
    code: 'ground-gradient',
    name: 'an even ground that is to fade',
    cause: 'A',
    seeds: [1, 5],
    make: (seed) =>
      wished(studioSet(seed, [seed % 2 === 0 ? jar(seed) : box(seed)]), {
        ground: 'gradient',
        gradientFromStops: 0.5,
        gradientToStops: -2.5,
      }),
  },
  {
    code: 'ground-sharp',
    name: 'a paper that shows its grain',
    cause: null,
    seeds: [0, 3],
    make: (seed) => wished(studioSet(seed, [jar(seed)]), { groundBlurPart: 0.006, sharp: 'front' }),
  },
  {
    code: 'over-sync',
    name: 'faster than the flash sync',
    cause: null,
    seeds: [0, 9],
    make: (seed) => camera(studioSet(seed, [seed % 2 === 0 ? jar(seed) : box(seed)]), { shutterS: 1 / 800 }),
  },
  {
    code: 'not-sharp',
    name: 'focus behind it',
    cause: null,
    seeds: [3, 10],
    make: (seed) => camera(studioSet(seed, [jar(seed)]), { focusM: 1.6, fNumber: 4, iso: 12 }),
  },
  {
    code: 'not-sharp',
    name: 'wide open',
    cause: null,
    seeds: [4],
    make: (seed) => camera(studioSet(seed, [box(seed)]), { focusM: 1.14, fNumber: 2.8, iso: 6 }),
  },
  {
    code: 'mixed-colour',
    name: 'a warm lamp beside the flash',
    cause: 'C',
    seeds: [2, 6],
    make: (seed) =>
      withLights(
        studioSet(seed, [jar(seed)]),
        lamp('C', 3600, { output: { kind: 'lumens', lumens: 60_000 } }),
      ),
  },
  {
    code: 'room-light',
    name: 'a lamp left on',
    cause: 'C',
    seeds: [0, 3],
    make: (seed) =>
      withLights(
        camera(studioSet(seed, [jar(seed)]), { shutterS: 1 / 30 }),
        lamp('C', 5500, { powerStops: -1 }),
      ),
  },
  {
    code: 'hot-lamp',
    name: 'a halogen lamp by a card',
    cause: 'C',
    seeds: [1, 4],
    make: (seed) =>
      withSheets(
        withLights(
          studioSet(seed, [jar(seed)]),
          lamp('C', 3000, { positionM: [1.2, -0.8, 0.6], output: { kind: 'lumens', lumens: 150 } }),
        ),
        card('1', [1.3, -0.6, 0.5]),
      ),
  },
  {
    code: 'tone-missed',
    name: 'a spot off its tone',
    cause: 'A',
    seeds: [0, 7],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed)]);
      const front = set.products[0]?.positionM ?? [0, 0, 0];
      return setDocument.parse({
        ...set,
        spots: [
          {
            name: 'front',
            pointM: [front[0], -0.045, 0.07],
            normal: [0, -1, 0],
            target: { from: 2.2, to: 2.4 },
          },
        ].map((spot) => ({ ...spot, pointM: [spot.pointM[0], radiusOf(set) * -1, 0.07] })),
      });
    },
  },
  {
    code: 'light-in-lens',
    name: 'a light from behind that sees the lens',
    cause: 'C',
    seeds: [0, 2],
    make: (seed) =>
      withLights(
        studioSet(seed, [jar(seed)]),
        soft('C', 0.5, 0, { positionM: [0.5, -0.1, 0.5], aimM: [0, -1.2, 0.3], output: STRONG }),
      ),
  },
  {
    code: 'moves',
    name: 'a slow flash on a pour',
    cause: 'A',
    seeds: [0, 1],
    make: (seed) =>
      wished(light(studioSet(seed, [jar(seed)]), 'A', { duration: { fullS: 1 / 250, stopsPerStop: 1 } }), {
        movement: 'frozen',
      }),
  },
  {
    code: 'shaken',
    name: 'the button pressed on a long exposure',
    cause: 'C',
    seeds: [0, 2],
    make: (seed) => {
      const set = camera(studioSet(seed, [jar(seed)]), { shutterS: 0.5, release: 'hand' });
      return {
        ...set,
        lights: [
          lamp('C', 5500, { output: { kind: 'lumens', lumens: 40_000 }, positionM: [-0.5, -0.6, 0.5] }),
        ] as never,
      };
    },
  },
  {
    code: 'flat',
    name: 'light from all round',
    cause: 'S',
    seeds: [0, 3],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed, matte(0.3))]);
      const round = {
        kind: 'surround',
        tag: 'S',
        name: 'White room',
        output: { kind: 'luminance', luminanceCdM2: 300 },
      };
      return camera({ ...set, room: undefined, lights: [round] as never }, { shutterS: 0.5 });
    },
  },
  {
    code: 'contrast-off',
    name: 'one light where little contrast is wished',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed)]);
      return wished(light(set, 'B', { powerStops: -6 }), { keyToFillStops: 0.6 });
    },
  },
  {
    code: 'lay-uneven',
    name: 'a lay with one near light at its side',
    cause: 'A',
    seeds: [0, 1],
    make: (seed) => {
      const set = laySet(seed);
      return {
        ...set,
        lights: [
          soft('A', -0.5, -3.4, { positionM: [-0.6, 0, 0.4], aimM: [0, 0, 0], widthM: 0.4, heightM: 0.4 }),
        ] as never,
      };
    },
  },
  {
    code: 'not-raked',
    name: 'a high light where texture is to be raked',
    cause: 'A',
    seeds: [0, 1],
    make: (seed) => {
      const set = laySet(seed);
      return wished(light(set, 'A', { positionM: [-0.5, 0, 1.3] }), { texture: 'raked' });
    },
  },
  {
    code: 'not-picked-out',
    name: 'an embossed label under a light beside the lens',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) =>
      wished(
        light(studioSet(seed, [labelledJar(seed)]), 'A', { positionM: [-0.15, -1.2, 0.35], powerStops: -1 }),
        { words: 'picked-out' },
      ),
  },
];
