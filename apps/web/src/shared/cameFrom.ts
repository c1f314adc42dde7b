import type { FocusEvent } from 'react';

/** Where one was before the first of the fields that one goes through. */
let cameFrom: Element | null = null;

/** A field is come to: from another field, the place before that one counts on. */
export function cameTo({ relatedTarget }: FocusEvent): void {
  if (!isField(relatedTarget)) cameFrom = relatedTarget;
}

/** Focus goes back to where it was before the fields, or leaves them: never to the field before, which Escape would not leave. */
export function goBack(field: HTMLElement): void {
  if (cameFrom?.isConnected && (cameFrom instanceof HTMLElement || cameFrom instanceof SVGElement))
    cameFrom.focus();
  else field.blur();
}

const isField = (element: Element | null) =>
  element instanceof HTMLInputElement || element instanceof HTMLTextAreaElement;
