import { type ChangeEvent, type FocusEvent, type KeyboardEvent, useRef } from 'react';
import { cameTo, isGoingBack } from './cameFrom';
import { usePending } from './pending';
import { refusalsOf } from './refusals';
import { type TextElement, useDraft } from './useDraft';

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
  const { text, type, refuse, leave, ...draft } = useDraft(value);
  const start = useRef({ words: value, gesture: '' });

  function begin() {
    start.current = { words: value, gesture: `words ${++gestures}` };
  }

  function put(words: string): boolean {
    const [refusal] = refusalsOf(() => onCommit(words, start.current.gesture));
    refuse(refusal ?? null);
    return refusal === undefined;
  }

  function settle() {
    if (text === null) return;
    if (draft.wrong === null && (live || text === value || put(text))) type(null);
  }

  usePending(text === null || live ? null : settle);

  return {
    /** Why the words are not taken; null if they are. */
    wrong: draft.wrong,
    input: {
      ...draft.input,
      onFocus: (event: FocusEvent<TextElement>) => {
        cameTo(event);
        begin();
      },
      onChange: (event: ChangeEvent<TextElement>) => {
        const words = event.target.value;
        if (start.current.gesture === '') begin();
        type(words);
        if (live) put(words);
      },
      onBlur: () => {
        if (!isGoingBack()) settle();
        start.current.gesture = '';
      },
      onKeyDown: (event: KeyboardEvent<TextElement>) =>
        draft.onKey(event, {
          enter() {
            if (multiline) return;
            settle();
            begin();
          },
          escape() {
            if (live && text !== null) put(start.current.words);
          },
        }),
    },
  };
}
