import type { SetDocument, SetList, StoredSet } from '@fendrix/contract';
import { createApi } from '@reduxjs/toolkit/query/react';
import { serverQuery } from '../../shared/api';

/** Stored sets on the server. */
export const setsApi = createApi({
  reducerPath: 'setsApi',
  baseQuery: serverQuery,
  tagTypes: ['SetList'],
  endpoints: (build) => ({
    listSets: build.query<SetList, { search: string; offset: number; limit: number }>({
      query: (params) => ({ url: 'sets', params }),
      providesTags: ['SetList'],
    }),
    readSet: build.query<StoredSet, string>({ query: (id) => `sets/${id}`, keepUnusedDataFor: 0 }),
    createSet: build.mutation<StoredSet, SetDocument>({
      query: (document) => ({ url: 'sets', method: 'POST', body: { document } }),
      invalidatesTags: ['SetList'],
    }),
    saveSet: build.mutation<StoredSet, { id: string; revision: number; document: SetDocument }>({
      query: ({ id, ...body }) => ({ url: `sets/${id}`, method: 'PUT', body }),
      invalidatesTags: ['SetList'],
    }),
    deleteSet: build.mutation<void, string>({
      query: (id) => ({ url: `sets/${id}`, method: 'DELETE' }),
      invalidatesTags: ['SetList'],
    }),
  }),
});
