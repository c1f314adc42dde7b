import type { JobProduct, Step } from '@fendrix/contract';

type Goods = JobProduct['goods'];

/** Steps usual for a kind of product, in the order they are done. */
const STEPS: Record<Goods, readonly string[]> = {
  glass: [
    'Put on cotton gloves',
    'Wash, dry and polish; no fingerprints from here on',
    'Dust with a soft brush and a blower, look at it against a lamp',
    'Turn the label square to the lens',
    'Turn the seam of the glass behind',
  ],
  metal: [
    'Put on cotton gloves',
    'Polish, then wipe off the polish',
    'Dust with a soft brush and a blower',
    'Turn seams and marks away from the lens',
  ],
  jewelry: [
    'Put on cotton gloves',
    'Clean and dust under a magnifier',
    'Fix with a little wax where it is not seen',
    'Hang chains evenly, links lying the same way',
  ],
  garment: [
    'Steam or iron; take off lint',
    'Lay hem and shoulders level',
    'Overlap front over back by the same on both sides',
    'Knot drawstrings alike, tuck the ends',
    'Close zips and buttons as agreed',
    'Give it volume with tissue where it lies flat',
  ],
  drink: [
    'Polish glass and bottle; gloves from here on',
    'Bring to its temperature: cold mists over, warm loses fizz',
    'Fill to the height agreed, wipe the inside of the neck',
    'Turn label square to the lens, seam behind',
    'Have the next glass ready: foam lasts a few minutes',
  ],
  food: [
    'Set up and light with a stand-in first',
    'Agree on doneness and cut with the client',
    'Choose the best piece for the hero, lay out the spares',
    'Plate in order: base, body, garnish last',
    'Wipe rim and crumbs off, except those that are meant',
    'Brush with a little oil or water where it dries',
  ],
  other: ['Clean and dust it', 'Turn seams and marks away from the lens'],
};

/**
 * Proposes preparation and styling steps for a product: those usual for its products, then those that its finish,
 * fragility, time on set and spares ask for. The user's to edit and tick.
 */
export function proposeSteps(product: Omit<JobProduct, 'steps' | 'body' | 'id' | 'name'>): Step[] {
  const texts = [...STEPS[product.goods]];
  if (product.shine === 'mirror' || product.shine === 'gloss') {
    texts.push('Look for the camera, stands and yourself in it; dark clothes');
  }
  if (product.clear !== 'opaque') texts.push('Check what stands behind it: it shows through');
  if (product.fragile !== '') texts.push(`Take care: ${product.fragile}`);
  if (product.minutesOnSet !== undefined) {
    texts.push(
      `Everything else ready first: it lasts ${product.minutesOnSet} minutes on set${
        product.spares > 0 ? `, then a spare (${product.spares} at hand)` : ', and there is no spare'
      }`,
    );
  }
  if (product.goods === 'food' || product.goods === 'drink') {
    texts.push('What was styled, glued, painted or left warm is not eaten or drunk');
  }
  return texts.map((text, index) => ({ id: `step-${index + 1}`, text, done: false }));
}
