import { type Job, type SetDocument, setDocument } from '@fendrix/contract';
import { productBounds, type Series } from '@fendrix/core';

const PAPER = { kind: 'matte' as const, reflectance: 0.6 };

/** A set for each product of a series: on its riser before the one camera, on white paper under one soft light. */
export function seriesPictures(
  job: Job,
  { placed, places }: Series,
): { id: string; name: string; set: SetDocument }[] {
  const away = placed.distanceM;
  return places.flatMap(({ id, liftM }) => {
    const product = job.products.find((own) => own.id === id);
    if (!product) return [];
    const { low, high } = productBounds({ ...product.body, positionM: [0, 0, 0] });
    const riser = {
      kind: 'box' as const,
      id: 'riser',
      name: 'Riser',
      positionM: [0, 0, 0],
      widthM: high[0] - low[0],
      depthM: high[1] - low[1],
      heightM: liftM,
      material: PAPER,
    };
    const middleM = liftM + (low[2] + high[2]) / 2;
    const set = setDocument.parse({
      format: 'fendrix-set',
      version: 3,
      name: product.name,
      backdrop: {
        kind: 'sweep',
        widthM: 4 * away,
        frontM: -away,
        backM: away,
        radiusM: 0.4 * away,
        heightM: 2 * away,
        material: PAPER,
      },
      products: [{ ...product.body, id, positionM: [0, 0, liftM] }, ...(liftM > 0 ? [riser] : [])],
      lights: [
        {
          kind: 'softbox',
          tag: 'A',
          name: 'Softbox',
          positionM: [-0.5 * away, -0.4 * away, middleM + 0.6 * away],
          aimM: [0, 0, middleM],
          widthM: 0.6 * away,
          heightM: 0.6 * away,
          output: { kind: 'luminance', luminanceCdM2: 16_000 },
        },
      ],
      camera: { ...placed.camera, crops: [] },
    });
    return [{ id, name: product.name, set }];
  });
}
