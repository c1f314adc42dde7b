import { type ProductPiece, withPieceMaterial } from '@fendrix/core';
import equal from 'fast-deep-equal';
import { memo } from 'react';
import { MaterialChoice } from '../../../../shared/materials/MaterialChoice';
import { useKitMaterials } from '../../../kit';
import { changeProduct } from '../../state/edits';
import { useBenchDispatch } from '../../state/hooks';
import { edit } from '../../state/thunks';

/**
 * What one piece of a product is of, from the materials of the kit that it can be of. Such a list is long: it is not made anew
 * while its product is dragged.
 */
export const PieceMaterial = memo(function PieceMaterial({
  product,
  piece,
}: {
  /** Its id. */
  product: string;
  piece: ProductPiece;
}) {
  const known = useKitMaterials(piece.takes);
  const dispatch = useBenchDispatch();
  return (
    <MaterialChoice
      label={piece.list === 'body' ? 'material' : piece.name}
      known={known}
      material={piece.material}
      onChoose={(material) =>
        dispatch(edit(changeProduct(product, (now) => withPieceMaterial(now, piece, material))))
      }
    />
  );
}, equal);
