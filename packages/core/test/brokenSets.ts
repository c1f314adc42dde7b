import { type SetDocument, setDocument } from '@fendrix/contract';
import { demoSet } from '@fendrix/demo';
import type { VerdictCode } from '../src/index.js';
import { overheadSoftbox, testCamera, testSet } from './sets.js';

/** A set with one known fault. */
export interface BrokenSet {
  name: string;
  set: SetDocument;
  code: VerdictCode;
  /** Key of the thing at fault; null where there is none. */
  cause: string | null;
}

const dial = { leastStops: -8, stepStops: 0.1 };
const flash = { kind: 'flash-energy' as const, energyJ: 400, modifierEfficiency: 0.45 };
const gloss = { kind: 'coated' as const, reflectance: 0.04 };

const JAR = {
  kind: 'turned',
  profile: [
    { radiusM: 0.05, heightM: 0 },
    { radiusM: 0.05, heightM: 0.16 },
  ],
};
export const BOX = { kind: 'box', widthM: 0.12, depthM: 0.06, heightM: 0.18 };

/** A jar on a grey ground under one soft light from the left, and a second from the right: nothing is wrong with it. */
export function soundSet(more: object = {}, form: object = JAR): SetDocument {
  const set = testSet({
    bench: { widthM: 1.2, depthM: 1, material: { kind: 'matte', reflectance: 0.2 } },
    backdrop: {
      kind: 'panel',
      widthM: 2.4,
      heightM: 2,
      centreM: [0, 0.8, 0.7],
      turnDeg: 0,
      material: { kind: 'matte', reflectance: 0.1 },
    },
    products: [
      {
        id: 'jar',
        name: 'Jar',
        positionM: [0, 0, 0],
        material: { kind: 'matte', reflectance: 0.35 },
        ...form,
        ...more,
      },
    ] as never,
    lights: [soft('A', -0.8, -3), soft('B', 0.8, -4)],
    camera: {
      ...testCamera(),
      positionM: [0, -1.2, 0.2],
      aimM: [0, 0, 0.08],
      focusM: 1.17,
      fNumber: 16,
      shutterS: 1 / 125,
    },
  });
  return set;
}

const soft = (tag: string, x: number, powerStops: number, more: object = {}) =>
  overheadSoftbox(0, {
    tag,
    name: `Soft ${tag}`,
    positionM: [x, -0.6, 0.5],
    aimM: [0, 0, 0.08],
    widthM: 0.5,
    heightM: 0.5,
    output: flash,
    dial,
    powerStops,
    ...more,
  });

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

const lamp = (tag: string, temperatureK: number, more: object = {}) =>
  soft(tag, 0.5, 0, {
    output: { kind: 'lumens', lumens: 30_000 },
    colour: { temperatureK, gels: [] },
    ...more,
  });

const card = (x: number, y: number, more: object = {}) => ({
  kind: 'card' as const,
  tag: '1',
  name: 'White card',
  positionM: [x, y, 0.1] as [number, number, number],
  aimM: [0, 0, 0.08] as [number, number, number],
  widthM: 0.15,
  heightM: 0.2,
  front: { kind: 'matte' as const, reflectance: 0.85 },
  back: { kind: 'matte' as const, reflectance: 0.85 },
  ...more,
});

