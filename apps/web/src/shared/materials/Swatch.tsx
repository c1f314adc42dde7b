import type { AnyMaterial } from '@fendrix/contract';
import { Thumbnail } from '../render/Thumbnail';
import { swatchSet } from './swatchSet';

const SAMPLES = 32;

/** A small true picture of a material. */
export const Swatch = ({ material, width }: { material: AnyMaterial; width?: number }) => (
  <Thumbnail set={swatchSet(material)} samples={SAMPLES} width={width} />
);
