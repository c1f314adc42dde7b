import Box from '@mui/material/Box';
import CircularProgress from '@mui/material/CircularProgress';
import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { useEffect } from 'react';
import { useDispatch, useSelector } from 'react-redux';
import { NavLink, Outlet, useMatch, useParams } from 'react-router';
import { FileBar } from '../../shared/document/FileBar';
import { UnreadableNote } from '../../shared/document/UnreadableNote';
import { useOpening } from '../../shared/document/useOpening';
import { Page } from '../../shared/Page';
import { jobsApi } from './api';
import { jobDifferences } from './state/jobDifferences';
import { openJob, type WithJob } from './state/openJob';

/** The parts of a job in the order of work. */
const PARTS = [
  ['brief', 'Brief'],
  ['products', 'Products'],
  ['pictures', 'Pictures'],
  ['series', 'Series'],
  ['day', 'Day'],
  ['frames', 'Frames'],
  ['log', 'Log'],
] as const;

/** Opens a job and shows one of its parts. */
export function JobFrame() {
  const { jobId = '' } = useParams();
  const { data, error, isFetching, refetch } = jobsApi.useReadJobQuery(jobId, {
    refetchOnMountOrArgChange: true,
  });
  const atTable = useMatch('/jobs/:jobId/set-side') !== null;
  const dispatch = useDispatch<ThunkDispatch<WithJob, unknown, UnknownAction>>();
  const openId = useSelector((state: WithJob) => state.job.file.stored?.id);
  const name = useSelector((state: WithJob) => openJob.documentOf(state)?.name);

  useOpening(openJob, data && data.id === jobId && !isFetching ? data : undefined, openJob.open);
  useEffect(() => () => void dispatch(openJob.closed()), [dispatch]);
  useEffect(() => {
    if (name) document.title = `${name} · Fendrix`;
  }, [name]);

  if (error) {
    return (
      <Page title="This job cannot be opened">
        <UnreadableNote
          error={error}
          address={`/api/jobs/${jobId}`}
          list="/jobs"
          onTryAgain={() => void refetch()}
        />
      </Page>
    );
  }
  if (openId !== jobId || name === undefined) {
    return (
      <Page title="Job">
        <CircularProgress aria-label="The job is being opened" />
      </Page>
    );
  }
  // At the table nothing but the step is shown.
  if (atTable) return <Outlet />;
  return (
    <Page
      title={name}
      wide
      places={<Parts jobId={jobId} />}
      file={<FileBar open={openJob} noun="job" describe={jobDifferences} />}
    >
      <Outlet />
    </Page>
  );
}

function Parts({ jobId }: { jobId: string }) {
  return (
    <Box
      component="nav"
      aria-label="Parts of the job"
      sx={{
        display: 'flex',
        gap: 2.5,
        px: 3,
        py: 1,
        borderBottom: 1,
        borderColor: 'divider',
        overflowX: 'auto',
        '@media print': { display: 'none' },
      }}
    >
      {PARTS.map(([part, title], index) => (
        <Box
          key={part}
          component={NavLink}
          to={`/jobs/${jobId}/${part}`}
          sx={{
            color: 'text.secondary',
            textDecoration: 'none',
            fontSize: '0.875rem',
            whiteSpace: 'nowrap',
            '&.active': { color: 'text.primary', fontWeight: 650 },
          }}
        >
          <Box component="span" className="number" sx={{ mr: 0.75, opacity: 0.7 }}>
            {index + 1}
          </Box>
          {title}
        </Box>
      ))}
    </Box>
  );
}
