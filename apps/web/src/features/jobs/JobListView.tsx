import type { JobSummary } from '@fendrix/contract';
import { progressWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Skeleton from '@mui/material/Skeleton';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import { useTheme } from '@mui/material/styles';
import Table from '@mui/material/Table';
import TableBody from '@mui/material/TableBody';
import TableCell from '@mui/material/TableCell';
import TableHead from '@mui/material/TableHead';
import TableRow from '@mui/material/TableRow';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useDeferredValue, useEffect, useState } from 'react';
import { Link } from 'react-router';
import { failureMessage } from '../../shared/api';
import { FileButton } from '../../shared/FileButton';
import { Page } from '../../shared/Page';
import { Pager } from '../../shared/Pager';
import { jobsApi } from './api';
import { dueWords } from './days';
import { JobThumbnail } from './JobThumbnail';
import { useJobActions } from './useJobActions';

const PAGE = 20;

const STATES: Record<string, string> = {
  brief: 'brief',
  products: 'products',
  shots: 'pictures to list',
  camera: 'camera to place',
  shooting: 'shooting',
  delivery: 'to deliver',
  delivered: 'delivered',
  archived: 'archived',
};

/** On a narrow page each job is a block of its own: nothing of it is beside the page. */
const NARROW = {
  '& thead': { display: 'none' },
  '& tbody tr': {
    display: 'flex',
    flexWrap: 'wrap',
    alignItems: 'center',
    borderBottom: 1,
    borderColor: 'divider',
    py: 1,
  },
  '& td': { border: 0, px: 1, py: 0.25 },
} as const;

/** All jobs, the next one due first: what is on, what comes next. */
export function JobListView() {
  const theme = useTheme();
  const [search, setSearch] = useState('');
  const [offset, setOffset] = useState(0);
  const [archived, setArchived] = useState(false);
  const { data, error, isLoading, refetch } = jobsApi.useListJobsQuery({
    search: useDeferredValue(search),
    offset,
    limit: PAGE,
    archived: archived ? 'yes' : 'no',
  });
  const actions = useJobActions();
  useEffect(() => {
    document.title = 'Jobs · Fendrix';
  }, []);

  return (
    <Page title="Jobs" wide>
      <Stack direction="row" spacing={1.5} useFlexGap sx={{ mb: 2, flexWrap: 'wrap', alignItems: 'center' }}>
        <TextField
          size="small"
          label="Find by name or client"
          value={search}
          onChange={(event) => {
            setSearch(event.target.value);
            setOffset(0);
          }}
          sx={{ flex: '1 1 220px' }}
        />
        <FormControlLabel
          control={
            <Switch
              size="small"
              checked={archived}
              onChange={(_, on) => {
                setArchived(on);
                setOffset(0);
              }}
            />
          }
          label="Archived"
        />
        <FileButton
          words="Import"
          label="Job archive to read"
          accept=".zip,application/zip"
          onFiles={([chosen]) => chosen && actions.readFile(chosen)}
        />
        <Button onClick={actions.createDemo}>From the demo</Button>
        <Button variant="contained" onClick={actions.createNew}>
          New job
        </Button>
      </Stack>
      {error && (
        <Alert severity="warning" action={<Button onClick={() => void refetch()}>Try again</Button>}>
          {failureMessage(error)}
        </Alert>
      )}
      {isLoading && <Skeleton height={120} />}
      {data && data.total === 0 && (
        <Typography sx={{ color: 'text.secondary', maxWidth: 560 }}>
          {emptyWords(search, archived)}
        </Typography>
      )}
      {data && data.jobs.length > 0 && (
        <Box sx={{ overflowX: 'auto' }}>
          <Table size="small" aria-label="Jobs" sx={{ [theme.breakpoints.down('md')]: NARROW }}>
            <TableHead>
              <TableRow>
                <TableCell />
                <TableCell>Job</TableCell>
                <TableCell>Next</TableCell>
                <TableCell>State</TableCell>
                <TableCell>Due</TableCell>
                <TableCell align="right">Pictures</TableCell>
                <TableCell />
              </TableRow>
            </TableHead>
            <TableBody>
              {data.jobs.map((job) => (
                <JobRow key={job.id} job={job} actions={actions} />
              ))}
            </TableBody>
          </Table>
        </Box>
      )}
      {data && (
        <Pager
          {...{ offset }}
          page={PAGE}
          total={data.total}
          words={['Earlier', 'Later']}
          onMove={setOffset}
        />
      )}
    </Page>
  );
}

function JobRow({ job, actions }: { job: JobSummary; actions: ReturnType<typeof useJobActions> }) {
  return (
    <TableRow hover>
      <TableCell sx={{ width: 96, pr: 0 }}>
        <JobThumbnail id={job.id} />
      </TableCell>
      <TableCell>
        <Box component={Link} to={`/jobs/${job.id}/brief`} sx={{ color: 'text.primary', fontWeight: 650 }}>
          {job.name}
        </Box>
        <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>{job.client || 'no client named'}</Box>
      </TableCell>
      <TableCell>{progressWords(job)}</TableCell>
      <TableCell>{STATES[job.state] ?? job.state}</TableCell>
      <TableCell sx={{ whiteSpace: 'nowrap' }}>{job.dueOn ? dueWords(job.dueOn) : 'no day set'}</TableCell>
      <TableCell align="right" className="number">
        {job.shots}
        <Box component="span" sx={{ display: { md: 'none' } }}>
          {job.shots === 1 ? ' picture' : ' pictures'}
        </Box>
      </TableCell>
      <TableCell align="right" sx={{ whiteSpace: 'nowrap' }}>
        <Button size="small" aria-label={`Copy ${job.name}`} onClick={() => actions.copy(job.id)}>
          Copy
        </Button>
        <Button
          size="small"
          component="a"
          href={`/api/jobs/${job.id}/export`}
          download
          aria-label={`Export ${job.name}`}
        >
          Export
        </Button>
        <Button
          size="small"
          aria-label={`${job.archived ? 'Restore' : 'Archive'} ${job.name}`}
          onClick={() => actions.setArchived(job.id, !job.archived)}
        >
          {job.archived ? 'Restore' : 'Archive'}
        </Button>
        {job.archived && (
          <Button
            size="small"
            color="error"
            aria-label={`Delete ${job.name}`}
            onClick={() => actions.remove(job.id, job.name)}
          >
            Delete
          </Button>
        )}
      </TableCell>
    </TableRow>
  );
}

function emptyWords(search: string, archived: boolean): string {
  if (search) return `No job has “${search}” in its name or client.`;
  if (archived) return 'Nothing is archived. A job that is done can be, and is restored from here.';
  return 'No job yet. A job holds what the client wants, the products and the pictures to take, and leads from there to the camera. Start a new one, or take the demo to look round in.';
}
