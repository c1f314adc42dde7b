import { useId } from 'react';
import { Refusal } from './Refusal';
import { Row } from './Row';
import { type Parsed, useTyped } from './useTyped';

interface QuantityFieldProps<T> {
  label: string;
  /** The value as shown when not being typed. */
  shown: string;
  /** Reads what was typed; null when it is not understood. */
  parse(text: string): Parsed<T>;
  /** What it means, where that is not plain. */
  hint?: string | undefined;
  /** What may be typed, for the message. */
  example: string;
  onCommit(value: T): void;
  /** Of a value that need not be there: what the empty field says, and what emptying it does. */
  none?: string;
  onClear?(): void;
}

/** A value with its unit, typed as people say it. Enter or leaving the field sets it, Escape leaves it. */
export function QuantityField<T = number>({
  label,
  hint,
  shown,
  parse,
  example,
  onCommit,
  none,
  onClear,
}: QuantityFieldProps<T>) {
  const { input, wrong } = useTyped(shown, parse, onCommit, example, onClear);
  const id = useId();

  return (
    <>
      <Row label={label} hint={hint} htmlFor={id}>
        <input
          id={id}
          className="number"
          placeholder={none}
          {...input}
          aria-describedby={wrong ? `${id}-wrong` : undefined}
        />
      </Row>
      <Refusal id={`${id}-wrong`} words={wrong} />
    </>
  );
}
