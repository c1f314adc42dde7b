import type { Product } from '@fendrix/contract';
import { useMemo } from 'react';
import { productPreview } from './productPreview';
import { Thumbnail } from './Thumbnail';

const SAMPLES = 16;

/** A product at the centre, on white paper. */
export function ProductThumbnail({ product, width }: { product: Product; width?: number }) {
  const set = useMemo(() => productPreview({ ...product, positionM: [0, 0, 0] }), [product]);
  return <Thumbnail set={set} samples={SAMPLES} width={width} />;
}
