import { type DialStep, nearestStep, printedSetting } from '@fendrix/core';
import { Choice } from '../../../shared/Choice';

interface PlateDialProps {
  label: string;
  prefix: string;
  dial: readonly DialStep[];
  /** Of the plate; as the set has it where undefined. */
  own: number | undefined;
  set: number;
  onChange(value: number | undefined): void;
}

const AS_SET = 'set';
const BETWEEN = 'between';

/** A setting of the camera for a plate alone. */
export function PlateDial({ label, prefix, dial, own, set, onChange }: PlateDialProps) {
  const index = own === undefined ? -1 : nearestStep(dial, own);
  const between = own !== undefined && Math.abs(Math.log2((dial[index]?.value ?? own) / own)) >= 0.09;
  return (
    <Choice
      label={label}
      shown
      figures
      value={own === undefined ? AS_SET : between ? BETWEEN : String(index)}
      options={[
        { value: AS_SET, words: `as the set, ${prefix}${printedSetting(dial, set)}` },
        ...(own !== undefined && between
          ? [{ value: BETWEEN, words: `${prefix}${printedSetting(dial, own)}` }]
          : []),
        ...dial.map(({ printed }, i) => ({ value: String(i), words: `${prefix}${printed}` })),
      ]}
      onChoose={(chosen) => {
        if (chosen === AS_SET) onChange(undefined);
        else if (chosen !== BETWEEN) onChange(dial[Number(chosen)]?.value);
      }}
    />
  );
}
