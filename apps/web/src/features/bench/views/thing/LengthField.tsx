import { formatLength, parseLengthM } from '@fendrix/core';
import { QuantityField } from '../../../../shared/QuantityField';

/** A length that is typed with its unit. */
export function LengthField({
  label,
  valueM,
  onCommit,
}: {
  label: string;
  valueM: number;
  onCommit(lengthM: number): void;
}) {
  return (
    <QuantityField
      label={label}
      shown={formatLength(valueM)}
      parse={(text) => parseLengthM(text)}
      example="60 cm"
      onCommit={onCommit}
    />
  );
}
