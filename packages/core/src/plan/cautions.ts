import type { JobProduct } from '@fendrix/contract';

/** What calls for care with a product. */
export type ProductCaution = 'glass' | 'knives' | 'liquid' | 'small-pieces' | 'heat' | 'steam';

/** Usual cautions that come with products. Local rules and qualified people come first; the interface says so. */
export function cautionsFor({
  goods,
  fragile,
  minutesOnSet,
  clear,
}: Pick<JobProduct, 'goods' | 'fragile' | 'minutesOnSet' | 'clear'>): ProductCaution[] {
  const cautions: ProductCaution[] = [];
  if (goods === 'glass' || (goods === 'drink' && clear !== 'opaque')) cautions.push('glass');
  if (goods === 'food') cautions.push('knives');
  if (goods === 'drink') cautions.push('liquid');
  if (goods === 'jewelry') cautions.push('small-pieces');
  if (minutesOnSet !== undefined || /melt|heat|warm|wilt|foam/i.test(fragile)) cautions.push('heat');
  if (goods === 'garment') cautions.push('steam');
  return cautions;
}
