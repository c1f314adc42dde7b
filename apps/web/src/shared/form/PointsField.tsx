import { formatLength, parseLengthM } from '@fendrix/core';
import Button from '@mui/material/Button';
import { QuantityField } from '../QuantityField';
import { Group } from './formParts';

type Point = number[];

/** A place as its three lengths, such as "2 cm / 0 / 5 cm". */
export const pointQuantity = {
  format: (point: Point) => point.map(formatLength).join(' / '),
  /** Three lengths with a stroke or semicolon between them; null where one is not understood. */
  parse(text: string): Point | null {
    const lengths = text.split(/[/;]/).map((part) => parseLengthM(part));
    return lengths.length === 3 && lengths.every((length) => length !== null) ? lengths : null;
  },
  example: '2 cm / 0 / 5 cm: right, away, up',
};

/** How far behind the last point one more begins, as the last step; where there is one point only this far, m. */
const FIRST_STEP_M = 0.01;

/** Points of a path, each in one field; one can be put in anywhere and taken out. */
export function PointsField({
  label,
  value,
  fewest,
  most,
  onChange,
}: {
  label: string;
  value: Point[];
  fewest: number;
  most: number;
  onChange(value: Point[]): void;
}) {
  return (
    <Group label={`${label} (${value.length}): right / away / up`}>
      {value.map((point, i) => (
        <div key={i}>
          <QuantityField
            label={`point ${i + 1}`}
            shown={pointQuantity.format(point)}
            parse={pointQuantity.parse}
            example={pointQuantity.example}
            onCommit={(changed) => onChange(value.map((old, at) => (at === i ? changed : old)))}
          />
          <Button
            size="small"
            color="inherit"
            disabled={value.length >= most}
            aria-label={`Add a point after point ${i + 1}`}
            onClick={() => onChange([...value.slice(0, i + 1), pointAfter(value, i), ...value.slice(i + 1)])}
          >
            Add after
          </Button>
          <Button
            size="small"
            color="inherit"
            disabled={value.length <= fewest}
            aria-label={`Remove point ${i + 1}`}
            onClick={() => onChange(value.filter((_, at) => at !== i))}
          >
            Remove
          </Button>
        </div>
      ))}
    </Group>
  );
}

/** Half way to the next point; after the last one on by the last step. */
export function pointAfter(points: readonly Point[], i: number): Point {
  const here = points[i] as Point;
  const next = points[i + 1];
  if (next) return here.map((value, axis) => (value + (next[axis] as number)) / 2);
  const before = points[i - 1] ?? here.map((value, axis) => (axis === 0 ? value - FIRST_STEP_M : value));
  return here.map((value, axis) => 2 * value - (before[axis] as number));
}
