import { defaultKit } from '@fendrix/catalogue';
import type { Product } from '@fendrix/contract';

/** The products of the kit, by name. */
export function defaultKitProducts(): [string, Product][] {
  return defaultKit().entries.flatMap((entry) =>
    entry.what === 'product' ? [[entry.id, entry.thing] as [string, Product]] : [],
  );
}
