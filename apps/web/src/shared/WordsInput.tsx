import InputBase, { type InputBaseProps } from '@mui/material/InputBase';
import type { useWords } from './useWords';

interface WordsInputProps extends Pick<InputBaseProps, 'id' | 'fullWidth' | 'multiline' | 'sx'> {
  words: ReturnType<typeof useWords>;
  /** Name of the input where no label stands beside it. */
  label?: string;
  /** Id of the refusal that is shown with it. */
  refusalId: string;
  /** Signs. */
  maxLength?: number;
}

/** The input of words that are being typed; what refuses them stands elsewhere, by `refusalId`. */
export function WordsInput({ words, label, refusalId, maxLength, ...base }: WordsInputProps) {
  const { value, onFocus, onChange, onBlur, onKeyDown, ...attributes } = words.input;
  return (
    <InputBase
      {...base}
      {...{ value, onFocus, onChange, onBlur, onKeyDown }}
      slotProps={{
        input: {
          ...attributes,
          'aria-label': label,
          'aria-describedby': words.wrong === null ? undefined : refusalId,
          maxLength,
        } as object,
      }}
    />
  );
}
