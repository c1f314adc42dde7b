/** A part of a whole, shown and typed in percent. */
export const partQuantity = {
  format: (part: number): string => `${Math.round(1000 * part) / 10} %`,
  parse(text: string): number | null {
    const match = /^\s*(\d+(?:[.,]\d+)?)\s*%?\s*$/.exec(text);
    if (!match) return null;
    return Number((match[1] as string).replace(',', '.')) / 100;
  },
  example: '60 %',
};

/** Minutes, typed plain or with a unit. */
export const minutesQuantity = {
  format: (minutes: number): string => `${Math.round(10 * minutes) / 10} min`,
  parse(text: string): number | null {
    const match = /^\s*(\d+(?:[.,]\d+)?)\s*(h|min|s)?\s*$/.exec(text);
    if (!match) return null;
    const value = Number((match[1] as string).replace(',', '.'));
    return match[2] === 'h' ? 60 * value : match[2] === 's' ? value / 60 : value;
  },
  example: '40 min',
};

/** Degrees from level. */
export const tiltQuantity = {
  format: (deg: number): string => `${Math.round(10 * deg) / 10}°`,
  parse(text: string): number | null {
    const match = /^\s*(\d+(?:[.,]\d+)?)\s*(°|deg)?\s*$/.exec(text);
    return match ? Number((match[1] as string).replace(',', '.')) : null;
  },
  example: '25°',
};
