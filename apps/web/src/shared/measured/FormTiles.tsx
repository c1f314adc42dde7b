import { MEASURED_FORMS, type MeasuredForm } from '@fendrix/core';
import { PictureTiles } from '../PictureTiles';
import { ProductThumbnail } from '../render/ProductThumbnail';
import { usualProduct } from './productOfForm';

/** The usual forms as small true pictures, one of which is chosen. */
export function FormTiles({
  chosen,
  onChoose,
}: {
  chosen: MeasuredForm;
  onChoose(form: MeasuredForm): void;
}) {
  return (
    <PictureTiles
      label="form"
      value={chosen.id}
      options={MEASURED_FORMS.map((form) => ({
        value: form.id,
        words: form.name,
        picture: <ProductThumbnail product={usualProduct(form)} />,
      }))}
      onChoose={(id) => onChoose(MEASURED_FORMS.find((form) => form.id === id) ?? chosen)}
    />
  );
}
