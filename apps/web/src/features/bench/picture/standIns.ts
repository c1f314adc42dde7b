import type { Product, ProductOf } from '@fendrix/contract';
import { simplifiedMesh, trianglesIn } from '@fendrix/files';
import type { KeyedSet } from '@fendrix/workers';
import { LRUCache } from 'lru-cache';

/** A mesh of more triangles is simplified while things move: to prepare it anew takes longer than a following picture may. */
const MOST_FOLLOWED = 20_000;
/** Triangles of its stand-in. */
const STAND_IN = 8_000;
/** Meshes that are remembered with their stand-ins. */
const MOST_KEPT = 6;

/** Simplified bodies that take the place of large meshes in the pictures that follow a drag. */
export class StandIns {
  private readonly known = new LRUCache<string, { of: string; few: ProductOf<'mesh'> }>({ max: MOST_KEPT });

  /** Whether there is a mesh that needs one. */
  wanted({ set }: KeyedSet): boolean {
    return set.products.some(isLarge);
  }

  /** The set with its large meshes simplified, under a key of its own. */
  async of({ key, set }: KeyedSet): Promise<KeyedSet> {
    const products: Product[] = [];
    for (const product of set.products)
      products.push(isLarge(product) ? await this.standIn(product) : product);
    return { key: `${key} simplified`, set: { ...set, products } };
  }

  private async standIn(product: ProductOf<'mesh'>): Promise<ProductOf<'mesh'>> {
    const { trianglesBase64, positionsBase64 } = product;
    const before = this.known.get(trianglesBase64);
    const of = `${product.parts.map(({ triangles }) => triangles)} ${positionsBase64}`;
    const few = before?.of === of ? before.few : await simplifiedMesh(product, STAND_IN);
    this.known.set(trianglesBase64, { of, few });
    return {
      ...product,
      positionsBase64: few.positionsBase64,
      trianglesBase64: few.trianglesBase64,
      parts: product.parts.map((part, at) => ({ ...part, triangles: few.parts[at]?.triangles ?? 0 })),
    };
  }
}

const isLarge = (product: Product): product is ProductOf<'mesh'> =>
  product.kind === 'mesh' && trianglesIn(product) > MOST_FOLLOWED;
