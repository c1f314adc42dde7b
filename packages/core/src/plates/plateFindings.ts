import type { Plate, Product, SetDocument, Vector } from '@fendrix/contract';
import { lensFigures } from '../optics/lens.js';
import { degrees } from '../units/angle.js';
import { cross, distance, dot, length, subtract } from '../units/vector.js';
import { setOfPlate } from './plateSet.js';

/** What keeps a plate from lying on the others, or makes it useless. Lengths m, angles degrees. */
export type PlateFinding =
  | { code: 'camera-moved'; byM: number; byDeg: number }
  | {
      code: 'other-lens' | 'other-sensor' | 'same-as-set' | 'mask-of-nothing' | 'no-light' | 'blur-not-shown';
    }
  | { code: 'product-moved'; product: string; byM: number }
  | { code: 'product-other'; product: string; how: 'gone' | 'new' | 'changed' }
  /** Its picture is of another size by this factor: the lens breathes. */
  | { code: 'focus-moved'; sizePart: number }
  | { code: 'light-missing'; tag: string };

/** Differences below these are the figures' own rounding. */
const LEAST_M = 1e-5;
const LEAST_DEG = 1e-3;
/** A frame that is larger or smaller by less than this has no edge that is off by a pixel of a usual picture. */
const LEAST_SIZE_PART = 2e-4;

/**
 * What there is to say against a plate before it is taken. Focus steps are meant to differ in focus, a splash in its
 * products; all other plates must lie on the set as it stands to the pixel.
 */
export function plateFindings(set: SetDocument, plate: Plate): PlateFinding[] {
  const own = setOfPlate(set, plate);
  return [
    ...cameraFindings(set, own, plate),
    ...(plate.gives === 'splash' ? [] : productFindings(set.products, own.products)),
    ...lightFindings(set, own, plate),
    ...(plate.gives === 'focus' && !own.camera.depthOfField ? [{ code: 'blur-not-shown' } as const] : []),
    ...(takesNothing(set, plate) ? [{ code: 'mask-of-nothing' } as const] : []),
  ];
}

function cameraFindings(set: SetDocument, own: SetDocument, plate: Plate): PlateFinding[] {
  const [before, after] = [set.camera, own.camera];
  const byM = distance(after.positionM, before.positionM);
  const [from, to] = [before, after].map(({ positionM, aimM }) => subtract(aimM, positionM)) as [
    Vector,
    Vector,
  ];
  const turned = Math.atan2(length(cross(from, to)), dot(from, to));
  const byDeg = degrees(turned) + Math.abs(after.rollDeg - before.rollDeg);
  // All sizes in the frame go with the distance of the image.
  const size = lensFigures(after).imageDistanceM / lensFigures(before).imageDistanceM - 1;
  return [
    ...(byM > LEAST_M || byDeg > LEAST_DEG ? [{ code: 'camera-moved', byM, byDeg } as const] : []),
    ...(after.lens.focalLengthM !== before.lens.focalLengthM ? [{ code: 'other-lens' } as const] : []),
    ...(after.body.sensorWidthM !== before.body.sensorWidthM ||
    after.body.sensorHeightM !== before.body.sensorHeightM
      ? [{ code: 'other-sensor' } as const]
      : []),
    ...(plate.gives !== 'focus' &&
    after.focusM !== before.focusM &&
    after.lens.focalLengthM === before.lens.focalLengthM &&
    Math.abs(size) > LEAST_SIZE_PART
      ? [{ code: 'focus-moved', sizePart: size } as const]
      : []),
  ];
}

function productFindings(before: readonly Product[], after: readonly Product[]): PlateFinding[] {
  const gone = before
    .filter(({ id }) => !after.some((other) => other.id === id))
    .map(({ name }) => ({ code: 'product-other', product: name, how: 'gone' }) as const);
  const others = after.flatMap((product): PlateFinding[] => {
    const old = before.find(({ id }) => id === product.id);
    if (!old) return [{ code: 'product-other', product: product.name, how: 'new' }];
    const byM = distance(product.positionM, old.positionM);
    if (byM > LEAST_M) return [{ code: 'product-moved', product: product.name, byM }];
    const same = JSON.stringify(product) === JSON.stringify(old);
    return same ? [] : [{ code: 'product-other', product: product.name, how: 'changed' }];
  });
  return [...gone, ...others];
}

function lightFindings(set: SetDocument, own: SetDocument, plate: Plate): PlateFinding[] {
  const missing = plate.lights
    .filter(({ tag }) => !own.lights.some((light) => light.tag === tag))
    .map(({ tag }) => ({ code: 'light-missing', tag }) as const);
  const dark = !own.lights.some(({ on }) => on);
  const settings = plate.takeId !== undefined || plate.gives === 'splash' || plate.gives === 'clean';
  const other =
    settings || JSON.stringify([own.lights, own.camera]) !== JSON.stringify([set.lights, set.camera]);
  return [
    ...missing,
    ...(dark ? [{ code: 'no-light' } as const] : []),
    ...(other ? [] : [{ code: 'same-as-set' } as const]),
  ];
}

/** A mask of things of which none is there. */
function takesNothing(set: SetDocument, { mask }: Plate): boolean {
  const adding = mask.filter(({ leaveOut }) => !leaveOut);
  if (adding.length === 0) return false;
  return adding.every(({ area }) => {
    switch (area.by) {
      case 'products':
        return set.products.length === 0;
      case 'thing':
        if (area.kind === 'product') return !set.products.some(({ id }) => id === area.key);
        if (area.kind === 'light') return !set.lights.some(({ tag }) => tag === area.key);
        if (area.kind === 'sheet') return !set.sheets.some(({ tag }) => tag === area.key);
        if (area.kind === 'backdrop') return set.backdrop === undefined;
        if (area.kind === 'bench') return set.bench === undefined;
        return false;
      case 'part':
        return !hasPart(set.products, area);
      case 'brush':
        return area.strokes.length === 0;
      default:
        return false;
    }
  });
}

function hasPart(
  products: readonly Product[],
  { product, part, index }: { product: string; part: string; index: number },
): boolean {
  const own = products.find(({ id }) => id === product);
  if (!own) return false;
  if (part === 'body') return true;
  if (own.kind === 'box') return part === 'label' && own.label !== undefined;
  if (own.kind !== 'turned') return false;
  if (part === 'liquid') return own.hollow?.liquid !== undefined;
  return (part === 'label' ? own.labels : own.parts).length > index;
}
