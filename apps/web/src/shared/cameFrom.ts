import type { FocusEvent } from 'react';

/** Where one was before the first of the fields that one goes through. */
let cameFrom: Element | null = null;

/** A field is come to: from another field, the place before that one counts on. */
export function cameTo({ relatedTarget }: FocusEvent): void {
  if (!isField(relatedTarget)) cameFrom = relatedTarget;
}

/** While focus goes back: what was typed in the field is not set by leaving it. */
let goingBack = false;

export const isGoingBack = (): boolean => goingBack;

/** Focus goes back to where it was before the fields, or leaves them: never to the field before, which Escape would not leave. */
export function goBack(field: HTMLElement): void {
  goingBack = true;
  try {
    if (cameFrom?.isConnected && (cameFrom instanceof HTMLElement || cameFrom instanceof SVGElement))
      cameFrom.focus();
    else field.blur();
  } finally {
    goingBack = false;
  }
}

const isField = (element: Element | null) =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;
