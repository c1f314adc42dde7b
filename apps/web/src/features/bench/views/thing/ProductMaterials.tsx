import type { Product } from '@fendrix/contract';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { useKitMaterials } from './useKitMaterials';

/** What each piece of a product is of: body, parts, labels, what is in it. */
export function ProductMaterials({
  product,
  onChange,
}: {
  product: Product;
  onChange(product: Product): void;
}) {
  const bodies = useKitMaterials('body');
  const opaque = useKitMaterials('opaque');
  const clear = useKitMaterials('clear');
  return (
    <>
      <MaterialChoice
        label="material"
        known={bodies}
        material={product.material}
        onChoose={(material) => onChange({ ...product, material } as Product)}
      />
      {product.kind === 'turned' &&
        (['parts', 'labels'] as const).flatMap((list) =>
          product[list].map((piece, at) => (
            <MaterialChoice
              key={`${list} ${at}`}
              label={piece.name}
              known={opaque}
              material={piece.material}
              onChoose={(material) =>
                onChange({
                  ...product,
                  [list]: product[list].map((own, i) =>
                    i === at ? { ...own, material: printedAs(own.material, material) } : own,
                  ),
                })
              }
            />
          )),
        )}
      {product.kind === 'turned' && product.hollow?.liquid && (
        <MaterialChoice
          label="liquid"
          known={clear}
          material={product.hollow.liquid.material}
          onChoose={(material) => {
            const { hollow } = product;
            if (hollow?.liquid)
              onChange({ ...product, hollow: { ...hollow, liquid: { ...hollow.liquid, material } } });
          }}
        />
      )}
      {product.kind === 'box' && product.label && (
        <MaterialChoice
          label={product.label.name}
          known={opaque}
          material={product.label.material}
          onChoose={(material) =>
            product.label &&
            onChange({
              ...product,
              label: { ...product.label, material: printedAs(product.label.material, material) },
            })
          }
        />
      )}
      {product.kind === 'dish' && product.food && (
        <MaterialChoice
          label="food"
          known={bodies}
          material={product.food.material}
          onChoose={(material) =>
            product.food && onChange({ ...product, food: { ...product.food, material } })
          }
        />
      )}
    </>
  );
}

/** Another paper under the same print: picture, words and tone of a label stay. */
function printedAs<M extends { kind: string }>(before: M, after: M): M {
  const tone = 'tone' in before ? before.tone : undefined;
  const takes = after.kind === 'matte' || after.kind === 'coated' || after.kind === 'cloth';
  return tone && takes ? { ...after, tone } : after;
}
