import type { Product } from '@fendrix/contract';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { useKitMaterials } from './useKitMaterials';

/** What each piece of a product is of: body, parts, labels, what is in it. */
export function ProductMaterials({
  product,
  onChange,
}: {
  product: Product;
  onChange(change: (now: Product) => Product): void;
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
        onChoose={(material) => onChange((now) => ({ ...now, material }) as Product)}
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
                onChange((now) =>
                  now.kind === 'turned'
                    ? {
                        ...now,
                        [list]: now[list].map((own, i) =>
                          i === at ? { ...own, material: printedAs(own.material, material) } : own,
                        ),
                      }
                    : now,
                )
              }
            />
          )),
        )}
      {product.kind === 'turned' && product.hollow?.liquid && (
        <MaterialChoice
          label="liquid"
          known={clear}
          material={product.hollow.liquid.material}
          onChoose={(material) =>
            onChange((now) =>
              now.kind === 'turned' && now.hollow?.liquid
                ? { ...now, hollow: { ...now.hollow, liquid: { ...now.hollow.liquid, material } } }
                : now,
            )
          }
        />
      )}
      {product.kind === 'box' && product.label && (
        <MaterialChoice
          label={product.label.name}
          known={opaque}
          material={product.label.material}
          onChoose={(material) =>
            onChange((now) =>
              now.kind === 'box' && now.label
                ? { ...now, label: { ...now.label, material: printedAs(now.label.material, material) } }
                : now,
            )
          }
        />
      )}
      {product.kind === 'dish' && product.food && (
        <MaterialChoice
          label="food"
          known={bodies}
          material={product.food.material}
          onChoose={(material) =>
            onChange((now) =>
              now.kind === 'dish' && now.food ? { ...now, food: { ...now.food, material } } : now,
            )
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
