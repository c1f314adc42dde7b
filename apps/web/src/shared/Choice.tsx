import NativeSelect from '@mui/material/NativeSelect';
import { useId } from 'react';
import { Row } from './Row';
import { surround } from './theme';

interface ChoiceProps<T extends string> {
  label: string;
  value: T;
  options: readonly (NoInfer<T> | { value: NoInfer<T>; words: string })[];
  /** Shows the label before the choice instead of only saying it. */
  shown?: boolean;
  /** What it means, where that is not plain; shown with the label. */
  hint?: string | undefined;
  /** Stands on the neutral surround of a picture, in either scheme. */
  onSurround?: boolean;
  /** Its options are figures. */
  figures?: boolean;
  onChoose(value: NoInfer<T>): void;
}

const ON_SURROUND = {
  '&&&': { color: surround.text, bgcolor: surround.sunken, borderColor: surround.line },
} as const;

/** One of a few. It opens as the device opens lists, so that a thumb, a key and a screen reader know it. */
export function Choice<T extends string>({
  label,
  value,
  options,
  shown = false,
  hint,
  onSurround = false,
  figures = false,
  onChoose,
}: ChoiceProps<T>) {
  const id = useId();
  const select = (
    <NativeSelect
      disableUnderline
      value={value}
      inputProps={{
        id,
        'aria-label': shown ? undefined : label,
        ...(figures ? { className: 'number' } : {}),
      }}
      sx={onSurround ? ON_SURROUND : undefined}
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
    </NativeSelect>
  );
  if (!shown) return select;
  return (
    <Row label={label} hint={hint} htmlFor={id}>
      {select}
    </Row>
  );
}
