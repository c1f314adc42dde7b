import type { Light, Product, SetDocument, Sheet, Vector } from '@fendrix/contract';
import { cutReflector, productBounds, vector } from '@fendrix/core';
import type { Edit } from './edit';
import { changeProduct, freeTag, keyOfAdded, type ThingRef } from './edits';

/** A plinth reaches this much beyond what stands on it, as a part of its width, and is so high, m. */
const PLINTH_BEYOND = 0.3;
const PLINTH_HIGH_M = 0.1;
const PLINTH_WHITE = 0.82;

/** Under which id a plinth would go on the set; null where there is no such product or no place for one more. */
export function plinthKey(set: SetDocument, id: string): ThingRef | null {
  const product = set.products.find((one) => one.id === id);
  return product ? keyOfAdded(set, { what: 'product', thing: plinthUnder(product) }) : null;
}

/** Puts a white plinth where the product stands, and the product on top of it. */
export const standOnPlinth =
  (id: string, key: string): Edit =>
  (set) => {
    const product = set.products.find((one) => one.id === id);
    if (!product) return set;
    const plinth = { ...plinthUnder(product), id: key };
    const lifted = changeProduct(id, (own) => ({
      ...own,
      positionM: vector.add(own.positionM, [0, 0, plinth.heightM]),
    }))(set);
    return { ...lifted, products: [...lifted.products, plinth] };
  };

function plinthUnder(product: Product) {
  const { low, high } = productBounds(product);
  const side = (axis: 0 | 1) => Math.ceil(100 * (1 + PLINTH_BEYOND) * (high[axis] - low[axis])) / 100;
  // Bounds reach a hair beyond the body: the foot is taken to the millimetre.
  const foot = Math.round(1000 * low[2]) / 1000;
  const positionM: Vector = [(low[0] + high[0]) / 2, (low[1] + high[1]) / 2, foot];
  return {
    kind: 'box' as const,
    id: 'plinth',
    name: 'Plinth',
    positionM,
    turnDeg: 0,
    widthM: side(0),
    depthM: side(1),
    heightM: PLINTH_HIGH_M,
    edgeRadiusM: 0,
    material: { kind: 'matte' as const, reflectance: PLINTH_WHITE },
  };
}

/** The reflector cut to a product's shape that would stand behind it; null where there can be none, or no tag is free. */
export function reflectorBehind(set: SetDocument, id: string): Sheet | null {
  const product = set.products.find((one) => one.id === id);
  const tag = freeTag(set, 'sheet');
  return product?.kind === 'turned' && tag !== null ? cutReflector(set, product, tag) : null;
}

/** Puts it there as the set is by then. */
export const standReflectorBehind =
  (id: string): Edit =>
  (set) => {
    const reflector = reflectorBehind(set, id);
    return reflector ? { ...set, sheets: [...set.sheets, reflector] } : set;
  };

/** Under which tag the copy of a light or sheet would go; null for anything else, or where all are taken. */
export function copyKey(set: SetDocument, { kind }: ThingRef): ThingRef | null {
  if (kind !== 'light' && kind !== 'sheet') return null;
  const key = freeTag(set, kind);
  return key === null ? null : { kind, key };
}

/** Puts the mirror image of a light or sheet on the other side of the mark, under a free tag. */
export const copyToOtherSide =
  (ref: ThingRef, key: string): Edit =>
  (set) => ({
    ...set,
    lights: [...set.lights, ...(ref.kind === 'light' ? mirrorImages(set.lights, ref.key, key) : [])],
    sheets: [...set.sheets, ...(ref.kind === 'sheet' ? mirrorImages(set.sheets, ref.key, key) : [])],
  });

function mirrorImages<T extends Light | Sheet>(things: readonly T[], ownTag: string, tag: string): T[] {
  return things
    .filter((thing) => thing.tag === ownTag && 'positionM' in thing)
    .map((own) => ({
      ...own,
      tag,
      ...('positionM' in own ? { positionM: acrossMark(own.positionM) } : {}),
      ...('aimM' in own ? { aimM: acrossMark(own.aimM) } : {}),
      ...('rollDeg' in own ? { rollDeg: mirroredRollDeg(own) } : {}),
    }));
}

const acrossMark = ([x, y, z]: Vector): Vector => [-x, y, z];

/** A gradient across runs the other way in the mirror: half a turn about the aim does that. */
function mirroredRollDeg(own: (Light | Sheet) & { rollDeg: number }): number {
  const tone = 'front' in own && 'tone' in own.front ? own.front.tone : undefined;
  const across = tone?.kind === 'gradient' && tone.direction === 'across';
  const deg = (across ? 180 : 0) - own.rollDeg;
  return deg > 180 ? deg - 360 : deg;
}
