import { type SetDocument, type TapeMark, tapeMark } from '@fendrix/contract';
import { marksForTapes, marksOf } from '@fendrix/core';
import { buildWords, frameStepWords, setCautionWords, TAPE_MARK_WORDS } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import { Link, useParams } from 'react-router';
import { Choice } from '../../../shared/Choice';
import { PlainTable } from '../../../shared/PlainTable';
import { Section } from '../../../shared/Section';
import { useEditJob, useJob } from '../state/openJob';
import { useDayAtHand } from './dayAtHand';
import type { PictureSteps } from './useBuildSteps';

/** What to place for each picture of the day, in the order of building, by tape from two marks. */
export function BuildLists({ pictures }: { pictures: readonly PictureSteps[] }) {
  const { jobId } = useParams();
  const isPrinting = usePrinting();
  return (
    <Section
      title="Build lists"
      action={
        <Button size="small" variant="outlined" component={Link} to={`/jobs/${jobId}/set-side`}>
          Set side: one step at a time
        </Button>
      }
    >
      <TapesFrom sets={pictures.map(({ set }) => set)} />
      {pictures.map((picture, at) => (
        <BuildList key={picture.shot.id} picture={picture} open={at === 0 || isPrinting} />
      ))}
      <Typography sx={{ color: 'text.secondary', fontSize: '0.75rem', mt: 1, maxWidth: 640 }}>
        Tapes are laid along the level, to the point straight below or above the middle of a thing; where
        nothing else is said they meet behind the line between the two marks. Each list says only what differs
        from the set before it. Usual practice; local codes and qualified people come first.
      </Typography>
    </Section>
  );
}

/** The two marks that tapes are laid from, out of those that a set has. */
function TapesFrom({ sets }: { sets: readonly SetDocument[] }) {
  const { tapesFrom } = useJob().day;
  const edit = useEditJob();
  const known = new Set(sets.flatMap((set) => marksForTapes(set).map(({ mark }) => mark)));
  const options = tapeMark.options
    .filter((mark) => known.has(mark) || tapesFrom.includes(mark))
    .map((value) => ({ value, words: TAPE_MARK_WORDS[value] }));
  const without = sets.filter((set) => marksOf(set, tapesFrom) === null);
  const choose = (at: 0 | 1) => (mark: TapeMark) =>
    edit((now) => {
      const marks: [TapeMark, TapeMark] = [...now.day.tapesFrom];
      marks[at] = mark;
      return { ...now, day: { ...now.day, tapesFrom: marks } };
    });
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 2, mb: 1, maxWidth: 720 }}>
      <Choice shown label="First tape from" value={tapesFrom[0]} options={options} onChoose={choose(0)} />
      <Choice shown label="Second tape from" value={tapesFrom[1]} options={options} onChoose={choose(1)} />
      {without.length > 0 && (
        <Alert severity="info" sx={{ py: 0 }}>
          {tapesFrom[0] === tapesFrom[1] ? 'Both tapes begin at one mark' : 'Not both marks are on every set'}
          : where they are missing, things are told by distance and bearing from the centre.
        </Alert>
      )}
    </Box>
  );
}

/** Whether the page is being printed: what is folded is then shown. */
function usePrinting(): boolean {
  const [isPrinting, setIsPrinting] = useState(false);
  useEffect(() => {
    // At once: the page is laid out for print as soon as this has run.
    const begin = () => flushSync(() => setIsPrinting(true));
    const end = () => setIsPrinting(false);
    window.addEventListener('beforeprint', begin);
    window.addEventListener('afterprint', end);
    return () => {
      window.removeEventListener('beforeprint', begin);
      window.removeEventListener('afterprint', end);
    };
  }, []);
  return isPrinting;
}

function BuildList({ picture, open }: { picture: PictureSteps; open: boolean }) {
  const { shot, set, before, steps } = picture;
  const { tapesFrom } = useJob().day;
  const { act } = useDayAtHand();
  const done = steps.filter(({ key }) => shot.built.includes(key)).length;
  return (
    <Box component="details" open={open} sx={{ borderTop: 1, borderColor: 'divider', py: 0.75 }}>
      <Box component="summary" sx={{ cursor: 'pointer', fontSize: '0.875rem' }}>
        <strong>{shot.name}</strong>
        {steps.length === 0
          ? ': the set stands already'
          : `: ${done} of ${steps.length} done, ${before === null ? 'from an empty table' : `from “${before}”`}`}
      </Box>
      {steps.length > 0 && (
        <PlainTable name={`build ${shot.id}`}>
          <thead>
            <tr>
              <th scope="col">Done</th>
              <th scope="col">What</th>
              <th scope="col">Where</th>
              <th scope="col">How</th>
            </tr>
          </thead>
          <tbody>
            {steps.map((step) => {
              const { title, numbers, notes } = buildWords(step, set, tapesFrom);
              return (
                <tr key={step.key}>
                  <td>
                    <Checkbox
                      size="small"
                      sx={{ p: 0 }}
                      checked={shot.built.includes(step.key)}
                      onChange={(_, checked) =>
                        act({ kind: 'step', shot: shot.id, step: step.key, done: checked })
                      }
                      slotProps={{ input: { 'aria-label': `${title}: done` } }}
                    />
                  </td>
                  <th scope="row" style={{ fontWeight: 650, minWidth: 140 }}>
                    {title}
                  </th>
                  <td>
                    {numbers.map(({ label, value }) => (
                      <div key={label} style={{ whiteSpace: 'nowrap' }}>
                        <span className="number">{value}</span> {label}
                      </div>
                    ))}
                  </td>
                  <td>
                    {step.cautions.map((caution) => (
                      <Alert key={caution.code} role="note" severity="warning" sx={{ py: 0, mb: 0.5 }}>
                        {setCautionWords(caution)}
                      </Alert>
                    ))}
                    {notes.join(' ')}
                  </td>
                </tr>
              );
            })}
          </tbody>
        </PlainTable>
      )}
      {picture.frames.length > 1 && <FrameList picture={picture} />}
    </Box>
  );
}

/** Frames of a picture that is put together from several, in the order in which they are taken. */
function FrameList({ picture: { shot, frames } }: { picture: PictureSteps }) {
  const { act } = useDayAtHand();
  return (
    <PlainTable name={`frames ${shot.id}`}>
      <thead>
        <tr>
          <th scope="col">Taken</th>
          <th scope="col">Frame</th>
          <th scope="col">Settings</th>
          <th scope="col">How</th>
        </tr>
      </thead>
      <tbody>
        {frames.map((frame, at) => {
          const { title, numbers, notes } = frameStepWords(frame, frames[at - 1] ?? null);
          return (
            <tr key={frame.key}>
              <td>
                <Checkbox
                  size="small"
                  sx={{ p: 0 }}
                  checked={shot.built.includes(frame.key)}
                  onChange={(_, checked) =>
                    act({ kind: 'step', shot: shot.id, step: frame.key, done: checked })
                  }
                  slotProps={{ input: { 'aria-label': `${title}: taken` } }}
                />
              </td>
              <th scope="row" style={{ fontWeight: 650, minWidth: 140 }}>
                {title}
              </th>
              <td>
                {numbers.map(({ label, value }) => (
                  <div key={label} style={{ whiteSpace: 'nowrap' }}>
                    <span className="number">{value}</span> {label}
                  </div>
                ))}
              </td>
              <td>{notes.join(' ')}</td>
            </tr>
          );
        })}
      </tbody>
    </PlainTable>
  );
}
