import type { Camera, Light, OpaqueMaterial, SetDocument, Sheet, Spot, Vector } from '@fendrix/contract';

/** Something on the bench that can be selected and moved. */
export interface ThingRef {
  kind: 'light' | 'sheet' | 'product' | 'camera';
  /** Tag of a light or sheet, id of a product, empty for the camera. */
  key: string;
}

export const sameThing = (a: ThingRef | null, b: ThingRef | null): boolean =>
  a?.kind === b?.kind && a?.key === b?.key;

/** A change of the set: from one document to the next, nothing else. */
export type Edit = (set: SetDocument) => SetDocument;

const replace = <T>(list: T[], matches: (item: T) => boolean, change: (item: T) => T): T[] =>
  list.map((item) => (matches(item) ? change(item) : item));

/** Where a thing stands; null for a light that stands nowhere. */
export function positionOf(set: SetDocument, ref: ThingRef): Vector | null {
  switch (ref.kind) {
    case 'camera':
      return set.camera.positionM;
    case 'light': {
      const light = set.lights.find(({ tag }) => tag === ref.key);
      return light && light.kind !== 'surround' ? light.positionM : null;
    }
    case 'sheet':
      return set.sheets.find(({ tag }) => tag === ref.key)?.positionM ?? null;
    case 'product':
      return set.products.find(({ id }) => id === ref.key)?.positionM ?? null;
  }
}

/**
 * Moves a thing. Lights and sheets go on facing their aim point; the camera goes on facing its own, with the
 * plane of focus kept on the same place.
 */
export function moveThing(ref: ThingRef, positionM: Vector): Edit {
  return (set) => {
    switch (ref.kind) {
      case 'camera':
        return { ...set, camera: refocused(set.camera, { ...set.camera, positionM }) };
      case 'light':
        return {
          ...set,
          lights: replace(
            set.lights,
            ({ tag }) => tag === ref.key,
            (light) => (light.kind === 'surround' ? light : { ...light, positionM }),
          ),
        };
      case 'sheet':
        return {
          ...set,
          sheets: replace(
            set.sheets,
            ({ tag }) => tag === ref.key,
            (sheet) => ({ ...sheet, positionM }),
          ),
        };
      case 'product':
        return {
          ...set,
          products: replace(
            set.products,
            ({ id }) => id === ref.key,
            (product) => ({ ...product, positionM }),
          ),
        };
    }
  };
}

function refocused(before: Camera, after: Camera): Camera {
  const distance = (camera: Camera) =>
    Math.hypot(...camera.aimM.map((value, a) => value - (camera.positionM[a] as number)));
  const focusM = before.focusM + distance(after) - distance(before);
  return focusM > after.lens.focalLengthM * 1.01 ? { ...after, focusM } : after;
}

export const changeCamera =
  (changes: Partial<Camera>): Edit =>
  (set) => ({ ...set, camera: { ...set.camera, ...changes } });

export const changeLight =
  (tag: string, change: (light: Light) => Light): Edit =>
  (set) => ({ ...set, lights: replace(set.lights, (light) => light.tag === tag, change) });

export const changeSheet =
  (tag: string, change: (sheet: Sheet) => Sheet): Edit =>
  (set) => ({
    ...set,
    sheets: replace(set.sheets, (sheet) => sheet.tag === tag, change),
  });

export const turnProduct =
  (productId: string, turnDeg: number): Edit =>
  (set) => ({
    ...set,
    products: replace(
      set.products,
      ({ id }) => id === productId,
      (product) => ({ ...product, turnDeg }),
    ),
  });

export const renameSet =
  (name: string): Edit =>
  (set) => ({ ...set, name });

export const pinSpot =
  (spot: Spot): Edit =>
  (set) => ({ ...set, spots: [...set.spots, spot] });

export const removeSpot =
  (name: string): Edit =>
  (set) => ({ ...set, spots: set.spots.filter((spot) => spot.name !== name) });

export function removeThing(ref: ThingRef): Edit {
  return (set) => ({
    ...set,
    lights: set.lights.filter(({ tag }) => ref.kind !== 'light' || tag !== ref.key),
    sheets: set.sheets.filter(({ tag }) => ref.kind !== 'sheet' || tag !== ref.key),
    products: set.products.filter(({ id }) => ref.kind !== 'product' || id !== ref.key),
  });
}

/** The first tag that is free; null when all are taken. */
export function freeTag(set: SetDocument, kind: 'light' | 'sheet'): string | null {
  const letters = Array.from({ length: 26 }, (_, i) => String.fromCharCode(65 + i));
  const numbers = Array.from({ length: 99 }, (_, i) => String(i + 1));
  const taken = new Set([...set.lights, ...set.sheets].map(({ tag }) => tag));
  return (kind === 'light' ? letters : numbers).find((tag) => !taken.has(tag)) ?? null;
}

/** A softbox of usual size, camera right and above, facing the product. */
export function newSoftbox(tag: string): Light {
  return {
    kind: 'softbox',
    tag,
    name: 'Softbox 40 x 60',
    positionM: [0.6, -0.2, 0.35],
    aimM: [0, 0, 0.1],
    rollDeg: 0,
    widthM: 0.4,
    heightM: 0.6,
    hotCentre: 1.5,
    output: { kind: 'flash-energy', energyJ: 200, efficacyLmSPerJ: 35, modifierEfficiency: 0.45 },
    powerStops: -2,
    on: true,
  };
}

/** A board 20 x 30 cm beside the product, white to bounce or black to cut. */
export function newSheet(kind: 'card' | 'flag', tag: string): Sheet {
  const board: OpaqueMaterial = { kind: 'matte', reflectance: kind === 'card' ? 0.85 : 0.04 };
  return {
    kind,
    tag,
    name: kind === 'card' ? 'white card' : 'black flag',
    positionM: kind === 'card' ? [0.3, -0.1, 0.15] : [-0.3, -0.1, 0.15],
    aimM: [0, 0, 0.1],
    rollDeg: 0,
    widthM: 0.2,
    heightM: 0.3,
    front: board,
    back: board,
  };
}
