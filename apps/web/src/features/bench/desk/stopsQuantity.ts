import { formatStops, parseStops } from '@fendrix/core';

/** A tone or change in stops, for fields. */
export const stopsQuantity = {
  format: formatStops,
  parse: parseStops,
  example: '+0.3',
};

/** A time as a shutter says it: "1/200", "0.5 s". */
export const timeQuantity = {
  format: (seconds: number) =>
    seconds >= 0.3 ? `${Number(seconds.toPrecision(3))} s` : `1/${Number((1 / seconds).toPrecision(3))}`,
  parse(text: string): number | null {
    const match = /^\s*(?:1\/(\d+(?:[.,]\d+)?)|(\d+(?:[.,]\d+)?))\s*s?\s*$/.exec(text);
    if (!match) return null;
    const read = (digits: string) => Number(digits.replace(',', '.'));
    const value = match[1] ? 1 / read(match[1]) : read(match[2] as string);
    return value > 0 && Number.isFinite(value) ? value : null;
  },
  example: '1/800 or 0.5 s',
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
