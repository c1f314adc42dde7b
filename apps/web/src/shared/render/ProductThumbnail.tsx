import type { Product } from '@fendrix/contract';
import { useMemo } from 'react';
import { productPreview } from './productPreview';
import { ThumbnailPicture, ThumbnailPlace } from './Thumbnail';

const SAMPLES = 16;

/** A product at the centre, on white paper. */
export const ProductThumbnail = ({ product, width }: { product: Product; width?: number }) => (
  <ThumbnailPlace width={width}>
    <ProductPicture product={product} />
  </ThumbnailPlace>
);

function ProductPicture({ product }: { product: Product }) {
  const set = useMemo(() => productPreview({ ...product, positionM: [0, 0, 0] }), [product]);
  return <ThumbnailPicture set={set} samples={SAMPLES} />;
}
