import type { Product } from '@fendrix/contract';
import {
  formatLength,
  MEASURE_WORDS,
  MEASURED_FORMS,
  type Measure,
  type MeasuredForm,
  type Measures,
  parseLengthM,
} from '@fendrix/core';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import { useMemo, useState } from 'react';
import { problemWords } from '../document/problemWords';
import { QuantityField } from '../QuantityField';
import { productPreview } from '../render/productPreview';
import { SmallPicture } from '../render/SmallPicture';
import { type Parsed, within } from '../useTyped';
import { FormTiles } from './FormTiles';
import { productOfForm } from './productOfForm';

/** No form is smaller or larger than this, m. */
const SMALLEST_M = 1e-4;
const LARGEST_M = 3;

/** A usual form of products by a few measures, with a small true picture of what they make. */
export function MeasuredProduct({
  takeWords,
  onTake,
  onClose,
}: {
  /** What taking it is called. */
  takeWords: string;
  /** @returns whether it was taken */
  onTake(product: Product): boolean;
  onClose(): void;
}) {
  const [form, setForm] = useState<MeasuredForm>(MEASURED_FORMS[0] as MeasuredForm);
  const [measures, setMeasures] = useState<Measures>({});
  const product = useMemo(() => standing(form, measures), [form, measures]);
  const preview = useMemo(() => productPreview(product), [product]);
  const all = { ...form.usual, ...measures };
  return (
    <Dialog open onClose={onClose} fullWidth maxWidth="sm" aria-labelledby="measured-title">
      <DialogTitle id="measured-title">A product by its measures</DialogTitle>
      <DialogContent sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 270px' }, gap: 2 }}>
        <FormTiles
          chosen={form}
          onChoose={(one) => {
            setForm(one);
            setMeasures({});
          }}
        />
        <Box>
          {(Object.keys(form.usual) as Measure[]).map((measure) => (
            <QuantityField
              key={`${form.id} ${measure}`}
              label={MEASURE_WORDS[measure]}
              shown={formatLength(all[measure] ?? 0)}
              parse={(text) => whatFits(form, measures, measure, text)}
              example="72 mm or 7.2 cm"
              onCommit={(value) => setMeasures((old) => ({ ...old, [measure]: value }))}
            />
          ))}
          <Box sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1 }}>
            A number alone is in millimetres, as calipers say it. For a nearer outline trace it over a
            photograph, on the job's products page.
          </Box>
        </Box>
        <SmallPicture set={preview} width={270} samples={16} label={`${form.name} as measured`} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button variant="contained" onClick={() => onTake(product) && onClose()}>
          {takeWords}
        </Button>
      </DialogActions>
    </Dialog>
  );
}

/** The product of measures that are known to go together. */
function standing(form: MeasuredForm, measures: Measures): Product {
  const made = productOfForm(form, measures);
  if ('problems' in made) throw new Error(`${form.name} cannot be made of measures that were taken`);
  return made.product;
}

/** A measure as typed, where the form can be made with it; why not is told at the field. */
function whatFits(form: MeasuredForm, measures: Measures, measure: Measure, text: string): Parsed<number> {
  const limits = { from: measure === 'fill' ? 0 : SMALLEST_M, to: LARGEST_M };
  const typed = within((own) => parseLengthM(own, 'mm'), formatLength, limits)(text);
  if (typeof typed !== 'number') return typed;
  const made = productOfForm(form, { ...measures, [measure]: typed });
  if ('product' in made) return typed;
  const [problem] = made.problems;
  return {
    refused: `With ${formatLength(typed)} it cannot be: ${problem ? problemWords(problem, {}) : 'measure again.'}`,
  };
}
