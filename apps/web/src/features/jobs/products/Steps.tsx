import type { JobProduct, Step } from '@fendrix/contract';
import { proposedSteps } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import { useId } from 'react';
import { Refusal } from '../../../shared/Refusal';
import { tellRefusal } from '../../../shared/refusals';
import { changeRow, freeId, withoutRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { useWords } from '../../../shared/useWords';
import { WordsInput } from '../../../shared/WordsInput';

/** Preparation and styling, proposed from what the products are, edited, ticked on the day. */
export function Steps({
  product,
  onChange,
}: {
  product: JobProduct;
  onChange(steps: Step[], gesture?: string): void;
}) {
  const { steps } = product;
  const propose = () => {
    const have = new Set(steps.map(({ text }) => text));
    const added: Step[] = [...steps];
    for (const step of proposedSteps(product)) {
      if (!have.has(step.text)) added.push({ ...step, id: freeId(added, step.text, 'step') });
    }
    onChange(added);
  };
  return (
    <Section
      title="Preparation and styling"
      action={
        <>
          <Button size="small" onClick={propose}>
            Propose steps
          </Button>
          <Button
            size="small"
            onClick={() =>
              onChange([...steps, { id: freeId(steps, 'step', 'step'), text: 'New step', done: false }])
            }
          >
            Add a step
          </Button>
        </>
      }
    >
      {steps.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          None yet. Propose steps lists those usual for{' '}
          {product.goods === 'other' ? 'such products' : product.goods}: yours to change.
        </Box>
      )}
      <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
        {steps.map((step) => (
          <StepRow
            key={step.id}
            step={step}
            onChange={(changes, gesture) => onChange(changeRow(steps, step.id, changes), gesture)}
            onRemove={() => onChange(withoutRow(steps, step.id))}
          />
        ))}
      </Box>
    </Section>
  );
}

function StepRow({
  step,
  onChange,
  onRemove,
}: {
  step: Step;
  onChange(changes: Partial<Step>, gesture?: string): void;
  onRemove(): void;
}) {
  const refusalId = useId();
  const words = useWords(step.text, (text, gesture) => {
    if (text.trim()) onChange({ text }, gesture);
    else tellRefusal('A step says what to do; remove it if there is nothing to do.');
  });
  return (
    <Box
      component="li"
      sx={{ display: 'flex', alignItems: 'center', borderBottom: 1, borderColor: 'divider' }}
    >
      <Checkbox
        size="small"
        checked={step.done}
        onChange={(_, done) => onChange({ done })}
        slotProps={{ input: { 'aria-label': `Done: ${step.text}` } }}
      />
      <Box sx={{ flex: 1 }}>
        <WordsInput
          fullWidth
          words={words}
          label="Step"
          refusalId={refusalId}
          maxLength={300}
          sx={{
            fontSize: '0.8125rem',
            ...(step.done ? { textDecoration: 'line-through', color: 'text.secondary' } : {}),
          }}
        />
        <Refusal id={refusalId} words={words.wrong} />
      </Box>
      <Button size="small" color="inherit" onClick={onRemove} aria-label={`Remove step: ${step.text}`}>
        Remove
      </Button>
    </Box>
  );
}
