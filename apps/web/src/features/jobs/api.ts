import type { Job, JobList, Saved, StoredJob, StoredPicture } from '@fendrix/contract';
import { serverApi } from '../../shared/api';

export interface ListArgs {
  search: string;
  offset: number;
  limit: number;
  archived: 'yes' | 'no';
}

/** Jobs on the server, and the pictures kept with them. */
export const jobsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listJobs: build.query<JobList, ListArgs>({
      query: (params) => ({ url: 'jobs', params }),
      providesTags: ['JobList'],
    }),
    readJob: build.query<StoredJob, string>({ query: (id) => `jobs/${id}`, keepUnusedDataFor: 0 }),
    /** As it is stored now, beside the one that is open. */
    readNewerJob: build.query<StoredJob, string>({ query: (id) => `jobs/${id}`, keepUnusedDataFor: 0 }),
    createJob: build.mutation<StoredJob, Job>({
      query: (document) => ({ url: 'jobs', method: 'POST', body: { document } }),
      invalidatesTags: ['JobList'],
    }),
    createDemoJob: build.mutation<StoredJob, void>({
      query: () => ({ url: 'jobs/demo', method: 'POST', body: {} }),
      invalidatesTags: ['JobList', 'SetList'],
    }),
    saveJob: build.mutation<Saved, { id: string; revision: number; document: Job }>({
      query: ({ id, ...body }) => ({ url: `jobs/${id}`, method: 'PUT', body }),
      invalidatesTags: ['JobList'],
    }),
    deleteJob: build.mutation<void, string>({
      query: (id) => ({ url: `jobs/${id}`, method: 'DELETE' }),
      invalidatesTags: ['JobList'],
    }),
    importJob: build.mutation<StoredJob, Blob>({
      query: (archive) => ({
        url: 'jobs/import',
        method: 'POST',
        body: archive,
        headers: { 'content-type': 'application/zip' },
      }),
      invalidatesTags: ['JobList', 'SetList'],
    }),
    keepPicture: build.mutation<StoredPicture, File>({
      query: (file) => ({
        url: 'pictures',
        method: 'POST',
        body: file,
        headers: { 'content-type': file.type || 'image/jpeg' },
      }),
    }),
  }),
});

/** Where a kept picture is read from. */
export const pictureUrl = (sha256: string): string => `/api/pictures/${sha256}`;
