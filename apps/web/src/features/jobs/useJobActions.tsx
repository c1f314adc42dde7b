import { type Job, jobDocument } from '@fendrix/contract';
import { beforeItsDay } from '@fendrix/core';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { useDispatch } from 'react-redux';
import { useNavigate } from 'react-router';
import { useAttempt, useTellDeleted } from '../../shared/useAttempt';
import { jobsApi } from './api';

/** What can be done with whole jobs; each failure is told, each loss can be taken back. */
export function useJobActions() {
  const dispatch = useDispatch<ThunkDispatch<unknown, unknown, UnknownAction>>();
  const navigate = useNavigate();
  const attempt = useAttempt();
  const tellDeleted = useTellDeleted();
  const [create] = jobsApi.useCreateJobMutation();
  const [createDemo] = jobsApi.useCreateDemoJobMutation();
  const [save] = jobsApi.useSaveJobMutation();
  const [remove] = jobsApi.useDeleteJobMutation();
  const [importJob] = jobsApi.useImportJobMutation();

  const read = (id: string) =>
    dispatch(jobsApi.endpoints.readJob.initiate(id, { forceRefetch: true, subscribe: false })).unwrap();
  const go = (id: string) => navigate(`/jobs/${id}/brief`);

  return {
    createNew: () =>
      attempt(async () => {
        const empty = jobDocument.parse({ format: 'fendrix-job', version: 1, name: 'New job' });
        await go((await create(empty).unwrap()).id);
      }),
    createDemo: () =>
      attempt(async () => {
        await go((await createDemo().unwrap()).id);
      }),
    copy: (id: string) =>
      attempt(async () => {
        const { document } = await read(id);
        await go((await create(copyOf(document)).unwrap()).id);
      }),
    setArchived: (id: string, archived: boolean) =>
      attempt(async () => {
        const { revision, document } = await read(id);
        await save({ id, revision, document: { ...document, archived } }).unwrap();
      }),
    remove: (id: string, name: string) =>
      attempt(async () => {
        const { document } = await read(id);
        await remove(id).unwrap();
        tellDeleted(name, () => create(document).unwrap());
      }),
    readFile: (file: File) =>
      attempt(async () => {
        await go((await importJob(file).unwrap()).id);
      }),
  };
}

/** The same job to be done again: nothing of it is done yet, and its sets stay with the first. */
export function copyOf(job: Job): Job {
  const again = beforeItsDay(job);
  return {
    ...again,
    name: `${job.name}, copy`.slice(0, 80),
    delivered: false,
    archived: false,
    brief: {
      ...job.brief,
      supplied: job.brief.supplied.map((products) => ({ ...products, arrived: false })),
    },
    products: again.products.map((product) => ({
      ...product,
      steps: product.steps.map((step) => ({ ...step, done: false })),
    })),
    shots: again.shots.map(({ setId: _setId, ...shot }) => shot),
  };
}
