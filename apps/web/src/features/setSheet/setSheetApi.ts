import type { SetSheetWords } from '@fendrix/words';
import { serverApi } from '../../shared/api';

/** Set sheets, worked out on the server anew for each version of a set. */
export const setSheetApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    readSetSheet: build.query<SetSheetWords, string>({
      query: (id) => `sets/${id}/sheet`,
      keepUnusedDataFor: 0,
    }),
  }),
});
