import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { useEffect } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { jobsApi } from '../api';
import { openJob, type WithJob } from '../state/openJob';

/**
 * Takes over what a phone has ticked meanwhile: the job as it is stored, once that is newer and all that was done here is
 * stored too. What is done here in the same moment meets it as any other change made elsewhere does.
 * @param revision of the stored job; undefined while it is not known
 */
export function useCatchUp(revision: number | undefined): void {
  const dispatch = useDispatch<ThunkDispatch<WithJob, unknown, UnknownAction>>();
  const { stored, save } = useSelector((state: WithJob) => state.job.file);
  const [read] = jobsApi.useLazyReadNewerJobQuery();
  const isBehind =
    stored !== null && save === 'saved' && revision !== undefined && revision > stored.revision;
  const id = stored?.id;
  useEffect(() => {
    if (!isBehind || id === undefined) return;
    let here = true;
    read(id)
      .unwrap()
      .then((newer) => {
        if (here) dispatch(openJob.catchUp(newer));
      })
      // Asked again with the next look.
      .catch(() => undefined);
    return () => {
      here = false;
    };
  }, [isBehind, id, revision, read, dispatch]);
}
