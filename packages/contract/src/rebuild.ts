import { z } from 'zod';
import { checkMaterials } from './materialRules.js';
import { productId } from './names.js';
import { product } from './product.js';
import { checkProduct } from './productRules.js';

/** Body of the question how an old set is rebuilt with another product. */
export const rebuildBody = z
  .strictObject({
    product: productId.describe('The product of the set whose place it takes'),
    with: product,
    align: z
      .enum(['base', 'centre'])
      .default('base')
      .describe('What stays on one line with the old picture: the feet, or the middles, by a riser'),
  })
  .superRefine((body, problems) => {
    const report = (path: PropertyKey[], message: string) =>
      problems.addIssue({ code: 'custom', path, message });
    checkProduct(body.with, ['with'], report);
    checkMaterials(body.with, ['with'], report);
  });
