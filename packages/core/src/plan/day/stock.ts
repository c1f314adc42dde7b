import type { JobProduct, Shot } from '@fendrix/contract';

/** How far the pieces of a product reach through the day. */
export interface StockOf {
  product: JobProduct;
  /** Pieces that are not used up. */
  left: number;
  /** Pieces that the pictures still to be taken need; null where nothing tells how many. */
  needed: number | null;
  /** What a picture needs of them, on the mean, and how that is known: from pictures taken, or from its minutes under lights. */
  perPicture: { pieces: number; by: 'taken' | 'minutes' } | null;
  /** The picture in whose course they come to an end; null where they are enough. */
  endsAt: Shot | null;
}

/** From so many pictures on that were taken of a product, what they used is believed. */
const LEARNED_FROM = 2;

/**
 * The stock of a product: a piece that lasts so many minutes is replaced so often in the minutes of a picture, unless pictures
 * that were taken tell how many they used.
 * @param order pictures still to be taken, in the order of the day  @param taken those that are
 * @returns null for what is not used up by being photographed
 */
export function stockOf(product: JobProduct, order: readonly Shot[], taken: readonly Shot[]): StockOf | null {
  const { id, minutesOnSet, spares, usedUp } = product;
  if (minutesOnSet === undefined && usedUp === 0) return null;
  const shows = ({ products }: Shot) => products.includes(id);
  const left = 1 + spares - usedUp;
  const done = taken.filter(shows).length;
  const ahead = order.filter(shows);
  const learned = done >= LEARNED_FROM ? usedUp / done : null;
  const each = ahead.map((shot) =>
    learned !== null
      ? learned
      : minutesOnSet === undefined
        ? null
        : // The last piece of a picture goes on to the next only while it lasts.
          Math.ceil(shot.minutes / minutesOnSet),
  );
  if (each.some((pieces) => pieces === null))
    return { product, left, needed: null, perPicture: null, endsAt: null };
  const pieces = each as number[];
  const needed = pieces.reduce((sum, own) => sum + own, 0);
  let sum = 0;
  const endsAt = ahead.find((_, at) => {
    sum += pieces[at] as number;
    return sum > left + 1e-9;
  });
  const perPicture =
    ahead.length === 0
      ? null
      : { pieces: needed / ahead.length, by: learned === null ? ('minutes' as const) : ('taken' as const) };
  return { product, left, needed, perPicture, endsAt: endsAt ?? null };
}

/** Minutes that the piece on the set still lasts, under none when it is over; null where it lasts or none stands there. */
export function minutesLeft(
  { minutesOnSet, freshAt }: Pick<JobProduct, 'minutesOnSet' | 'freshAt'>,
  now: number,
): number | null {
  if (minutesOnSet === undefined || freshAt === undefined) return null;
  return minutesOnSet - (now - Date.parse(freshAt)) / 60_000;
}
