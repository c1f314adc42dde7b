import type { LogEntry, LogQuery } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Skeleton from '@mui/material/Skeleton';
import TextField from '@mui/material/TextField';
import { useDeferredValue, useEffect, useState } from 'react';
import { useParams } from 'react-router';
import { failureMessage } from '../../shared/api';
import { FrameThumbnail } from '../../shared/FrameThumbnail';
import { Page } from '../../shared/Page';
import { Pager } from '../../shared/Pager';
import { LogEntryPanel } from './LogEntryPanel';
import { LogStatistics } from './LogStatistics';
import { logApi } from './logApi';

const PAGE = 24;
/** While verdicts of what is shown are being worked out it is looked at again so often, ms. */
const LOOK_AGAIN_MS = 3000;

/** All frames that were kept, over all jobs. */
export function LogPage() {
  useEffect(() => {
    document.title = 'Log · Fendrix';
  }, []);
  return (
    <Page title="Log" wide>
      <LogView />
    </Page>
  );
}

/** Those of one job. */
export function LogOfJob() {
  const { jobId } = useParams();
  return <LogView job={jobId} />;
}

function LogView({ job }: { job?: string | undefined }) {
  const [search, setSearch] = useState('');
  const [days, setDays] = useState({ from: '', to: '' });
  const [offset, setOffset] = useState(0);
  const [chosen, setChosen] = useState<string | null>(null);
  const [showsFigures, setShowsFigures] = useState(false);
  const query: LogQuery = {
    search: useDeferredValue(search),
    ...(job === undefined ? {} : { job }),
    ...(days.from === '' ? {} : { from: days.from }),
    ...(days.to === '' ? {} : { to: days.to }),
    limit: PAGE,
    offset,
  };
  const [waits, setWaits] = useState(false);
  const { data, error, isLoading } = logApi.useListLogQuery(query, {
    refetchOnMountOrArgChange: true,
    pollingInterval: waits ? LOOK_AGAIN_MS : 0,
  });
  const stillWaits = data?.entries.some(({ verdicts }) => verdicts === null) ?? false;
  useEffect(() => setWaits(stillWaits), [stillWaits]);
  const entry = data?.entries.find(({ id }) => id === chosen) ?? data?.entries[0];
  const isSearched = search !== '' || days.from !== '' || days.to !== '';
  const asked = (change: () => void) => {
    setOffset(0);
    change();
  };
  return (
    <>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 2, alignItems: 'center' }}>
        <TextField
          size="small"
          label="Find by product, light, client, look, tone, note"
          value={search}
          onChange={({ target }) => asked(() => setSearch(target.value))}
          sx={{ flex: '1 1 280px' }}
        />
        {(['from', 'to'] as const).map((end) => (
          <TextField
            key={end}
            size="small"
            type="date"
            label={end === 'from' ? 'From day' : 'To day'}
            value={days[end]}
            onChange={({ target }) => asked(() => setDays((all) => ({ ...all, [end]: target.value })))}
            slotProps={{ inputLabel: { shrink: true } }}
          />
        ))}
        <Button
          variant="outlined"
          color="inherit"
          aria-pressed={showsFigures}
          onClick={() => setShowsFigures(!showsFigures)}
        >
          Minutes and verdicts
        </Button>
        <Button component="a" href={tableUrl(query)} download disabled={!data || data.total === 0}>
          Export CSV
        </Button>
      </Box>
      {showsFigures && <LogStatistics job={job} />}
      {error ? (
        <Alert severity="error">{failureMessage(error)}</Alert>
      ) : isLoading || !data ? (
        <Skeleton variant="rectangular" height={240} />
      ) : data.total === 0 ? (
        <Box sx={{ color: 'text.secondary', maxWidth: 640 }}>
          {isSearched
            ? 'No kept frame has all of that. Take a word out, or another day.'
            : 'Nothing is kept yet. Frames that come to a job and are kept (Frames, key K) are noted here with their set, their minutes and what they showed against the plan.'}
        </Box>
      ) : (
        <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 420px' }, gap: 3, alignItems: 'start' }}>
          <Box>
            <Box
              component="ul"
              aria-label="Kept frames"
              sx={{
                listStyle: 'none',
                m: 0,
                p: 0,
                display: 'grid',
                gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))',
                gap: 1.5,
              }}
            >
              {data.entries.map((one) => (
                <li key={one.id}>
                  <EntryTile entry={one} isChosen={one.id === entry?.id} onChoose={() => setChosen(one.id)} />
                </li>
              ))}
            </Box>
            <Pager
              offset={offset}
              page={PAGE}
              total={data.total}
              words={['Later ones', 'Earlier ones']}
              onMove={setOffset}
            />
          </Box>
          {entry && <LogEntryPanel key={entry.id} entry={entry} showsJob={job === undefined} />}
        </Box>
      )}
    </>
  );
}

/** What is found, all pages of it, as a table. */
function tableUrl({ search, job, from, to }: LogQuery): string {
  const asked = Object.entries({ search, job, from, to }).filter(
    ([, value]) => value !== undefined && value !== '',
  );
  return `/api/log/table?${new URLSearchParams(asked as [string, string][])}`;
}

function EntryTile({ entry, isChosen, onChoose }: { entry: LogEntry; isChosen: boolean; onChoose(): void }) {
  return (
    <Box
      component="button"
      type="button"
      aria-pressed={isChosen}
      onClick={onChoose}
      sx={{
        display: 'block',
        width: '100%',
        p: 0.5,
        border: 2,
        borderColor: isChosen ? 'primary.main' : 'transparent',
        bgcolor: 'background.paper',
        color: 'inherit',
        font: 'inherit',
        textAlign: 'left',
        cursor: 'pointer',
      }}
    >
      <FrameThumbnail id={entry.id} />
      <Box sx={{ fontWeight: 650, fontSize: '0.8125rem', mt: 0.5 }}>{entry.shotName}</Box>
      <Box sx={{ color: 'text.secondary', fontSize: '0.75rem' }}>
        {new Date(entry.at).toLocaleDateString('en-GB', { dateStyle: 'medium' })}
        {entry.client && `, ${entry.client}`}
      </Box>
    </Box>
  );
}
