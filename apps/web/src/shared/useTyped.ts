import equal from 'fast-deep-equal';
import type { ChangeEvent, FocusEvent, KeyboardEvent } from 'react';
import { cameTo, isGoingBack } from './cameFrom';
import { usePending } from './pending';
import { refusalsOf } from './refusals';
import { type Draft, type TextElement, useDraft } from './useDraft';

/** Understood, but it cannot be: why, with the limits, in words. */
export interface Refused {
  refused: string;
}

/** What was typed as a value; null when it is not understood. */
export type Parsed<T> = T | Refused | null;

export interface Typed {
  /** What the input takes. */
  input: Draft['input'] & {
    onChange(event: ChangeEvent<TextElement>): void;
    onFocus(event: FocusEvent<TextElement>): void;
    onBlur(): void;
    onKeyDown(event: KeyboardEvent<TextElement>): void;
  };
  /** Why what was typed is not taken: it stays as it is, to be mended, and the value stays as it was. Null if it is. */
  wrong: string | null;
}

/**
 * A value typed as people say it. Enter or leaving the field sets it; Escape leaves it as it was and goes back to where
 * one came from. What is refused, by the field or by the document it is in, is told there and stays to be mended.
 * @param shown the value as shown when not being typed
 * @param example what may be typed, for what is not understood
 * @param onClear what an emptied field means; without, it leaves the value as it was
 */
export function useTyped<T>(
  shown: string,
  parse: (text: string) => Parsed<T>,
  onCommit: (value: T) => void,
  example: string,
  onClear?: () => void,
): Typed {
  const { text, type, refuse, leave, ...draft } = useDraft(shown);

  function commit() {
    if (text === null || text === shown) return leave();
    if (text.trim() === '') {
      onClear?.();
      return leave();
    }
    const value = parse(text);
    if (value === null) return refuse(`Not understood. Type for example ${example}.`);
    if (isRefused(value)) return refuse(value.refused);
    // The same, said in another way.
    if (equal(value, parse(shown))) return leave();
    const [refusal] = refusalsOf(() => onCommit(value));
    if (refusal !== undefined) return refuse(refusal);
    leave();
  }

  usePending(text === null ? null : commit);

  return {
    wrong: draft.wrong,
    input: {
      ...draft.input,
      // Typed back to what stands there, by hand or by undo: nothing is being typed.
      onChange: (event) => type(event.target.value === shown ? null : event.target.value),
      onFocus: (event) => {
        cameTo(event);
        event.target.select();
      },
      onBlur: () => {
        if (!isGoingBack()) commit();
      },
      onKeyDown: (event) => draft.onKey(event, { enter: commit }),
    },
  };
}

const isRefused = (value: unknown): value is Refused =>
  typeof value === 'object' && value !== null && 'refused' in value;

/** Limits of a value, in the unit the core counts in. */
export interface Limits {
  from?: number | undefined;
  to?: number | undefined;
}

/** Reads a number and refuses what lies beyond its limits, told as the field shows numbers. */
export function within(
  parse: (text: string) => number | null,
  format: (value: number) => string,
  { from = Number.NEGATIVE_INFINITY, to = Number.POSITIVE_INFINITY }: Limits,
): (text: string) => Parsed<number> {
  return (text) => {
    const value = parse(text);
    if (value === null || (value >= from && value <= to)) return value;
    if (!Number.isFinite(to)) return { refused: `It cannot be less than ${format(from)}.` };
    if (!Number.isFinite(from)) return { refused: `It cannot be more than ${format(to)}.` };
    return { refused: `It goes from ${format(from)} to ${format(to)}.` };
  };
}
