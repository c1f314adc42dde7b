import type { ApiError } from '@fendrix/contract';
import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** The server of this application. */
const serverQuery = fetchBaseQuery({ baseUrl: '/api/' });

/** The server's own words for a failed call, or plain ones when it could not be reached. */
export function failureMessage(error: unknown): string {
  const failure = (error as { data?: ApiError } | undefined)?.data?.error;
  if (!failure) return 'The server cannot be reached. What you do is kept in this browser meanwhile.';
  const [problem] = failure.problems ?? [];
  const field = problem ? `${problem.path} ${problem.message}` : '';
  return [failure.message, field, failure.hint].filter(Boolean).join(' ');
}

/**
 * All that is asked of the server; each feature adds its own questions. One cache, so that what changes in one place
 * of the application is read anew in every other: a job that comes in brings sets with it.
 */
export const serverApi = createApi({
  reducerPath: 'server',
  baseQuery: serverQuery,
  tagTypes: ['JobList', 'SetList', 'Kit', 'Pairing', 'Frames', 'Devices', 'Backups', 'Log'],
  endpoints: () => ({}),
});
