import { setDocument } from '@fendrix/contract';
import {
  camera,
  type Fault,
  HALF_HEIGHT,
  heightOf,
  light,
  moved,
  radiusOf,
  rowSet,
  wished,
  withSheets,
} from './changes.js';
import { box, jar, metal, rowOf } from './products.js';
import { rowCamera } from './sound.js';
import { card, soft, studioSet } from './studio.js';

/** Faults of where things stand: in the frame, in rows, in each other's shadow. */
export const ARRANGEMENT_FAULTS: readonly Fault[] = [
  {
    code: 'thing-in-frame',
    name: 'a card in the frame',
    cause: '1',
    seeds: [0, 5],
    make: (seed) => withSheets(studioSet(seed, [jar(seed)]), card('1', [-0.15, 0.1, 0.1])),
  },
  {
    code: 'thing-in-frame',
    name: 'a softbox in the frame',
    cause: 'B',
    seeds: [1],
    make: (seed) =>
      light(studioSet(seed, [box(seed)]), 'B', { positionM: [0.32, 0.15, 0.15], powerStops: -6 }),
  },
  {
    code: 'shadow-deep',
    name: 'one light and nothing on the other side',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => {
      const set = studioSet(seed, [seed % 2 === 0 ? jar(seed) : box(seed)]);
      return wished(
        {
          ...set,
          room: undefined,
          backdrop: set.backdrop && { ...set.backdrop, material: { kind: 'matte', reflectance: 0.3 } },
          lights: set.lights.slice(0, 1),
        },
        { shadow: 'soft', texture: 'smooth' },
      );
    },
  },
  {
    code: 'shadow-unwanted',
    name: 'a shadow where none is wished',
    cause: 'A',
    seeds: [1, 2],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed)]);
      return wished(light(set, 'B', { powerStops: -5.5 }), { shadow: 'none' });
    },
  },
  {
    code: 'shadow-hard',
    name: 'a small light where a soft shadow is wished',
    cause: 'A',
    seeds: [0, 4],
    make: (seed) =>
      wished(light(studioSet(seed, [jar(seed)]), 'A', { widthM: 0.04, heightM: 0.04, powerStops: -2 }), {
        shadow: 'soft',
      }),
  },
  {
    code: 'shadow-doubled',
    name: 'two small lights alike',
    cause: 'B',
    seeds: [0, 1],
    make: (seed) => {
      const small = { widthM: 0.08, heightM: 0.08, powerStops: -2.6 };
      return light(light(studioSet(seed, [seed % 2 === 0 ? jar(seed) : box(seed)]), 'A', small), 'B', small);
    },
  },
  {
    code: 'shadow-direction',
    name: 'a light on the side to which the shadow is to fall',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => wished(studioSet(seed, [jar(seed)]), { shadow: 'soft', shadowTowards: 'left' }),
  },
  {
    code: 'shadow-across',
    name: 'one jar in the shadow of the next',
    cause: 'A',
    seeds: [0, 2],
    make: (seed) => {
      const set = rowSet(seed, 0.14);
      return {
        ...set,
        lights: set.lights.slice(0, 1).map((own) => ({ ...own, positionM: [-1, -0.12, 0.12] }) as typeof own),
      };
    },
  },
  {
    code: 'row-uneven',
    name: 'a row with one near light at its side',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => {
      const set = rowSet(seed, 0.2);
      return {
        ...set,
        lights: [
          soft('A', -0.5, -3.2, { positionM: [-0.5, -0.5, 0.5], aimM: [-0.2, 0, 0.08] }),
          soft('B', 0.8, -6),
        ] as never,
      };
    },
  },
  {
    code: 'row-spacing',
    name: 'a row with uneven gaps',
    cause: 'jar-2',
    seeds: [0, 1],
    make: (seed) => rowSet(seed, 0.18, [0, 0.03, 0]),
  },
  {
    code: 'row-line',
    name: 'a row with one in front',
    cause: 'jar-2',
    seeds: [0, 4],
    make: (seed) => moved(rowSet(seed, 0.18), 'jar-2', [0, -0.025]),
  },
  {
    code: 'row-mirrored',
    name: 'two silver boxes close by',
    cause: null,
    seeds: [0],
    make: (seed) => {
      const one = box(seed, metal(0.02), { turnDeg: 40 });
      const set = rowCamera(studioSet(seed, rowOf(one, 2, 0.16)));
      const other = set.products.map((product, i) => (i === 1 ? { ...product, turnDeg: -40 } : product));
      return { ...set, products: other };
    },
  },
  {
    code: 'touching',
    name: 'two jars that just touch in the picture',
    cause: 'jar-1',
    seeds: [0, 1],
    make: (seed) => {
      const set = rowCamera(studioSet(seed, rowOf(jar(seed), 2, 0.2)));
      const radius = radiusOf(set);
      const at = set.products.map((product, i) => ({
        ...product,
        positionM: [0.0015 + (i === 0 ? -1 : 1) * (radius + 0.0016), 0, 0] as typeof product.positionM,
      }));
      return { ...set, products: at };
    },
  },
  {
    code: 'at-the-edge',
    name: 'a jar that just reaches the top of the frame',
    cause: 'jar',
    seeds: [0, 1],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed)]);
      const high = heightOf(set);
      // The lens level with the middle of the frame, so far under the top of the jar that this is its edge.
      const middle = high - HALF_HEIGHT * (1.2 - radiusOf(set)) + 0.0018;
      return camera(set, { aimM: [0, 0, middle], positionM: [0, -1.2, middle] });
    },
  },
  {
    code: 'no-room-for-words',
    name: 'the jar where the words are to be',
    cause: 'jar',
    seeds: [0, 2],
    make: (seed) =>
      camera(studioSet(seed, [jar(seed)]), {
        crops: setDocument.parse({
          ...studioSet(seed, [jar(seed)]),
          camera: {
            ...studioSet(seed, [jar(seed)]).camera,
            crops: [{ name: 'Banner', widthPx: 1500, heightPx: 1000, copySide: 'right', copyPart: 0.5 }],
          },
        }).camera.crops,
      }),
  },
  {
    code: 'off-centre',
    name: 'a jar just off the middle',
    cause: 'jar',
    seeds: [0, 1],
    make: (seed) => moved(studioSet(seed, [jar(seed)]), 'jar', [0.02, 0]),
  },
  {
    code: 'tilted',
    name: 'a camera held askew',
    cause: null,
    seeds: [2, 4],
    make: (seed) => camera(studioSet(seed, [seed % 2 === 0 ? jar(seed) : box(seed)]), { rollDeg: 1.5 }),
  },
  {
    code: 'horizon-through',
    name: 'the edge of the table behind the jar',
    cause: null,
    seeds: [0, 1],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed)]);
      return {
        ...set,
        backdrop: {
          kind: 'panel',
          widthM: 2.4,
          heightM: 2,
          centreM: [0, 0.8, 0.7],
          turnDeg: 0,
          material: { kind: 'matte', reflectance: 0.1 },
        },
      };
    },
  },
];
