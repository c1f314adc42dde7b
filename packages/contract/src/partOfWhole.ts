import { z } from 'zod';

const percent = (part: number) => `${Number((100 * part).toFixed(1))} %`;

/** A part of a whole, 0 to 1; shown, typed and complained about in percent. */
export const partOfWhole = (least = 0, most = 1) =>
  z
    .number()
    .min(least, `must be at least ${percent(least)}.`)
    .max(most, `must be at most ${percent(most)}.`)
    .meta({ unit: 'part' });
