import type { JobProduct } from '@fendrix/contract';

type Goods = JobProduct['goods'];

/** Steps that say nothing but themselves. */
export type PlainStep =
  | 'gloves'
  | 'wash'
  | 'dust-against-lamp'
  | 'label-square'
  | 'seam-behind'
  | 'polish'
  | 'dust'
  | 'marks-away'
  | 'clean-magnified'
  | 'fix-with-wax'
  | 'hang-chains'
  | 'steam'
  | 'level-hem'
  | 'overlap'
  | 'knot'
  | 'close'
  | 'volume'
  | 'polish-glass'
  | 'temperature'
  | 'fill'
  | 'label-and-seam'
  | 'next-glass'
  | 'stand-in'
  | 'doneness'
  | 'hero'
  | 'plate'
  | 'wipe-rim'
  | 'brush-oil'
  | 'clean'
  | 'look-for-mirrored'
  | 'check-behind'
  | 'not-eaten';

/** A step of preparation or styling. */
export type PreparationStep =
  | { code: PlainStep }
  | { code: 'take-care'; of: string }
  | { code: 'all-else-ready'; minutes: number; spares: number };

/** Steps usual for a kind of product, in the order they are done. */
const STEPS: Record<Goods, readonly PlainStep[]> = {
  glass: ['gloves', 'wash', 'dust-against-lamp', 'label-square', 'seam-behind'],
  metal: ['gloves', 'polish', 'dust', 'marks-away'],
  jewelry: ['gloves', 'clean-magnified', 'fix-with-wax', 'hang-chains'],
  garment: ['steam', 'level-hem', 'overlap', 'knot', 'close', 'volume'],
  drink: ['polish-glass', 'temperature', 'fill', 'label-and-seam', 'next-glass'],
  food: ['stand-in', 'doneness', 'hero', 'plate', 'wipe-rim', 'brush-oil'],
  other: ['clean', 'marks-away'],
};

/**
 * Proposes preparation and styling steps for a product: those usual for its products, then those that its finish,
 * fragility, time on set and spares ask for. The user's to edit and tick.
 */
export function proposeSteps(product: Omit<JobProduct, 'steps' | 'body' | 'id' | 'name'>): PreparationStep[] {
  const { goods, shine, clear, fragile, minutesOnSet: minutes, spares } = product;
  const steps: PreparationStep[] = STEPS[goods].map((code) => ({ code }));
  if (shine === 'mirror' || shine === 'gloss') steps.push({ code: 'look-for-mirrored' });
  if (clear !== 'opaque') steps.push({ code: 'check-behind' });
  if (fragile !== '') steps.push({ code: 'take-care', of: fragile });
  if (minutes !== undefined) steps.push({ code: 'all-else-ready', minutes, spares });
  if (goods === 'food' || goods === 'drink') steps.push({ code: 'not-eaten' });
  return steps;
}
