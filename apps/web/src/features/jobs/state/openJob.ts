import { type Job, jobDocument } from '@fendrix/contract';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import {
  createOpenDocument,
  type OpenDocument,
  type OpenDocumentState,
} from '../../../shared/document/openDocument';
import { jobsApi } from '../api';

/** The job that is open, with undo, saved as it changes. */
export const openJob: OpenDocument<Job, 'job'> = createOpenDocument(
  'job',
  jobDocument,
  (args) => jobsApi.endpoints.saveJob.initiate(args),
  { create: (job) => jobsApi.endpoints.createJob.initiate(job), path: (id) => `/jobs/${id}/brief` },
);

export interface WithJob {
  job: OpenDocumentState<Job>;
}

/** The open job. Only used while one is open. */
export function useJob(): Job {
  return useSelector((state: WithJob) => {
    const job = openJob.documentOf(state);
    if (!job) throw new Error('no job is open');
    return job;
  });
}

/** Changes the open job; a change that breaks a rule is refused and told. */
export function useEditJob(): (change: (job: Job) => Job, gesture?: string | null) => boolean {
  const dispatch = useDispatch<ThunkDispatch<WithJob, unknown, UnknownAction>>();
  return (change, gesture = null) => dispatch(openJob.edit(change, gesture));
}
