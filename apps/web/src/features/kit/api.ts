import type { Kit, StoredKit } from '@fendrix/contract';
import { serverApi } from '../../shared/api';

/** The studio's kit on the server. */
export const kitApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    readKit: build.query<StoredKit, void>({ query: () => 'kit', providesTags: ['Kit'] }),
    saveKit: build.mutation<StoredKit, { revision: number; document: Kit }>({
      query: (body) => ({ url: 'kit', method: 'PUT', body }),
      invalidatesTags: ['Kit'],
    }),
  }),
});
