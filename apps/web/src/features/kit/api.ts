import type { Kit, StoredKit } from '@fendrix/contract';
import { createApi } from '@reduxjs/toolkit/query/react';
import { serverQuery } from '../../shared/api';

/** The studio's kit on the server. */
export const kitApi = createApi({
  reducerPath: 'kitApi',
  baseQuery: serverQuery,
  tagTypes: ['Kit'],
  endpoints: (build) => ({
    readKit: build.query<StoredKit, void>({ query: () => 'kit', providesTags: ['Kit'] }),
    saveKit: build.mutation<StoredKit, { revision: number; document: Kit }>({
      query: (body) => ({ url: 'kit', method: 'PUT', body }),
      invalidatesTags: ['Kit'],
    }),
  }),
});
