import { plainQuantity, type Quantity } from '../../shared/form/words';

export { partQuantity } from '../../shared/form/words';

/** Degrees from level. */
export const tiltQuantity = plainQuantity('°', '25°', 1);

export const kgQuantity = plainQuantity(' kg', '1.8 kg', 2);

/** Minutes, typed plain or with a unit. */
export const minutesQuantity: Quantity = {
  format: (minutes) => `${Math.round(10 * minutes) / 10} min`,
  parse(text) {
    const match = /^\s*(\d+(?:[.,]\d+)?)\s*(h|min|s)?\s*$/.exec(text);
    if (!match) return null;
    const value = Number((match[1] as string).replace(',', '.'));
    return match[2] === 'h' ? 60 * value : match[2] === 's' ? value / 60 : value;
  },
  example: '40 min',
};
