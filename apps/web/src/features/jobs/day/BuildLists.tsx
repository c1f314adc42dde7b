import { type SetDocument, type TapeMark, tapeMark } from '@fendrix/contract';
import { marksForTapes, marksOf } from '@fendrix/core';
import { buildWords, frameStepWords, TAPE_MARK_WORDS } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { flushSync } from 'react-dom';
import { Link, useParams } from 'react-router';
import { Choice } from '../../../shared/Choice';
import { Section } from '../../../shared/Section';
import { StepTable } from '../../../shared/StepTable';
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
  const { shot, set, before, steps, frames } = picture;
  const { tapesFrom } = useJob().day;
  const { act } = useDayAtHand();
  const ticks = {
    isDone: (key: string) => shot.built.includes(key),
    onTick: (step: string, checked: boolean) => act({ kind: 'step', shot: shot.id, step, done: checked }),
  };
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
        <StepTable
          {...ticks}
          name={`build ${shot.id}`}
          columns={['Done', 'What', 'Where', 'How']}
          steps={steps.map((step) => ({ ...step, ...buildWords(step, set, tapesFrom) }))}
        />
      )}
      {frames.length > 1 && (
        <StepTable
          {...ticks}
          name={`frames ${shot.id}`}
          columns={['Taken', 'Frame', 'Settings', 'How']}
          steps={frames.map((frame, at) => ({
            key: frame.key,
            cautions: [],
            ...frameStepWords(frame, frames[at - 1] ?? null),
          }))}
        />
      )}
    </Box>
  );
}
