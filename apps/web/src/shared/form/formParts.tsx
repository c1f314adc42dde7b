import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ReactNode } from 'react';
import { Choice } from '../Choice';
import { kindWords } from './words';

/** One of a few that go by the words of their kind. */
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
  return (
    <Choice
      shown
      label={label}
      hint={hint}
      value={value}
      options={options.map((option) => ({ value: option, words: kindWords(option) }))}
      onChoose={onChange}
    />
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
      sx={{ border: 0, borderLeft: 2, borderColor: 'divider', m: 0, mt: 0.5, p: 0, pl: 1, maxWidth: 460 }}
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

/** What is seldom changed, out of the way until it is asked for. */
export const Advanced = ({ children }: { children: ReactNode }) => (
  <Box
    component="details"
    sx={{ '& > summary': { cursor: 'pointer', fontSize: '0.75rem', fontWeight: 650, py: 0.5 } }}
  >
    <summary>Advanced</summary>
    {children}
  </Box>
);
