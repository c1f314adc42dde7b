import type { JobProduct, Step } from '@fendrix/contract';
import { type PlainStep, type PreparationStep, proposeSteps } from '@fendrix/core';

/** The steps proposed for a product as texts, to be edited and ticked. */
export const proposedSteps = (product: Omit<JobProduct, 'steps' | 'body' | 'id' | 'name'>): Step[] =>
  proposeSteps(product).map((step, index) => ({
    id: `step-${index + 1}`,
    text: stepWords(step),
    done: false,
  }));

function stepWords(step: PreparationStep): string {
  switch (step.code) {
    case 'take-care':
      return `Take care: ${step.of}`;
    case 'all-else-ready': {
      const spare = step.spares > 0 ? `, then a spare (${step.spares} at hand)` : ', and there is no spare';
      return `Everything else ready first: it lasts ${step.minutes} minutes on set${spare}`;
    }
    default:
      return STEPS[step.code];
  }
}

const STEPS: Record<PlainStep, string> = {
  gloves: 'Put on cotton gloves',
  wash: 'Wash, dry and polish; no fingerprints from here on',
  'dust-against-lamp': 'Dust with a soft brush and a blower, look at it against a lamp',
  'label-square': 'Turn the label square to the lens',
  'seam-behind': 'Turn the seam of the glass behind',
  polish: 'Polish, then wipe off the polish',
  dust: 'Dust with a soft brush and a blower',
  'marks-away': 'Turn seams and marks away from the lens',
  'clean-magnified': 'Clean and dust under a magnifier',
  'fix-with-wax': 'Fix with a little wax where it is not seen',
  'hang-chains': 'Hang chains evenly, links lying the same way',
  steam: 'Steam or iron; take off lint',
  'level-hem': 'Lay hem and shoulders level',
  overlap: 'Overlap front over back by the same on both sides',
  knot: 'Knot drawstrings alike, tuck the ends',
  close: 'Close zips and buttons as agreed',
  volume: 'Give it volume with tissue where it lies flat',
  'polish-glass': 'Polish glass and bottle; gloves from here on',
  temperature: 'Bring to its temperature: cold mists over, warm loses fizz',
  fill: 'Fill to the height agreed, wipe the inside of the neck',
  'label-and-seam': 'Turn label square to the lens, seam behind',
  'next-glass': 'Have the next glass ready: foam lasts a few minutes',
  'stand-in': 'Set up and light with a stand-in first',
  doneness: 'Agree on doneness and cut with the client',
  hero: 'Choose the best piece for the hero, lay out the spares',
  plate: 'Plate in order: base, body, garnish last',
  'wipe-rim': 'Wipe rim and crumbs off, except those that are meant',
  'brush-oil': 'Brush with a little oil or water where it dries',
  clean: 'Clean and dust it',
  'look-for-mirrored': 'Look for the camera, stands and yourself in it; dark clothes',
  'check-behind': 'Check what stands behind it: it shows through',
  'not-eaten': 'What was styled, glued, painted or left warm is not eaten or drunk',
};