/** Sets with one fault each, over several products. */
export function brokenSets(): BrokenSet[] {
  const sound = soundSet();
  const white = soundSet({ material: { kind: 'matte', reflectance: 0.8 } });
  const low = { positionM: [-0.8, -0.6, 0.1] };
  const glossy = light(light(soundSet({ material: gloss }), 'A', low), 'B', { positionM: [0.8, -0.6, 0.1] });
  const box = soundSet({}, BOX);
  const metal = soundSet({ material: { kind: 'metal', metal: 'silver', roughness: 0.02 } }, BOX);
  const pale = (stops: number) => wished(light(sound, 'A', { powerStops: stops }), { ground: 'white' });
  const sets: BrokenSet[] = [
    {
      name: 'one light much too strong',
      set: light(white, 'A', { powerStops: -1 }),
      code: 'burnt',
      cause: 'A',
    },
    {
      name: 'the other light much too strong',
      set: light(white, 'B', { powerStops: -0.5 }),
      code: 'burnt',
      cause: 'B',
    },
    {
      name: 'a box burnt',
      set: light(soundSet({ material: { kind: 'matte', reflectance: 0.8 } }, BOX), 'A', { powerStops: 0 }),
      code: 'burnt',
      cause: 'A',
    },
    { name: 'far too dark', set: camera(sound, { fNumber: 64, iso: 50 }), code: 'lost-in-black', cause: 'A' },
    {
      name: 'a box far too dark',
      set: camera(box, { fNumber: 64, iso: 50 }),
      code: 'lost-in-black',
      cause: 'A',
    },
    { name: 'a white ground that is grey', set: pale(-4), code: 'ground-not-white', cause: 'A' },
    {
      name: 'a black ground that is grey',
      set: wished(sound, { ground: 'black' }),
      code: 'ground-not-black',
      cause: 'A',
    },
    {
      name: 'a grey of another tone',
      set: wished(sound, { ground: 'grey', greyStops: 1.5 }),
      code: 'ground-off-grey',
      cause: 'A',
    },
    {
      name: 'faster than the flash sync',
      set: camera(sound, { shutterS: 1 / 1000 }),
      code: 'over-sync',
      cause: null,
    },
    {
      name: 'a box faster than the flash sync',
      set: camera(box, { shutterS: 1 / 500 }),
      code: 'over-sync',
      cause: null,
    },
    {
      name: 'focus behind it',
      set: camera(sound, { focusM: 1.6, fNumber: 2.8, iso: 12 }),
      code: 'not-sharp',
      cause: null,
    },
    {
      name: 'wide open',
      set: camera(box, { focusM: 1.18, fNumber: 2, iso: 12 }),
      code: 'not-sharp',
      cause: null,
    },
    {
      name: 'a card in the frame',
      set: { ...sound, sheets: [card(-0.14, 0.1)] as never },
      code: 'thing-in-frame',
      cause: '1',
    },
    {
      name: 'a softbox in the frame',
      set: light(sound, 'B', { positionM: [0.32, 0.2, 0.2] }),
      code: 'thing-in-frame',
      cause: 'B',
    },
    {
      name: 'a warm lamp beside the flash',
      set: { ...sound, lights: [...sound.lights, lamp('C', 3200, { powerStops: 0 })] as never },
      code: 'mixed-colour',
      cause: 'C',
    },
    {
      name: 'a neutral lamp left on',
      set: { ...camera(sound, { shutterS: 1 / 60 }), lights: [...sound.lights, lamp('C', 5500)] as never },
      code: 'room-light',
      cause: 'C',
    },
    {
      name: 'a halogen lamp by a card',
      set: {
        ...sound,
        lights: [
          ...sound.lights,
          lamp('C', 3000, { positionM: [1.2, -0.8, 0.6], output: { kind: 'lumens', lumens: 200 } }),
        ],
        sheets: [card(1.3, -0.6, { positionM: [1.3, -0.6, 0.5] })],
      } as never,
      code: 'hot-lamp',
      cause: 'C',
    },
    {
      name: 'the camera in a silver box',
      set: camera(metal, {
        rig: { bodyWidthM: 0.2, bodyHeightM: 0.16, lensDiameterM: 0.09, lensLengthM: 0.1, tripod: true },
      }),
      code: 'seen-in-product',
      cause: 'camera',
    },
    {
      name: 'a silver jar between dark walls with one light at its side',
      set: {
        ...soundSet({ material: { kind: 'metal', metal: 'silver', roughness: 0.05 } }),
        bench: {
          widthM: 1.2,
          depthM: 1,
          thicknessM: 0.03,
          centreM: [0, 0],
          material: { kind: 'matte', reflectance: 0.03 },
        },
        lights: [soft('A', -0.8, -3, low)],
        room: {
          widthM: 3.4,
          depthM: 4,
          heightM: 2.6,
          markFromLeftM: 1.7,
          markFromFrontM: 2.4,
          walls: { kind: 'matte', reflectance: 0.1 },
          ceiling: { kind: 'matte', reflectance: 0.1 },
          floor: { kind: 'matte', reflectance: 0.1 },
        },
      } as never,
      code: 'dark-hole',
      cause: 'jar',
    },
    {
      name: 'somebody in a silver box',
      set: {
        ...metal,
        people: [
          {
            name: 'Helper',
            positionM: [0.1, -1.6],
            heightM: 1.75,
            clothes: { kind: 'matte', reflectance: 0.05 },
          },
        ],
      } as never,
      code: 'seen-in-product',
      cause: 'Helper',
    },
    {
      name: 'two strips, one far weaker',
      set: wished(light(glossy, 'B', { powerStops: -8 }), { highlight: 'two-strips' }),
      code: 'highlight-uneven',
      cause: 'A',
    },
    {
      name: 'a hairline where a broad highlight is wished',
      set: wished(
        {
          ...glossy,
          lights: [soft('A', -0.8, -2, { widthM: 0.06, ...low })],
        } as never,
        { highlight: 'broad' },
      ),
      code: 'highlight-narrow',
      cause: 'A',
    },
    {
      name: 'a spot off its tone',
      set: {
        ...sound,
        spots: [
          { name: 'front', pointM: [0, -0.05, 0.08], normal: [0, -1, 0], target: { from: 2, to: 2.2 } },
        ],
      } as never,
      code: 'tone-missed',
      cause: 'A',
    },
    {
      name: 'an edge of the tone of its ground',
      set: {
        ...sound,
        backdrop: { ...sound.backdrop, material: { kind: 'matte', reflectance: 0.35 } },
        lights: [soft('A', 0, -4, { positionM: [0, -1.6, 0.5], widthM: 1.5, heightM: 1.2 })],
      } as never,
      code: 'edge-lost',
      cause: 'A',
    },
    {
      name: 'the pepper mill faster than the flash sync',
      set: camera(demoSet('pepper'), { shutterS: 1 / 1000 }),
      code: 'over-sync',
      cause: null,
    },
  ];
  return sets.map((broken) => ({ ...broken, set: setDocument.parse(broken.set) }));
}
