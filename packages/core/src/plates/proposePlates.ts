import type { MaskArea, MaskPiece, Plate, Product, SetDocument } from '@fendrix/contract';
import { cornersOf } from '../geometry/bounds.js';
import { productBounds } from '../geometry/shape.js';
import { depthAlongLens } from '../judge/focus.js';
import { focusStack } from '../optics/depthDesk.js';
import { lensFigures } from '../optics/lens.js';

/** What a plate begins with. */
export type ProposedPlate = Pick<Plate, 'gives' | 'mask'> & { focusM?: number };

/** Blur below this is sharp when the whole file is looked at, pixels of the sensor. */
const CIRCLE_PIXELS = 2;
/** Part of each focus step's depth that the next one covers again; usual practice. */
const OVERLAP = 0.2;
/** More steps than this are for a rail and a program of their own, not for plates one by one. */
export const MOST_FOCUS_STEPS = 16;

/**
 * What plates of a kind begin with on a set: the mask that goes with it, and for focus steps the distances that hold
 * all products together with the set's own f-stop.
 * @returns none where it takes more focus steps than can be laid one by one, or no product is before the lens
 */
export function proposedPlates(set: SetDocument, gives: Plate['gives']): ProposedPlate[] {
  if (gives === 'focus') return focusSteps(set);
  return [{ gives, mask: usualMask(set.products, gives) }];
}

/** Plates by the names that a picture has noted for them; of a name that says what it gives with the mask that goes with it. */
export function platesNamed({ products }: Pick<SetDocument, 'products'>, names: readonly string[]): Plate[] {
  return names.slice(0, MOST_PLATES).map((name, index) => {
    const said = name.trim().toLowerCase();
    const gives = KNOWN.find((own) => said === own) ?? 'other';
    const own = { id: `plate-${index + 1}`, name: name.charAt(0).toUpperCase() + name.slice(1) };
    return startedPlate(own, { gives, mask: usualMask(products, gives) });
  });
}

/** Fades by about a pixel and a half of the picture on the bench: seams are not seen, nothing bleeds. */
const USUAL_FEATHER = 0.003;

/** A plate that is lit and exposed as the set is. */
export const startedPlate = (own: Pick<Plate, 'id' | 'name'>, proposed: ProposedPlate): Plate => ({
  ...own,
  note: '',
  lights: [],
  featherPart: USUAL_FEATHER,
  laid: true,
  ...proposed,
});

/** As many as a set may have. */
const MOST_PLATES = 24;
/** Kinds that a name alone tells; focus steps need their distances. */
const KNOWN: readonly Plate['gives'][] = ['label', 'liquid', 'outline', 'ground', 'splash'];

function focusSteps({ camera, products }: SetDocument): ProposedPlate[] {
  const depths = products
    .flatMap((product) => cornersOf(productBounds(product)).map((corner) => depthAlongLens(camera, corner)))
    .filter((depthM) => depthM > 0);
  const [nearM, farM] = [Math.min(...depths), Math.max(...depths)];
  if (!(farM > nearM)) return [];
  const circleM = CIRCLE_PIXELS * lensFigures(camera).pixelPitchM;
  const stack = focusStack(camera, nearM, farM, circleM, OVERLAP, 1);
  if (!stack || stack.positionsM.length > MOST_FOCUS_STEPS) return [];
  return stack.positionsM.map((focusM) => ({
    gives: 'focus',
    mask: [takes({ by: 'sharpest' })],
    focusM: Math.round(focusM * 1e5) / 1e5,
  }));
}

const takes = (area: MaskArea): MaskPiece => ({ area, leaveOut: false });

function usualMask(products: readonly Product[], gives: Plate['gives']): MaskPiece[] {
  switch (gives) {
    case 'label':
      return products
        .flatMap((product) => {
          const labels =
            product.kind === 'turned'
              ? product.labels.length
              : product.kind === 'box' && product.label
                ? 1
                : 0;
          return Array.from({ length: labels }, (_, index) =>
            takes({ by: 'part', product: product.id, part: 'label', index }),
          );
        })
        .slice(0, 12);
    case 'liquid':
      return products
        .filter((product) => product.kind === 'turned' && product.hollow?.liquid !== undefined)
        .map(({ id }) => takes({ by: 'part', product: id, part: 'liquid', index: 0 }))
        .slice(0, 12);
    case 'outline':
      return [takes({ by: 'products' })];
    case 'ground':
      return [{ area: { by: 'products' }, leaveOut: true }];
    default:
      return [];
  }
}
