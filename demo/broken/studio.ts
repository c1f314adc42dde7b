import { type SetDocument, type SetDocumentInput, setDocument } from '@fendrix/contract';

type Input = SetDocumentInput;
export type Product = NonNullable<Input['products']>[number];
export type Light = NonNullable<Input['lights']>[number];
export type Sheet = NonNullable<Input['sheets']>[number];

/** What a seed decides of a set: how large its product is, where it stands, what room it is in. */
export interface Seeded {
  /** Of the usual size. */
  scale: number;
  /** Off the mark, m. */
  asideM: number;
  room: Input['room'];
}

const SCALES = [1, 0.85, 1.2, 0.95, 1.1];

const room = (walls: number): Input['room'] => ({
  widthM: 3.6,
  depthM: 4.4,
  heightM: 2.6,
  markFromLeftM: 1.8,
  markFromFrontM: 2.6,
  walls: { kind: 'matte', reflectance: walls },
  ceiling: { kind: 'matte', reflectance: walls },
  floor: { kind: 'matte', reflectance: 0.2 },
});
const ROOMS: readonly Input['room'][] = [undefined, room(0.3), room(0.1)];

export function seeded(seed: number): Seeded {
  return {
    scale: SCALES[seed % SCALES.length] as number,
    asideM: (((seed * 37) % 11) - 5) / 1000,
    room: ROOMS[seed % ROOMS.length],
  };
}

const dial = { leastStops: -8, stepStops: 0.1 };

/** A softbox at camera left or right of the mark, aimed at it. */
export const soft = (tag: string, x: number, powerStops: number, more: object = {}): Light =>
  ({
    kind: 'softbox',
    tag,
    name: `Softbox ${tag}`,
    positionM: [x, -0.6, 0.5],
    aimM: [0, 0, 0.08],
    widthM: 0.5,
    heightM: 0.5,
    output: { kind: 'flash-energy', energyJ: 400, modifierEfficiency: 0.45 },
    dial,
    powerStops,
    ...more,
  }) as Light;

/** A lamp that shines on. */
export const lamp = (tag: string, temperatureK: number, more: object = {}): Light =>
  soft(tag, 0.5, 0, {
    name: `Lamp ${tag}`,
    output: { kind: 'lumens', lumens: 30_000 },
    colour: { temperatureK, gels: [] },
    ...more,
  });

export const card = (tag: string, positionM: [number, number, number], more: object = {}): Sheet =>
  ({
    kind: 'card',
    tag,
    name: `Card ${tag}`,
    positionM,
    aimM: [0, 0, 0.08],
    widthM: 0.15,
    heightM: 0.2,
    front: { kind: 'matte', reflectance: 0.85 },
    back: { kind: 'matte', reflectance: 0.85 },
    ...more,
  }) as Sheet;

/** Products on grey paper swept up behind them, under one soft light from the left and a weaker one from the right. */
export function studioSet(seed: number, products: Product[], more: Partial<Input> = {}): SetDocument {
  const { room: own } = seeded(seed);
  return setDocument.parse({
    format: 'fendrix-set',
    version: 3,
    name: 'Set on the grey table',
    ...(own ? { room: own } : {}),
    bench: { widthM: 1.2, depthM: 1, material: { kind: 'matte', reflectance: 0.2 } },
    backdrop: {
      kind: 'sweep',
      widthM: 2.4,
      frontM: -0.5,
      backM: 0.7,
      radiusM: 0.3,
      heightM: 1.4,
      material: { kind: 'matte', reflectance: 0.12 },
    },
    products,
    lights: [soft('A', -0.8, -2.1), soft('B', 0.8, -3.4)],
    camera: {
      body: {
        name: 'Body of 24 megapixels',
        sensorWidthM: 0.036,
        sensorHeightM: 0.024,
        pixelsWide: 6000,
        pixelsHigh: 4000,
        syncSpeedS: 1 / 200,
      },
      lens: { name: 'Lens 100 mm', focalLengthM: 0.1 },
      positionM: [0, -1.2, 0.3],
      aimM: [0, 0, 0.075],
      focusM: 1.17,
      fNumber: 22,
      shutterS: 1 / 125,
      iso: 200,
      release: 'cable',
    },
    ...more,
  } satisfies Input);
}
