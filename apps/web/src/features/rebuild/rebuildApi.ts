import type { FrameList, Product } from '@fendrix/contract';
import type { Rebuilt } from '@fendrix/core';
import { serverApi } from '../../shared/api';

export interface RebuildQuestion {
  set: string;
  product: string;
  with: Product;
  align: 'base' | 'centre';
}

/** How a set is rebuilt with another product, and what a camera has written last. */
export const rebuildApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    rebuild: build.query<Rebuilt, RebuildQuestion>({
      query: ({ set, ...body }) => ({ url: `sets/${set}/rebuild`, method: 'POST', body }),
      keepUnusedDataFor: 0,
    }),
    newestFrame: build.query<FrameList, void>({
      query: () => ({ url: 'frames', params: { limit: 1, offset: 0 } }),
      keepUnusedDataFor: 0,
      providesTags: ['Frames'],
    }),
  }),
});
