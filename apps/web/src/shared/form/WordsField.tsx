import Box from '@mui/material/Box';
import InputBase from '@mui/material/InputBase';
import { useId, useState } from 'react';

/** Words, set when the field is left or Enter is pressed. */
export function WordsField({
  label,
  value,
  multiline = false,
  wide = false,
  onCommit,
}: {
  label: string;
  value: string;
  multiline?: boolean;
  /** Room for more than a few words. */
  wide?: boolean;
  onCommit(value: string): void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const id = useId();
  const commit = () => {
    if (draft !== null && draft !== value) onCommit(draft);
    setDraft(null);
  };
  return (
    <Box
      sx={{
        display: multiline ? 'block' : 'flex',
        alignItems: 'center',
        minHeight: 27,
        borderBottom: 1,
        borderColor: 'divider',
      }}
    >
      <Box component="label" htmlFor={id} sx={{ flex: 1, color: 'text.secondary', fontSize: '0.8125rem' }}>
        {label}
      </Box>
      <InputBase
        id={id}
        multiline={multiline}
        value={draft ?? value}
        onChange={(event) => setDraft(event.target.value)}
        onBlur={commit}
        onKeyDown={(event) => {
          if (event.key === 'Enter' && !multiline) commit();
          if (event.key === 'Escape') setDraft(null);
          event.stopPropagation();
        }}
        sx={{
          width: multiline ? '100%' : wide ? '60%' : 150,
          fontSize: '0.8125rem',
          '& input': { textAlign: 'right', p: 0, height: 26 },
        }}
      />
    </Box>
  );
}
