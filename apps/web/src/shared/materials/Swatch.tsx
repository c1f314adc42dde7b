import type { AnyMaterial } from '@fendrix/contract';
import { OnceSeen } from '../OnceSeen';
import { SmallPicture } from '../render/SmallPicture';
import { swatchSet } from './swatchSet';

/** Pixels across a swatch. */
const WIDTH = 72;
const SAMPLES = 32;

/** A small true picture of a material, made when it is first looked at and kept. */
export function Swatch({ material, width = WIDTH }: { material: AnyMaterial; width?: number }) {
  return (
    <OnceSeen width={width}>
      <SmallPicture
        set={swatchSet(material)}
        width={WIDTH}
        samples={SAMPLES}
        levelled={false}
        kept
        label=""
      />
    </OnceSeen>
  );
}
