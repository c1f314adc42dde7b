import type { Product } from '@fendrix/contract';
import { piecesOf } from '@fendrix/core';
import { PieceMaterial } from './PieceMaterial';

/** What each piece of a product is of: body, parts, labels, what is in it. */
export const ProductMaterials = ({ product }: { product: Product }) =>
  piecesOf(product).map((piece) => (
    <PieceMaterial key={`${piece.list} ${piece.at}`} product={product.id} piece={piece} />
  ));
