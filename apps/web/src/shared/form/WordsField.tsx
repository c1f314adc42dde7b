import Box from '@mui/material/Box';
import { useId } from 'react';
import { Refusal } from '../Refusal';
import { useWords } from '../useWords';
import { WordsInput } from '../WordsInput';

interface WordsFieldProps {
  label: string;
  value: string;
  multiline?: boolean;
  /** Room for more than a few words. */
  wide?: boolean;
  /** Each key counts; without, the words are set with Enter or when the field is left. */
  live?: boolean;
  /** @param gesture what is typed in one go is undone together */
  onCommit(words: string, gesture: string): void;
}

/** Words, set as they are typed. */
export function WordsField({
  label,
  value,
  multiline = false,
  wide = false,
  live,
  onCommit,
}: WordsFieldProps) {
  const words = useWords(value, onCommit, { live: live ?? true, multiline });
  const id = useId();
  return (
    <>
      <Box
        sx={{
          display: multiline ? 'block' : 'flex',
          alignItems: 'center',
          minHeight: 27,
          maxWidth: multiline ? 'none' : 460,
          borderBottom: 1,
          borderColor: 'divider',
        }}
      >
        <Box component="label" htmlFor={id} sx={{ flex: 1, color: 'text.secondary', fontSize: '0.8125rem' }}>
          {label}
        </Box>
        <WordsInput
          id={id}
          multiline={multiline}
          words={words}
          refusalId={`${id}-wrong`}
          sx={{
            width: multiline ? '100%' : wide ? '60%' : 150,
            fontSize: '0.8125rem',
            '& input': { textAlign: 'right', p: 0, height: 26 },
          }}
        />
      </Box>
      <Refusal id={`${id}-wrong`} words={words.wrong} />
    </>
  );
}
