import { type ChangeEvent, type FocusEvent, type KeyboardEvent, useRef, useState } from 'react';
import { cameTo, goBack, isGoingBack } from './cameFrom';
import { usePending } from './pending';
import { refusalsOf } from './refusals';
import { isDocumentUndo } from './useTyped';

type Input = HTMLInputElement | HTMLTextAreaElement;

interface WordsOptions {
  /** Each key counts; without, they are set with Enter or when the field is left. Not for names that others go by. */
  live?: boolean;
  multiline?: boolean;
}

let gestures = 0;

/**
 * Words being typed. What is typed from one focus on is one step of undo; undo within the field takes back typing, and what
 * is set follows. Escape goes back to the words before.
 * @param onCommit with the gesture that it belongs to
 */
export function useWords(
  value: string,
  onCommit: (words: string, gesture: string) => void,
  { live = true, multiline = false }: WordsOptions = {},
) {
  const [draft, setDraft] = useState<string | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const start = useRef({ words: value, gesture: '' });

  function begin() {
    start.current = { words: value, gesture: `words ${++gestures}` };
  }

  function put(words: string): boolean {
    const [refusal] = refusalsOf(() => onCommit(words, start.current.gesture));
    setWrong(refusal ?? null);
    return refusal === undefined;
  }

  function settle() {
    if (draft === null) return;
    if (wrong === null && (live || draft === value || put(draft))) setDraft(null);
  }

  function leave() {
    setDraft(null);
    setWrong(null);
  }

  usePending(draft === null || live ? null : settle);

  return {
    /** Why the words are not taken; null if they are. */
    wrong,
    input: {
      value: draft ?? value,
      'aria-invalid': wrong !== null,
      'data-settled': draft === null ? (true as const) : undefined,
      onFocus: (event: FocusEvent<Input>) => {
        cameTo(event);
        begin();
      },
      onChange: (event: ChangeEvent<Input>) => {
        const words = event.target.value;
        if (start.current.gesture === '') begin();
        setDraft(words);
        if (live) put(words);
      },
      onBlur: () => {
        if (!isGoingBack()) settle();
        start.current.gesture = '';
      },
      onKeyDown: (event: KeyboardEvent<Input>) => {
        if (event.key === 'Enter' && !multiline) {
          settle();
          begin();
        }
        if (event.key === 'Escape') {
          if (live && draft !== null) put(start.current.words);
          leave();
          goBack(event.currentTarget);
        }
        if (!isDocumentUndo(event, draft === null)) event.stopPropagation();
      },
    },
  };
}
