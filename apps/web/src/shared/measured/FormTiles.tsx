import { MEASURED_FORMS, type MeasuredForm } from '@fendrix/core';
import Box from '@mui/material/Box';
import { useId } from 'react';
import { ProductThumbnail } from '../render/ProductThumbnail';
import { usualProduct } from './productOfForm';

/** The usual forms as small true pictures, one of which is chosen. */
export function FormTiles({
  chosen,
  onChoose,
}: {
  chosen: MeasuredForm;
  onChoose(form: MeasuredForm): void;
}) {
  const group = useId();
  return (
    <Box
      role="radiogroup"
      aria-label="form"
      sx={{
        gridColumn: '1 / -1',
        display: 'grid',
        gridTemplateColumns: 'repeat(auto-fill, minmax(76px, 1fr))',
        gap: 0.5,
        maxHeight: 330,
        overflow: 'auto',
      }}
    >
      {MEASURED_FORMS.map((form) => (
        <Box
          key={form.id}
          component="label"
          sx={{
            position: 'relative',
            p: '2px',
            fontSize: '0.75rem',
            textAlign: 'center',
            cursor: 'pointer',
            border: 2,
            borderColor: form === chosen ? 'primary.main' : 'transparent',
            '&:has(:focus-visible)': { outline: '2px solid currentColor', outlineOffset: -2 },
          }}
        >
          <input
            type="radio"
            name={group}
            checked={form === chosen}
            onChange={() => onChoose(form)}
            style={{ position: 'absolute', opacity: 0 }}
          />
          <Box sx={{ display: 'grid', justifyItems: 'center' }}>
            <ProductThumbnail product={usualProduct(form)} />
          </Box>
          {form.name}
        </Box>
      ))}
    </Box>
  );
}
