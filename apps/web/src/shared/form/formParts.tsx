import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import NativeSelect from '@mui/material/NativeSelect';
import { type ReactNode, useId } from 'react';
import { Row } from '../Row';
import { kindWords } from './words';

export function SelectField({
  label,
  hint,
  options,
  value,
  onChange,
}: {
  label: string;
  hint?: string | undefined;
  options: readonly string[];
  value: string;
  onChange(value: string): void;
}) {
  const id = useId();
  return (
    <Row label={label} hint={hint} htmlFor={id}>
      <NativeSelect
        disableUnderline
        value={value}
        onChange={(event) => onChange(event.target.value)}
        inputProps={{ id }}
        sx={{ fontSize: '0.8125rem', maxWidth: 220 }}
      >
        {options.map((option) => (
          <option key={option} value={option}>
            {kindWords(option)}
          </option>
        ))}
      </NativeSelect>
    </Row>
  );
}

export function Group({
  label,
  onRemove,
  children,
}: {
  label: string;
  onRemove?: () => void;
  children: ReactNode;
}) {
  if (label === '') return <>{children}</>;
  return (
    <Box
      component="fieldset"
      sx={{ border: 0, borderLeft: 2, borderColor: 'divider', m: 0, mt: 0.5, p: 0, pl: 1 }}
    >
      <Box component="legend" sx={{ p: 0, fontSize: '0.75rem', fontWeight: 650 }}>
        {label}
        {onRemove && (
          <Button
            size="small"
            color="inherit"
            onClick={onRemove}
            aria-label={`Remove ${label}`}
            sx={{ ml: 1, py: 0, minWidth: 0 }}
          >
            Remove
          </Button>
        )}
      </Box>
      {children}
    </Box>
  );
}
