import type { SetDocument } from '@fendrix/contract';
import { bottle, gloss, jar, rowOf } from './products.js';
import { rowCamera } from './sound.js';
import { soft, studioSet } from './studio.js';

/** A fault that is put into a sound set, over several seeds. */
export interface Fault {
  code: string;
  name: string;
  cause: string | null;
  seeds: readonly number[];
  make(seed: number): SetDocument;
}

export const light = (set: SetDocument, tag: string, more: object): SetDocument => ({
  ...set,
  lights: set.lights.map((own) => (own.tag === tag ? ({ ...own, ...more } as typeof own) : own)),
});
export const camera = (set: SetDocument, more: object): SetDocument => ({
  ...set,
  camera: { ...set.camera, ...more },
});
export const wished = (set: SetDocument, more: Partial<SetDocument['wishes']>): SetDocument => ({
  ...set,
  wishes: { ...set.wishes, ...more },
});
export const withSheets = (set: SetDocument, ...sheets: object[]): SetDocument => ({
  ...set,
  sheets: sheets as never,
});
export const withLights = (set: SetDocument, ...lights: object[]): SetDocument => ({
  ...set,
  lights: [...set.lights, ...lights] as never,
});

/** A flash of twice the energy. */
export const STRONG = { kind: 'flash-energy', energyJ: 1000, modifierEfficiency: 0.45 };

/** Low beside the product, where an upright side mirrors it. */
export const low = (x: number) => ({ positionM: [x, -0.6, 0.1] });
/** A dark gloss jar that mirrors both lights as strips. */
export const glossy = (seed: number): SetDocument => {
  const set = studioSet(seed, [jar(seed, gloss(0.04))]);
  const tall = { heightM: 0.9, widthM: 0.3 };
  return camera(light(light(set, 'A', { ...low(-0.8), ...tall }), 'B', { ...low(0.8), ...tall }), {
    positionM: [0, -1.2, 0.09],
  });
};
/** A bottle before a lit sheet of cloth: dark lines on light ground. */
export const beforeLight = (seed: number, more: object = {}): SetDocument =>
  wished(
    studioSet(seed, [bottle(seed, more)], {
      backdrop: undefined,
      lights: [
        soft('A', 0, -4.4, {
          positionM: [0, 0.6, 0.25],
          aimM: [0, 0, 0.1],
          widthM: 0.6,
          heightM: 0.9,
        }),
        soft('B', -0.8, -4.4),
      ],
    }),
    { edges: 'dark-line', liquid: 'open' },
  );
export const rowSet = (seed: number, apartM: number, offM: readonly number[] = []): SetDocument =>
  rowCamera(studioSet(seed, rowOf(jar(seed), 3, apartM, offM)));
export const moved = (set: SetDocument, id: string, by: readonly number[]): SetDocument => ({
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

/** Tangent of half the angle that the usual camera sees up and down. */
export const HALF_HEIGHT = 0.1098;

/** Radius of the first product, where it is turned, m. */
export function radiusOf({ products: [first] }: SetDocument): number {
  return first?.kind === 'turned' ? (first.profile[0]?.radiusM ?? 0) : 0;
}

export function heightOf({ products: [first] }: SetDocument): number {
  return first?.kind === 'turned' ? (first.profile.at(-1)?.heightM ?? 0) : 0;
}
