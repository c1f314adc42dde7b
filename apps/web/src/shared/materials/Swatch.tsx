import type { AnyMaterial } from '@fendrix/contract';
import { useMemo } from 'react';
import { ThumbnailPicture, ThumbnailPlace } from '../render/Thumbnail';
import { swatchSet } from './swatchSet';

const SAMPLES = 32;

/** A small true picture of a material. */
export const Swatch = ({ material, width }: { material: AnyMaterial; width?: number }) => (
  <ThumbnailPlace width={width}>
    <SwatchPicture material={material} />
  </ThumbnailPlace>
);

function SwatchPicture({ material }: { material: AnyMaterial }) {
  const set = useMemo(() => swatchSet(material), [material]);
  return <ThumbnailPicture set={set} samples={SAMPLES} />;
}
