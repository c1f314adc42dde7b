import { type SetDocument, setDocument } from '@fendrix/contract';
import { bottle, bowl, box, gloss, jar, labelledJar, matte, metal, rowOf } from './products.js';
import { laySet, rowCamera } from './sound.js';
import { card, lamp, soft, studioSet } from './studio.js';

/** A set with one known fault. */
export interface BrokenSet {
  name: string;
  set: SetDocument;
  /** The verdict that it calls for. */
  code: string;
  /** Key of the thing at fault; null where there is none. */
  cause: string | null;
}

const light = (set: SetDocument, tag: string, more: object): SetDocument => ({
  ...set,
  lights: set.lights.map((own) => (own.tag === tag ? ({ ...own, ...more } as typeof own) : own)),
});
const camera = (set: SetDocument, more: object): SetDocument => ({
  ...set,
  camera: { ...set.camera, ...more },
});
const wished = (set: SetDocument, more: Partial<SetDocument['wishes']>): SetDocument => ({
  ...set,
  wishes: { ...set.wishes, ...more },
});
const withSheets = (set: SetDocument, ...sheets: object[]): SetDocument => ({
  ...set,
  sheets: sheets as never,
});
const withLights = (set: SetDocument, ...lights: object[]): SetDocument => ({
  ...set,
  lights: [...set.lights, ...lights] as never,
});

/** A flash of twice the energy. */
const STRONG = { kind: 'flash-energy', energyJ: 1000, modifierEfficiency: 0.45 };

/** Low beside the product, where an upright side mirrors it. */
const low = (x: number) => ({ positionM: [x, -0.6, 0.1] });
/** A dark gloss jar that mirrors both lights as strips. */
const glossy = (seed: number): SetDocument => {
  const set = studioSet(seed, [jar(seed, gloss(0.04))]);
  const tall = { heightM: 0.9, widthM: 0.3 };
  return camera(light(light(set, 'A', { ...low(-0.8), ...tall }), 'B', { ...low(0.8), ...tall }), {
    positionM: [0, -1.2, 0.09],
  });
};
/** A bottle before a lit sheet of cloth: dark lines on light ground. */
const beforeLight = (seed: number, more: object = {}): SetDocument =>
  wished(
    studioSet(seed, [bottle(seed, more)], {
      backdrop: undefined,
      lights: [
        soft('A', 0, -3.4, {
          positionM: [0, 0.6, 0.25],
          aimM: [0, 0, 0.1],
          widthM: 0.6,
          heightM: 0.9,
        }),
        soft('B', -0.8, -3.4),
      ],
    }),
    { edges: 'dark-line', liquid: 'open' },
  );
const rowSet = (seed: number, apartM: number, offM: readonly number[] = []): SetDocument =>
  rowCamera(studioSet(seed, rowOf(jar(seed), 3, apartM, offM)));
const moved = (set: SetDocument, id: string, by: readonly number[]): SetDocument => ({
  ...set,
  products: set.products.map((product) =>
    product.id === id
      ? {
          ...product,
          positionM: product.positionM.map((value, a) => value + (by[a] ?? 0)) as typeof product.positionM,
        }
      : product,
  ),
});

interface Fault {
  code: string;
  name: string;
  cause: string | null;
  seeds: readonly number[];
  make(seed: number): SetDocument;
}

/** One fault a row, each over several seeds. */
const FAULTS: readonly Fault[] = [
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
          lamp('C', 5500, { output: { kind: 'lumens', lumens: 80_000 }, positionM: [-0.5, -0.6, 0.5] }),
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

/** Tangent of half the angle that the usual camera sees up and down. */
const HALF_HEIGHT = 0.1098;

/** Radius of the first product, where it is turned, m. */
function radiusOf({ products: [first] }: SetDocument): number {
  return first?.kind === 'turned' ? (first.profile[0]?.radiusM ?? 0) : 0;
}

function heightOf({ products: [first] }: SetDocument): number {
  return first?.kind === 'turned' ? (first.profile.at(-1)?.heightM ?? 0) : 0;
}

/** All sets with one known fault, each made anew. @param shift other seeds: sets that no limit was chosen by */
export const brokenSets = (shift = 0): BrokenSet[] =>
  FAULTS.flatMap(({ code, name, cause, seeds, make }) =>
    seeds.map((seed) => {
      const set = setDocument.parse(make(seed + shift));
      return { name: `${name}, seed ${seed + shift}`, code, cause, set };
    }),
  );
