import { shortName } from '../lens/hatch';
import { useSetPart } from '../state/hooks';

/** What stands beside a length of the band or an area; products by their names. */
export function useShortName(): typeof shortName {
  const products = useSetPart((set) => set.products);
  return (kind, key) => {
    const product =
      kind === 'product' || kind === 'hidden' ? products.find(({ id }) => id === key) : undefined;
    return shortName(kind, product?.name ?? key);
  };
}
