import type { Product } from '@fendrix/contract';
import { type ProductPiece, withPieceMaterial } from '@fendrix/core';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { useKitMaterials } from '../../../kit';
import { changeProduct } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';

/** What one piece of a product is of, from the materials of the kit that it can be of. */
export function PieceMaterial({ product, piece }: { product: Product; piece: ProductPiece }) {
  const known = useKitMaterials(piece.takes);
  const dispatch = useBenchDispatch();
  return (
    <MaterialChoice
      label={piece.list === 'body' ? 'material' : piece.name}
      known={known}
      material={piece.material}
      onChoose={(material) =>
        dispatch(edit(changeProduct(product.id, (now) => withPieceMaterial(now, piece, material))))
      }
    />
  );
}
