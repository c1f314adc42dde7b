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
