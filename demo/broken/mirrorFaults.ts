import {
  beforeLight,
  camera,
  type Fault,
  glossy,
  light,
  low,
  wished,
  withLights,
  withSheets,
} from './changes.js';
import { bottle, box, jar, labelledJar, matte, metal } from './products.js';
import { card, soft, studioSet } from './studio.js';

/** Faults of what is mirrored and seen through: highlights, metal, glass, liquid, labels. */
export const MIRROR_FAULTS: readonly Fault[] = [
  {
    code: 'seen-in-product',
    name: 'the camera in a silver box',
    cause: 'tripod',
    seeds: [5],
    make: (seed) =>
      camera(studioSet(seed, [box(seed, metal(0.02))]), {
        rig: { bodyWidthM: 0.2, bodyHeightM: 0.16, lensDiameterM: 0.09, lensLengthM: 0.1, tripod: true },
      }),
  },
  {
    code: 'seen-in-product',
    name: 'somebody in a silver box',
    cause: 'Helper',
    seeds: [0, 1],
    make: (seed) => ({
      ...studioSet(seed, [box(seed, metal(0.02))]),
      people: [
        {
          name: 'Helper',
          positionM: [0.1, -1.6],
          heightM: 1.75,
          clothes: { kind: 'matte', reflectance: 0.05 },
        },
      ],
    }),
  },
  {
    code: 'dark-hole',
    name: 'a silver jar with one light at its side',
    cause: null,
    seeds: [2, 5],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed, metal(0.05))]);
      const dark = { kind: 'matte' as const, reflectance: 0.03 };
      return {
        ...set,
        bench: set.bench && { ...set.bench, material: dark },
        backdrop: set.backdrop && { ...set.backdrop, material: dark },
        lights: set.lights.slice(0, 1).map((own) => ({ ...own, ...low(-0.8) }) as typeof own),
      };
    },
  },
  {
    code: 'highlight-uneven',
    name: 'two strips, one far weaker',
    cause: 'A',
    seeds: [0, 1],
    make: (seed) => wished(light(glossy(seed), 'B', { powerStops: -8 }), { highlight: 'two-strips' }),
  },
  {
    code: 'highlight-narrow',
    name: 'a hairline where a broad highlight is wished',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => {
      const set = glossy(seed);
      return wished(
        { ...set, lights: set.lights.slice(0, 1).map((own) => ({ ...own, widthM: 0.06 }) as typeof own) },
        { highlight: 'broad' },
      );
    },
  },
  {
    code: 'highlight-broken',
    name: 'a light too short for the jar',
    cause: 'A',
    seeds: [0, 1],
    make: (seed) => {
      const set = glossy(seed);
      return wished(
        {
          ...set,
          lights: set.lights.slice(0, 1).map((own) => ({ ...own, heightM: 0.1, widthM: 0.3 }) as typeof own),
        },
        { highlight: 'one-strip' },
      );
    },
  },
  {
    code: 'highlight-bent',
    name: 'a strip light that leans over',
    cause: 'A',
    seeds: [4, 9],
    make: (seed) => {
      const set = glossy(seed);
      const leaning = { positionM: [-0.32, -0.26, 0.09], widthM: 0.1, heightM: 0.8, rollDeg: 40 };
      return wished(
        { ...set, lights: set.lights.slice(0, 1).map((own) => ({ ...own, ...leaning }) as typeof own) },
        { highlight: 'one-strip' },
      );
    },
  },
  {
    code: 'highlight-width',
    name: 'a broad highlight where a slender strip is wished',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => {
      const set = glossy(seed);
      const wide = { widthM: 1.1, heightM: 1.2 };
      return wished(
        { ...set, lights: set.lights.slice(0, 1).map((own) => ({ ...own, ...wide }) as typeof own) },
        { highlight: 'one-strip', highlightPart: 0.05 },
      );
    },
  },
  {
    code: 'highlight-doubled',
    name: 'a second light in the gloss',
    cause: 'B',
    seeds: [2, 5],
    make: (seed) => wished(glossy(seed), { highlight: 'one-strip' }),
  },
  {
    code: 'highlight-hot',
    name: 'frost with the lamp close behind it',
    cause: '1',
    seeds: [0, 2],
    make: (seed) => {
      const set = glossy(seed);
      const frost = { kind: 'translucent', reflectance: 0.3, transmittance: 0.6, haze: 1 };
      return wished(
        withSheets(
          {
            ...set,
            lights: set.lights
              .slice(0, 1)
              .map(
                (own) =>
                  ({ ...own, positionM: [-0.53, -0.425, 0.09], widthM: 0.06, heightM: 0.5 }) as typeof own,
              ),
          },
          card('1', [-0.5, -0.4, 0.09], {
            kind: 'frame',
            widthM: 0.7,
            heightM: 0.9,
            front: frost,
            back: frost,
          }),
        ),
        { highlight: 'one-strip' },
      );
    },
  },
  {
    code: 'highlight-hard',
    name: 'a bare softbox where the highlight is to fade',
    cause: 'A',
    seeds: [1, 3],
    make: (seed) => {
      const set = glossy(seed);
      return wished({ ...set, lights: set.lights.slice(0, 1) }, { highlight: 'bright-front' });
    },
  },
  {
    code: 'edge-lost',
    name: 'a jar of the tone of its ground',
    cause: 'A',
    seeds: [0],
    make: (seed) => {
      const set = studioSet(seed, [jar(seed)]);
      const same = { kind: 'matte' as const, reflectance: 0.35 };
      return {
        ...set,
        bench: set.bench && { ...set.bench, material: same },
        backdrop: set.backdrop && { ...set.backdrop, material: same },
        lights: [soft('A', 0, -1.4, { positionM: [0, -1.6, 0.5], widthM: 1.5, heightM: 1.2 })] as never,
      };
    },
  },
  {
    code: 'edge-lost',
    name: 'an empty bottle before a light that is too wide',
    cause: 'A',
    seeds: [1],
    make: (seed) => beforeLight(seed, { hollow: { wallM: 0.003, baseM: 0.006 } }),
  },
  {
    code: 'words-glare',
    name: 'a gloss label that mirrors the light',
    cause: 'C',
    seeds: [0, 1],
    make: (seed) => {
      const material = {
        kind: 'coated',
        reflectance: 0.6,
        tone: { kind: 'text', lines: ['PLUM', 'TEA'], ink: 0.05 },
      };
      const label = { name: 'Label', widthM: 0.07, heightM: 0.08, centreHeightM: 0.07, material };
      const set = studioSet(seed, [box(seed, matte(0.3), { turnDeg: 20, label })]);
      // In the mirror of the turned front: twice as far round as it is turned.
      const glaring = { positionM: [0.58, -0.69, 0.07], aimM: [0, 0, 0.07], widthM: 0.3, heightM: 0.4 };
      return wished(camera(withLights(set, soft('C', 0, -1.6, glaring)), { positionM: [0, -1.2, 0.09] }), {
        words: 'readable',
      });
    },
  },
  {
    code: 'label-dark',
    name: 'a label in the dark',
    cause: 'A',
    seeds: [2, 9],
    make: (seed) => {
      const set = studioSet(seed, [labelledJar(seed)]);
      const behind = set.lights.map(
        (own, i) => ({ ...own, positionM: [i === 0 ? -0.9 : 0.9, 0.35, 0.5] }) as typeof own,
      );
      return wished({ ...set, lights: behind }, { words: 'readable', texture: 'smooth' });
    },
  },
  {
    code: 'label-turned',
    name: 'a label turned aside',
    cause: 'jar',
    seeds: [3, 10],
    make: (seed) =>
      wished(studioSet(seed, [labelledJar(seed, { centreBearingDeg: 35 })]), { words: 'readable' }),
  },
  {
    code: 'glass-base',
    name: 'a bottle on a lit white table',
    cause: null,
    seeds: [0, 1],
    make: (seed) => {
      const set = beforeLight(seed, { hollow: { wallM: 0.003, baseM: 0.012 } });
      return wished(
        { ...set, bench: set.bench && { ...set.bench, material: { kind: 'matte', reflectance: 0.85 } } },
        { liquid: 'open' },
      );
    },
  },
  {
    code: 'thick-rims',
    name: 'a light ground that is far away',
    cause: 'A',
    seeds: [0, 3],
    make: (seed) => {
      const water = { material: { kind: 'dielectric', index: 1.33 }, fillToM: 0.085 };
      const set = beforeLight(seed, { hollow: { wallM: 0.003, baseM: 0.006, liquid: water } });
      const far = { positionM: [0, 2.1, 0.3], aimM: [0, 0, 0.1], widthM: 1.4, heightM: 1.4, powerStops: -1 };
      return { ...light(set, 'A', far), bench: undefined, room: undefined };
    },
  },
  {
    code: 'liquid-dull',
    name: 'a dark syrup before a dark ground',
    cause: 'A',
    seeds: [1, 4],
    make: (seed) =>
      wished(
        studioSet(seed, [
          bottle(seed, {
            labels: [
              {
                name: 'Label',
                fromM: 0.03,
                toM: 0.06,
                widthDeg: 80,
                material: { kind: 'matte', reflectance: 0.6 },
              },
            ],
          }),
        ]),
        { liquid: 'glows', edges: 'open' },
      ),
  },
];
