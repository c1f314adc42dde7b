import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { type FormEvent, useEffect, useState } from 'react';
import { DayProvider } from '../day/dayAtHand';
import { AtTable } from './AtTable';
import { pairWith } from './pairedDay';
import { usePairedDay } from './usePairedDay';

/** The day at the table on a phone or tablet that was let in by a code. */
export function PairedSetSide() {
  const { link, day, waiting, again } = usePairedDay();
  if (link === 'not-paired') return <Pair waiting={waiting} onPaired={again} />;
  if (link === 'no-day')
    return (
      <Typography component="main" role="alert" sx={{ p: 3, maxWidth: 480 }}>
        There is no day here. Open the address that stands in the day of the job, under “Phones at the table”.
      </Typography>
    );
  if (!day)
    return (
      <Box component="main" sx={{ p: 3, display: 'grid', gap: 2, justifyItems: 'center' }}>
        <CircularProgress aria-label="The day is being read" />
        {link === 'lost' && (
          <Typography role="alert">
            The machine in the studio cannot be reached. It is asked again.
          </Typography>
        )}
      </Box>
    );
  return (
    <DayProvider value={day}>
      <AtTable
        notice={
          link === 'lost' && (
            <Alert severity="warning" sx={{ mb: 1 }}>
              The link is lost: go on.{' '}
              {waiting > 0 && `${waiting} of what you did is kept here and told when it is back.`}
            </Alert>
          )
        }
        foot={
          <Typography sx={{ fontSize: '0.875rem' }} data-testid="link">
            {link === 'lost' || waiting > 0 ? 'Not all is told yet.' : `${day.job.name}: all is told.`}
          </Typography>
        }
      />
    </DayProvider>
  );
}

/** Asks for the code; one that came with the address is tried at once. */
function Pair({ waiting, onPaired }: { waiting: number; onPaired(): void }) {
  const [code, setCode] = useState(() => decodeURIComponent(location.hash.slice(1)).replaceAll('-', ' '));
  const [name, setName] = useState('');
  const [wrong, setWrong] = useState<string | null>(null);
  const [isTrying, setIsTrying] = useState(false);
  const attempt = async () => {
    setIsTrying(true);
    const refused = await pairWith(code, name);
    setIsTrying(false);
    // It works once: nothing of it stays in the address.
    history.replaceState(null, '', location.pathname);
    if (refused === null) onPaired();
    else setWrong(refused);
  };
  // Once: it does not change by what is typed.
  useEffect(() => {
    if (code !== '') void attempt();
  }, []);
  const send = (event: FormEvent) => {
    event.preventDefault();
    void attempt();
  };
  return (
    <Box
      component="main"
      sx={{ p: 3, maxWidth: 480, mx: 'auto', minHeight: '100dvh', display: 'grid', alignContent: 'center' }}
    >
      <Box component="form" onSubmit={send} sx={{ display: 'grid', gap: 2 }}>
        <Typography component="h1" sx={{ fontSize: '1.75rem', fontWeight: 650 }}>
          Set side
        </Typography>
        <Typography>
          Type the three words that stand in the day of the job, under “Phones at the table”.
        </Typography>
        {waiting > 0 && (
          <Alert severity="info">
            {waiting} of what you did is kept here and told once you are in again.
          </Alert>
        )}
        {wrong !== null && <Alert severity="error">{wrong}</Alert>}
        <TextField
          label="The three words"
          value={code}
          onChange={({ target }) => setCode(target.value)}
          autoComplete="off"
          slotProps={{ htmlInput: { autoCapitalize: 'none', spellCheck: false } }}
        />
        <TextField
          label="Name of this device"
          placeholder="Phone"
          value={name}
          onChange={({ target }) => setName(target.value)}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
        <Button type="submit" variant="contained" size="large" disabled={isTrying || code.trim() === ''}>
          Let me in
        </Button>
      </Box>
    </Box>
  );
}
