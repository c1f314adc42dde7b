import Box from '@mui/material/Box';
import InputBase from '@mui/material/InputBase';
import Tooltip from '@mui/material/Tooltip';
import { useId, useState } from 'react';

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

  const words = (
    <Box component="label" htmlFor={id} sx={{ flex: 1, color: 'text.secondary', fontSize: '0.8125rem' }}>
      {label}
    </Box>
  );
  return (
    <Box sx={{ borderBottom: 1, borderColor: 'divider' }}>
      <Box sx={{ display: 'flex', alignItems: 'center', minHeight: 27 }}>
        {hint ? (
          <Tooltip describeChild title={hint} placement="left">
            {words}
          </Tooltip>
        ) : (
          words
        )}
        <InputBase
          id={id}
          value={draft ?? shown}
          error={wrong}
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
          sx={{
            width: 112,
            '& input': {
              textAlign: 'right',
              p: 0,
              height: 26,
              fontFamily: 'JetBrains Mono Variable, monospace',
              fontSize: '0.8125rem',
            },
          }}
          slotProps={{
            input: {
              'aria-invalid': wrong,
              'aria-describedby': wrong ? `${id}-wrong` : undefined,
            },
          }}
        />
      </Box>
      {wrong && (
        <Box id={`${id}-wrong`} role="alert" sx={{ color: 'error.main', fontSize: '0.75rem', pb: 0.5 }}>
          Not understood. Type for example {example}.
        </Box>
      )}
    </Box>
  );
}
