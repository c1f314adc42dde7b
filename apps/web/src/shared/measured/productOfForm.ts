import { checkDocument, type Problem, type Product, productDocument } from '@fendrix/contract';
import { type MeasuredForm, type Measures, measuredProduct } from '@fendrix/core';

/** A product of a form and its measures; or what cannot be of it. */
export function productOfForm(
  form: MeasuredForm,
  measures: Measures,
): { product: Product } | { problems: Problem[] } {
  const checked = checkDocument(productDocument, measuredProduct(form, measures));
  return checked.ok ? { product: checked.value } : { problems: checked.problems };
}

const usual = new Map<string, Product>();

/** The product of a form's usual measures, the same one each time. */
export function usualProduct(form: MeasuredForm): Product {
  const known = usual.get(form.id);
  if (known) return known;
  const made = productOfForm(form, {});
  if ('problems' in made) throw new Error(`${form.name} cannot be made of its usual measures`);
  usual.set(form.id, made.product);
  return made.product;
}
