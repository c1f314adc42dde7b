import Box from '@mui/material/Box';
import { useId } from 'react';
import { Row } from './Row';
import { useTyped } from './useTyped';

interface QuantityFieldProps {
  label: string;
  /** The value as shown when not being typed. */
  shown: string;
  /** Reads what was typed; null when it is not understood. */
  parse(text: string): number | null;
  /** What it means, where that is not plain. */
  hint?: string | undefined;
  /** What may be typed, for the message. */
  example: string;
  onCommit(value: number): void;
}

/** A number with its unit, typed as people say it. Enter or leaving the field sets it, Escape leaves it. */
export function QuantityField({ label, hint, shown, parse, example, onCommit }: QuantityFieldProps) {
  const { input, wrong } = useTyped(shown, parse, onCommit);
  const id = useId();

  return (
    <>
      <Row label={label} hint={hint} htmlFor={id}>
        <input id={id} className="number" {...input} aria-describedby={wrong ? `${id}-wrong` : undefined} />
      </Row>
      {wrong && (
        <Box id={`${id}-wrong`} role="alert" sx={{ color: 'error.main', fontSize: '0.75rem', pb: 0.5 }}>
          Not understood. Type for example {example}.
        </Box>
      )}
    </>
  );
}
