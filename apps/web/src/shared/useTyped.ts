import { type ChangeEvent, type FocusEvent, type KeyboardEvent, useState } from 'react';

type Input = HTMLInputElement | HTMLTextAreaElement;

interface Typed {
  /** What the input takes. */
  input: {
    value: string;
    'aria-invalid': boolean;
    onChange(event: ChangeEvent<Input>): void;
    onFocus(event: FocusEvent<Input>): void;
    onBlur(): void;
    onKeyDown(event: KeyboardEvent<Input>): void;
  };
  /** What was typed is not understood: it stays as it is, to be mended, and the value stays as it was. */
  wrong: boolean;
}

/**
 * A value typed as people say it. Enter or leaving the field sets it, Escape leaves it as it was.
 * @param shown the value as shown when not being typed
 * @param parse reads what was typed; null when it is not understood
 */
export function useTyped(
  shown: string,
  parse: (text: string) => number | null,
  onCommit: (value: number) => void,
): Typed {
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState(false);

  function leave() {
    setDraft(null);
    setWrong(false);
  }

  function commit() {
    if (draft === null || draft.trim() === '' || draft === shown) return leave();
    const value = parse(draft);
    if (value === null) return setWrong(true);
    leave();
    onCommit(value);
  }

  return {
    wrong,
    input: {
      value: draft ?? shown,
      'aria-invalid': wrong,
      onChange: (event) => setDraft(event.target.value),
      onFocus: (event) => event.target.select(),
      onBlur: commit,
      onKeyDown: (event) => {
        if (event.key === 'Enter') commit();
        // Escape with nothing typed is for what is around the field, as a dialog.
        if (event.key === 'Escape' && draft === null) return;
        if (event.key === 'Escape') leave();
        event.stopPropagation();
      },
    },
  };
}
