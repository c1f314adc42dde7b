import { formatLength, formatStops, type Verdict } from '@fendrix/core';

const percent = (part: number) => `${Number((100 * part).toFixed(part < 0.01 ? 2 : part < 0.1 ? 1 : 0))} %`;

/** A figure of a verdict as it is shown. */
export function figureWords({ value, unit }: Pick<Verdict['figure'], 'value' | 'unit'>): string {
  switch (unit) {
    case 'part':
    case 'spread':
      return percent(value);
    case 'stops':
      return formatStops(value);
    case 'm':
      return formatLength(value);
    case 'px':
      return `${value.toFixed(1)} px`;
    case 'deltaE':
      return `ΔE ${value.toFixed(1)}`;
    case 's':
      return value < 0.4 ? `1/${Math.round(1 / value)} s` : `${Number(value.toFixed(1))} s`;
    case 'deg':
      return `${Number(value.toFixed(value < 10 ? 1 : 0))}°`;
    case 'count':
      return String(value);
    case 'W':
      return `${Math.round(value)} W`;
    case 'steep':
      return `${value.toFixed(1)} stops in a hundredth of the width`;
  }
}

/** How a unit is typed in a table: what is written beside the number, and how many of it one is. */
export function unitWords(unit: Verdict['figure']['unit']): { words: string; of: number } {
  switch (unit) {
    case 'part':
    case 'spread':
      return { words: '% of the whole', of: 100 };
    case 'm':
      return { words: 'cm', of: 100 };
    case 'deltaE':
      return { words: 'ΔE', of: 1 };
    case 'deg':
      return { words: 'degrees', of: 1 };
    case 'count':
      return { words: 'of them', of: 1 };
    case 'steep':
      return { words: 'stops in 1 % of the width', of: 1 };
    case 'stops':
    case 'px':
    case 's':
    case 'W':
      return { words: unit, of: 1 };
  }
}
