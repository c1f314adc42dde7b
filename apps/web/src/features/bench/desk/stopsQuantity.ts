import { formatStops, parseStops } from '@fendrix/core';

/** A tone or change in stops, for fields. */
export const stopsQuantity = {
  format: formatStops,
  parse: parseStops,
  example: '+0.3',
};

/** A whole or broken number above nothing. */
export const countQuantity = {
  format: (value: number) => String(Number(value.toPrecision(3))),
  parse(text: string): number | null {
    const value = Number(text.trim().replace(',', '.'));
    return value > 0 && Number.isFinite(value) ? value : null;
  },
  example: '3',
};
