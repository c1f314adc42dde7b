import type { ApiError } from '@fendrix/contract';
import { fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** The server of this application. */
export const serverQuery = fetchBaseQuery({ baseUrl: '/api/' });

/** The server's own words for a failed call, or plain ones when it could not be reached. */
export function failureMessage(error: unknown): string {
  const failure = (error as { data?: ApiError } | undefined)?.data?.error;
  if (!failure) return 'The server cannot be reached. What you do is kept in this browser meanwhile.';
  const [problem] = failure.problems ?? [];
  const field = problem ? `${problem.path} ${problem.message}` : '';
  return [failure.message, field, failure.hint].filter(Boolean).join(' ');
}
