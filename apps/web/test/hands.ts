import { fireEvent, screen } from '@testing-library/react';

/** Types into a field and sets it with Enter. */
export function type(label: string, text: string): void {
  const field = screen.getByLabelText(label, { exact: true });
  fireEvent.change(field, { target: { value: text } });
  fireEvent.keyDown(field, { key: 'Enter' });
}

/** Presses a button. */
export const press = (name: string | RegExp) => fireEvent.click(screen.getByRole('button', { name }));
