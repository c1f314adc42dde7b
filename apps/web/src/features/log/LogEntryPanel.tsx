import type { LogChange, LogEntry } from '@fendrix/contract';
import { formatStops, type VerdictCode } from '@fendrix/core';
import { durationWords, settingsWords, settledName } from '@fendrix/words';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useEffect, useRef, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { frameUrl } from '../../shared/frameUrl';
import { PlainTable } from '../../shared/PlainTable';
import { Section } from '../../shared/Section';
import { useAttempt } from '../../shared/useAttempt';
import { logApi } from './logApi';

/** One kept frame: picture, how it came about, what it showed, what is noted of it. */
export function LogEntryPanel({ entry, showsJob }: { entry: LogEntry; showsJob: boolean }) {
  const attempt = useAttempt();
  const navigate = useNavigate();
  const [openSet] = logApi.useOpenSetOfEntryMutation();
  const rows: [string, string][] = [
    ...(showsJob
      ? ([['Job', [entry.jobName, entry.client].filter(Boolean).join(', ')]] as [string, string][])
      : []),
    ['Taken', new Date(entry.at).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' })],
    ['Camera', settingsWords(entry)],
    ['Products', entry.products.join(', ') || 'none'],
    ['Lights', entry.lights.join(', ') || 'none'],
    ['Look', [entry.look, entry.tone].filter(Boolean).join('; ')],
    [
      'Took',
      `${entry.minutes === null ? 'not told' : durationWords(entry.minutes)}, planned ${durationWords(entry.plannedMinutes)}`,
    ],
    ['Frames until then', String(entry.tries)],
    ['Open verdicts', verdictWords(entry.verdicts)],
  ];
  return (
    <Box component="section" aria-label="This kept frame">
      <Box
        component="img"
        src={frameUrl(entry.id, 'large')}
        alt={`${entry.shotName}, as it was kept`}
        sx={{
          display: 'block',
          width: '100%',
          maxHeight: 320,
          objectFit: 'contain',
          bgcolor: 'action.hover',
        }}
      />
      <Box component="h2" sx={{ fontSize: '1rem', fontWeight: 650, mt: 1, mb: 0.5 }}>
        {entry.shotName}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button
          size="small"
          variant="contained"
          onClick={() => attempt(async () => navigate(`/sets/${(await openSet(entry.id).unwrap()).id}`))}
        >
          Open the set as it was
        </Button>
        <Button
          size="small"
          variant="outlined"
          color="inherit"
          onClick={() =>
            attempt(async () =>
              navigate(`/sets/${(await openSet(entry.id).unwrap()).id}/rebuild?frame=${entry.id}`),
            )
          }
        >
          Rebuild with another product
        </Button>
        <Button
          size="small"
          variant="outlined"
          color="inherit"
          component={Link}
          to={`/jobs/${entry.job}/frames`}
        >
          Frames of the job
        </Button>
      </Box>
      <PlainTable name="log entry">
        <tbody>
          {rows.map(([label, value]) => (
            <tr key={label}>
              <th scope="row" style={{ whiteSpace: 'nowrap' }}>
                {label}
              </th>
              <td>{value}</td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
      <Written entry={entry} />
      <Measured entry={entry} />
      {entry.gone && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          Its file {entry.name} is not in the folder of the camera any more; the small picture is kept here.
        </Box>
      )}
    </Box>
  );
}

function verdictWords(verdicts: LogEntry['verdicts']): string {
  if (verdicts === null) return 'being worked out';
  if (verdicts.length === 0) return 'none';
  return verdicts.map((kind) => settledName(kind as VerdictCode)).join(', ');
}

/** While one types a note is kept this long after the last key, ms: a page that is read anew has lost nothing. */
const KEEP_MS = 500;

/** What is written by hand; kept while one types, and when the field is left. */
function Written({ entry }: { entry: LogEntry }) {
  const attempt = useAttempt();
  const [save] = logApi.useChangeEntryMutation();
  const [note, setNote] = useState(entry.note);
  /** What the server has of it; null where it did not take the last one. */
  const sent = useRef<string | null>(entry.note);
  const [minutes, setMinutes] = useState(entry.retouchMinutes === null ? '' : String(entry.retouchMinutes));
  const asked = minutes.trim() === '' ? null : Number(minutes.replace(',', '.'));
  const isWrong = asked !== null && !(asked >= 0 && asked <= 10_000);
  const keep = (change: LogChange) =>
    attempt(async () => void (await save({ id: entry.id, change }).unwrap()));
  const keepNote = () => {
    if (note === sent.current) return;
    sent.current = note;
    attempt(async () => {
      try {
        await save({ id: entry.id, change: { note } }).unwrap();
      } catch (error) {
        sent.current = null;
        throw error;
      }
    });
  };
  const latest = useRef(keepNote);
  latest.current = keepNote;
  useEffect(() => {
    if (note === sent.current) return;
    const timer = setTimeout(() => latest.current(), KEEP_MS);
    return () => clearTimeout(timer);
  }, [note]);
  return (
    <Section title="Notes">
      <TextField
        size="small"
        fullWidth
        multiline
        minRows={2}
        label="Note"
        value={note}
        onChange={({ target }) => setNote(target.value.slice(0, 2000))}
        onBlur={keepNote}
        sx={{ mb: 1 }}
      />
      <TextField
        size="small"
        label="Retouching, minutes"
        value={minutes}
        error={isWrong}
        helperText={isWrong ? 'Minutes as a number, such as 12.' : ' '}
        onChange={({ target }) => setMinutes(target.value)}
        onBlur={() => !isWrong && asked !== entry.retouchMinutes && keep({ retouchMinutes: asked })}
      />
    </Section>
  );
}

function Measured({ entry: { measured } }: { entry: LogEntry }) {
  if (!measured)
    return (
      <Section title="Against the plan">
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          It was not held against its plan yet: that is done among the frames of its job, and noted here.
        </Box>
      </Section>
    );
  const { lights, spots } = measured;
  return (
    <Section title="Against the plan">
      <PlainTable name="measured">
        <thead>
          <tr>
            <th scope="col">What</th>
            <th scope="col">Plan</th>
            <th scope="col">Frame</th>
          </tr>
        </thead>
        <tbody>
          {spots.map(({ name, plan, frame }) => (
            <tr key={`spot ${name}`}>
              <th scope="row">{name}</th>
              <td className="number">{formatStops(plan)}</td>
              <td className="number">{frame === null ? 'clipped or black' : formatStops(frame)}</td>
            </tr>
          ))}
          {lights.map(({ tag, name, stops, isOff }) => (
            <tr key={`light ${tag}`}>
              <th scope="row">
                {tag}: {name}
              </th>
              <td>as planned</td>
              <td className="number">
                {formatStops(stops)} {isOff && 'off'}
              </td>
            </tr>
          ))}
        </tbody>
      </PlainTable>
    </Section>
  );
}
