import { useId } from 'react';
import { Row } from './Row';

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: readonly (NoInfer<T> | { value: NoInfer<T>; words: string })[];
  /** Shows the label before the choice instead of only saying it. */
  shown?: boolean;
  /** What it means, where that is not plain; shown with the label. */
  hint?: string | undefined;
  onChoose(value: NoInfer<T>): void;
}

/** One of a few, by the browser's own list. */
export function Choice<T extends string>({
  label,
  value,
  options,
  shown = false,
  hint,
  onChoose,
}: ChoiceProps<T>) {
  const id = useId();
  const select = (
    <select
      id={id}
      aria-label={shown ? undefined : label}
      value={value}
      onChange={(event) => onChoose(event.target.value as T)}
    >
      {options.map((option) => {
        const { value: own, words } = typeof option === 'string' ? { value: option, words: option } : option;
        return (
          <option key={own} value={own}>
            {words}
          </option>
        );
      })}
    </select>
  );
  if (!shown) return select;
  return (
    <Row label={label} hint={hint} htmlFor={id}>
      {select}
    </Row>
  );
}
