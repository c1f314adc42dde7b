import type { LogChange, LogEntry, LogList, LogQuery, LogStatistics } from '@fendrix/contract';
import { serverApi } from '../../shared/api';

/** The record of kept frames. */
export const logApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listLog: build.query<LogList, LogQuery>({
      query: (params) => ({ url: 'log', params }),
      providesTags: ['Log', 'Frames'],
    }),
    readStatistics: build.query<LogStatistics, string | undefined>({
      query: (job) => ({ url: 'log/statistics', params: { job } }),
      providesTags: ['Log', 'Frames'],
    }),
    changeEntry: build.mutation<LogEntry, { id: string; change: LogChange }>({
      query: ({ id, change }) => ({ url: `log/${id}`, method: 'PATCH', body: change }),
      invalidatesTags: ['Log'],
    }),
    openSetOfEntry: build.mutation<{ id: string }, string>({
      query: (id) => ({ url: `log/${id}/set`, method: 'POST', body: {} }),
      invalidatesTags: ['SetList'],
    }),
  }),
});
