import { type KeyboardEvent, useState } from 'react';
import { goBack } from './cameFrom';

export type TextElement = HTMLInputElement | HTMLTextAreaElement;

/** What is being typed before it counts, and why it is not taken. */
export interface Draft {
  /** Null while nothing is being typed. */
  text: string | null;
  /** In words; null when there is nothing wrong. */
  wrong: string | null;
  type(text: string | null): void;
  refuse(words: string | null): void;
  /** What was typed is forgotten. */
  leave(): void;
  /** Enter, Escape and undo while the input has the keyboard. */
  onKey(event: KeyboardEvent<TextElement>, on: { enter?(): void; escape?(): void }): void;
  /** What every such input takes. */
  input: {
    value: string;
    'aria-invalid': boolean;
    /** There while nothing is being typed: undo then is that of the document, not of the text. */
    'data-settled': true | undefined;
  };
}

/** The text of an input from the first key until it counts or is left. @param shown what it says when nothing is being typed */
export function useDraft(shown: string): Draft {
  const [text, type] = useState<string | null>(null);
  const [wrong, refuse] = useState<string | null>(null);

  function leave() {
    type(null);
    refuse(null);
  }

  return {
    text,
    wrong,
    type,
    refuse,
    leave,
    onKey(event, on) {
      if (event.key === 'Enter') on.enter?.();
      if (event.key === 'Escape') {
        // Escape with nothing typed is for what is around the input, as a dialog.
        if (text === null && isInDialog(event.currentTarget)) return;
        on.escape?.();
        leave();
        goBack(event.currentTarget);
      }
      if (!isDocumentUndo(event, text === null)) event.stopPropagation();
    },
    input: {
      value: text ?? shown,
      'aria-invalid': wrong !== null,
      'data-settled': text === null ? true : undefined,
    },
  };
}

const isInDialog = (element: Element) => element.closest('[role=dialog]') !== null;

/** Undo and redo while nothing is being typed belong to the document. */
const isDocumentUndo = (event: KeyboardEvent, settled: boolean): boolean =>
  settled && (event.ctrlKey || event.metaKey) && /^[zy]$/i.test(event.key);
