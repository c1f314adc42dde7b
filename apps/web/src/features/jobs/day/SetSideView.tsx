import type { SetDocument } from '@fendrix/contract';
import { type BuildStep, F_NUMBERS, ISO_SPEEDS, type JobDay, printedSetting, SHUTTERS } from '@fendrix/core';
import { buildWords, setCautionWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import CircularProgress from '@mui/material/CircularProgress';
import Typography from '@mui/material/Typography';
import { useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { changeRow } from '../../../shared/rows';
import { useEditJob, useJob } from '../state/openJob';
import { useAwake } from './useAwake';
import { type PictureSteps, useBuildSteps, useTick } from './useBuildSteps';
import { useDay, useOrder } from './useDay';

/** Figures that are read from afar; the others stand small below. */
const READ_FROM_AFAR = 3;
/** Of what is read from afar: figures 9 mm high on a phone, where 6 px are a millimetre, and larger on a tablet. */
const BIG = 'clamp(64px, max(9vmin, min(20vw, 80px)), 120px)';

/** The day at the table: one step at a time, to be read from two metres and gone on by one press. */
export function SetSideView() {
  const { jobId } = useParams();
  const { day, sets, reading } = useDay();
  useAwake();
  return (
    <Box
      component="main"
      aria-label="Set side"
      sx={{ minHeight: '100dvh', display: 'flex', flexDirection: 'column', p: { xs: 1.5, md: 3 } }}
    >
      {reading ? (
        <CircularProgress aria-label="The sets of the pictures are being read" sx={{ m: 'auto' }} />
      ) : (
        <Steps day={day} sets={sets} />
      )}
      <Button
        component={Link}
        to={`/jobs/${jobId}/day`}
        size="small"
        color="inherit"
        sx={{ alignSelf: 'start', mt: 1 }}
      >
        Back to the day
      </Button>
    </Box>
  );
}

function Steps({ day, sets }: { day: JobDay; sets: ReadonlyMap<string, SetDocument> }) {
  const { order, best } = useOrder(day);
  const edit = useEditJob();
  const { shots, day: planned } = useJob();
  const { order: own, stands } = planned;
  const isOwn = own.length > 0;
  /** Pictures taken since the page was opened, and what stood there before each: Back goes to them too. */
  const [taken, setTaken] = useState<readonly { id: string; stood: string | undefined }[]>([]);
  const [picture, ...later] = useBuildSteps(day, sets, order);
  // Until the order is known nothing is begun.
  if (best === null && !isOwn)
    return <CircularProgress aria-label="The order is being worked out" sx={{ m: 'auto' }} />;
  if (!picture)
    return (
      <Typography sx={{ m: 'auto', fontSize: '1.5rem', maxWidth: 560 }}>
        {day.without.length > 0
          ? 'No picture that is set up is left. Make the sets of the others first.'
          : shots.length > 0
            ? 'All pictures are taken.'
            : 'There is nothing to build yet: list the pictures of the job and make their sets.'}
      </Typography>
    );
  const take = () => {
    const { shot } = picture;
    setTaken([...taken, { id: shot.id, stood: stands }]);
    edit((now) => ({
      ...now,
      shots: changeRow(now.shots, shot.id, { done: true }),
      day: { ...now.day, stands: shot.setId },
    }));
  };
  const last = taken.at(-1);
  const takeBack = last
    ? () => {
        setTaken(taken.slice(0, -1));
        edit((now) => ({
          ...now,
          shots: changeRow(now.shots, last.id, { done: false }),
          day: { ...now.day, stands: last.stood },
        }));
      }
    : null;
  return (
    <PictureAtTable
      key={picture.shot.id}
      picture={picture}
      next={later[0]?.shot.name ?? null}
      onTaken={take}
      onTakeBack={takeBack}
    />
  );
}

/** The steps of one picture, then taking it. */
function PictureAtTable({
  picture,
  next,
  onTaken,
  onTakeBack,
}: {
  picture: PictureSteps;
  next: string | null;
  onTaken(): void;
  /** Takes the picture before it again; null where there is none. */
  onTakeBack: (() => void) | null;
}) {
  const { shot, steps } = picture;
  const tick = useTick();
  const first = steps.findIndex(({ key }) => !shot.built.includes(key));
  const [at, setAt] = useState(first < 0 ? steps.length : first);
  // The set may have changed meanwhile: then there may be fewer.
  const step = steps[Math.min(at, steps.length)];
  const forward = () => {
    if (!step) return onTaken();
    tick(picture, step, true);
    setAt(at + 1);
  };
  const back = () => (at === 0 ? onTakeBack?.() : setAt(Math.min(at, steps.length) - 1));
  useKeys(forward, back);
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap', fontSize: '1.125rem' }}>
        <strong>{shot.name}</strong>
        <span role="status" data-testid="set-side-step">
          {step ? `step ${Math.min(at, steps.length) + 1} of ${steps.length}` : 'the set stands'}
        </span>
        {next && <Box sx={{ color: 'text.secondary' }}>then {next}</Box>}
      </Box>
      <Box sx={{ flex: 1, display: 'flex', flexDirection: 'column', justifyContent: 'center', py: 2 }}>
        {step ? <StepAtTable step={step} set={picture.set} /> : <TakeIt picture={picture} />}
      </Box>
      <Box sx={{ display: 'flex', gap: 2 }}>
        <Button
          size="large"
          variant="outlined"
          color="inherit"
          disabled={at === 0 && onTakeBack === null}
          onClick={back}
          sx={{ fontSize: '1.5rem', minWidth: 120, minHeight: 96 }}
        >
          Back
        </Button>
        <Button
          size="large"
          variant="contained"
          autoFocus
          onClick={forward}
          sx={{ flex: 1, fontSize: 'clamp(28px, 6vmin, 56px)', minHeight: 96 }}
        >
          {step ? 'Done' : 'Taken'}
        </Button>
      </Box>
    </>
  );
}

function StepAtTable({ step, set }: { step: BuildStep; set: SetDocument }) {
  const { tapesFrom } = useJob().day;
  const { title, numbers, notes } = buildWords(step, set, tapesFrom);
  const rest = numbers.slice(READ_FROM_AFAR).map(({ label, value }) => `${value} ${label}.`);
  return (
    <>
      {step.cautions.map((caution) => (
        <Alert key={caution.code} role="note" severity="warning" sx={{ mb: 1, fontSize: '1.125rem' }}>
          {setCautionWords(caution)}
        </Alert>
      ))}
      <Box component="h1" sx={{ m: 0, mb: 2, fontSize: 'clamp(30px, 6vmin, 60px)', lineHeight: 1.1 }}>
        {title}
      </Box>
      <Numbers numbers={numbers.slice(0, READ_FROM_AFAR)} />
      <Box sx={{ mt: 2, fontSize: 'clamp(18px, 3.2vmin, 30px)', maxWidth: '60ch' }}>
        {[...notes, ...rest].join(' ')}
      </Box>
    </>
  );
}

function TakeIt({ picture: { set, shot } }: { picture: PictureSteps }) {
  const { fNumber, shutterS, iso } = set.camera;
  return (
    <>
      <Box component="h1" sx={{ m: 0, mb: 2, fontSize: 'clamp(30px, 6vmin, 60px)', lineHeight: 1.1 }}>
        Take it
      </Box>
      <Numbers
        numbers={[
          { label: 'f-stop', value: `f/${printedSetting(F_NUMBERS, fNumber)}` },
          { label: 'shutter', value: `${printedSetting(SHUTTERS, shutterS)} s` },
          { label: 'ISO', value: `${printedSetting(ISO_SPEEDS, iso)}` },
        ]}
      />
      <Box sx={{ mt: 2, fontSize: 'clamp(18px, 3.2vmin, 30px)' }}>
        {shot.minutes} min are planned for it.{' '}
        {shot.plates.length > 0 && `Frames it is put together from: ${shot.plates.join(', ')}.`}
      </Box>
    </>
  );
}

function Numbers({ numbers }: { numbers: readonly { label: string; value: string }[] }) {
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 6, rowGap: 1 }} data-testid="set-side-numbers">
      {numbers.map(({ label, value }) => (
        <Box key={label}>
          <Box className="number" sx={{ fontSize: BIG, lineHeight: 1.1, whiteSpace: 'nowrap' }}>
            <Figure value={value} />
          </Box>
          <Box sx={{ fontSize: 'clamp(16px, 2.6vmin, 24px)', color: 'text.secondary' }}>{label}</Box>
        </Box>
      ))}
    </Box>
  );
}

/** A figure with its unit smaller, so that it fits a phone. */
function Figure({ value }: { value: string }) {
  const [figure, ...unit] = value.split(' ');
  return (
    <>
      {figure}
      {unit.length > 0 && <span style={{ fontSize: '0.45em' }}> {unit.join(' ')}</span>}
    </>
  );
}

const FORWARD = new Set(['ArrowRight', 'PageDown']);
const BACK = new Set(['ArrowLeft', 'PageUp']);

/** Arrows go on and back, and so do foot switches and remotes, which press the page keys. */
function useKeys(forward: () => void, back: () => void): void {
  useEffect(() => {
    const press = (event: KeyboardEvent) => {
      const go = FORWARD.has(event.key) ? forward : BACK.has(event.key) ? back : null;
      if (!go || event.repeat || event.ctrlKey || event.metaKey || event.altKey) return;
      event.preventDefault();
      go();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  });
}
