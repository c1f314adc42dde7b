import type { ApiError, SetDocument, SetList, StoredSet } from '@fendrix/contract';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** Stored sets on the server. */
export const setsApi = createApi({
  reducerPath: 'setsApi',
  baseQuery: fetchBaseQuery({ baseUrl: '/api/' }),
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

/** The server's own words for a failed call, or plain ones when it could not be reached. */
export function failureMessage(error: unknown): string {
  const data = (error as { data?: ApiError } | undefined)?.data;
  if (data?.error) return [data.error.message, data.error.hint].filter(Boolean).join(' ');
  return 'The server cannot be reached. What you do is kept in this browser meanwhile.';
}
