import type { Saved, SetDocument, SetList, StoredSet } from '@fendrix/contract';
import { serverApi } from '../../shared/api';
import { forgetKept, noteKept, shortened } from '../../shared/longTexts';

/** Stored sets on the server. */
export const setsApi = serverApi.injectEndpoints({
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
    saveSet: build.mutation<Saved, { id: string; revision: number; document: SetDocument }>({
      queryFn: async ({ id, revision, document }, _api, _options, query) => {
        const send = (body: unknown) =>
          query({ url: `sets/${id}`, method: 'PUT', body: { revision, document: body } });
        const short = shortened(document);
        let answer = await send(short);
        if (answer.error?.status === 400 && short !== document) {
          forgetKept();
          answer = await send(document);
        }
        if (answer.error) return { error: answer.error };
        void noteKept(document);
        return { data: answer.data as Saved };
      },
      invalidatesTags: ['SetList'],
    }),
    deleteSet: build.mutation<void, string>({
      query: (id) => ({ url: `sets/${id}`, method: 'DELETE' }),
      invalidatesTags: ['SetList'],
    }),
  }),
});
