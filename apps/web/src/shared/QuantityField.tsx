import Box from '@mui/material/Box';
import { useId, useState } from 'react';
import { Row } from './Row';

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
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);
  const id = useId();

  function commit() {
    if (draft === null || draft.trim() === '' || draft === shown) {
      setDraft(null);
      setWrong(false);
      return;
    }
    const value = parse(draft);
    if (value === null) {
      setWrong(true);
      return;
    }
    setDraft(null);
    setWrong(false);
    onCommit(value);
  }

  return (
    <>
      <Row label={label} hint={hint} htmlFor={id}>
        <input
          id={id}
          className="number"
          value={draft ?? shown}
          aria-invalid={wrong}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
          onChange={(event) => setDraft(event.target.value)}
          onBlur={commit}
          onFocus={(event) => event.target.select()}
          onKeyDown={(event) => {
            if (event.key === 'Enter') commit();
            if (event.key === 'Escape') {
              setDraft(null);
              setWrong(false);
            }
            event.stopPropagation();
          }}
        />
      </Row>
      {wrong && (
        <Box id={`${id}-wrong`} role="alert" sx={{ color: 'error.main', fontSize: '0.75rem', pb: 0.5 }}>
          Not understood. Type for example {example}.
        </Box>
      )}
    </>
  );
}
