import type { MeasuredForm, Measures } from './measuredForm.js';
import { packs } from './packs.js';
import { vessels } from './vessels.js';
import { worn } from './worn.js';

/** All forms, in the order in which they are offered. Plain ones: an outline traced over a photograph is nearer to the product. */
export const MEASURED_FORMS: readonly MeasuredForm[] = [...vessels, ...packs, ...worn];

/** What a form and its measures make, at the mark: a product as it is written, still to be checked. */
export const measuredProduct = (form: MeasuredForm, measures: Measures): object => ({
  id: form.id,
  name: form.name,
  positionM: [0, 0, 0],
  ...form.make({ ...form.usual, ...measures } as Required<Measures>),
});
