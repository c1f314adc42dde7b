import type { SetDocument, Shot } from '@fendrix/contract';
import {
  type BuildStep,
  F_NUMBERS,
  ISO_SPEEDS,
  type PlannedFrame,
  printedSetting,
  SHUTTERS,
} from '@fendrix/core';
import { buildWords, frameStepWords, putBackWords, setCautionWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { useDayAtHand } from '../day/dayAtHand';
import type { PictureSteps } from '../day/useBuildSteps';
import { Pieces } from './Pieces';
import { useKeys } from './useKeys';
import { useVoice } from './useVoice';

/** Figures that are read from afar; the others stand small below. */
const READ_FROM_AFAR = 3;
/** Of what is read from afar: figures 9 mm high on a phone, where 6 px are a millimetre, and larger on a tablet. */
const BIG = 'clamp(64px, max(9vmin, min(20vw, 80px)), 120px)';

/** The steps of one picture, then taking it. */
export function PictureAtTable({
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
  const { shot, steps, frames } = picture;
  const { act } = useDayAtHand();
  // One that is a single frame is taken at the end, without a step of its own.
  const plates = frames.length > 1 ? frames : [];
  const all = [...steps, ...plates];
  const first = all.findIndex(({ key }) => !shot.built.includes(key));
  const [at, setAt] = useState(first < 0 ? all.length : first);
  // The set may have changed meanwhile: then there may be fewer.
  const now = Math.min(at, all.length);
  const step = all[now];
  const forward = () => {
    if (!step) return onTaken();
    act({ kind: 'step', shot: shot.id, step: step.key, done: true });
    setAt(at + 1);
  };
  const back = () => (at === 0 ? onTakeBack?.() : setAt(now - 1));
  useKeys(forward, back);
  const voice = useVoice(forward, back);
  return (
    <>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'baseline', flexWrap: 'wrap', fontSize: '1.125rem' }}>
        <strong>{shot.name}</strong>
        <span role="status" data-testid="set-side-step">
          {step
            ? `step ${now + 1} of ${all.length}`
            : plates.length > 0
              ? 'all frames are taken'
              : 'the set stands'}
        </span>
        {next && <Box sx={{ color: 'text.secondary' }}>then {next}</Box>}
        {voice && (
          <Button
            size="small"
            color="inherit"
            aria-pressed={voice.listens}
            title="“Next”, “done” and “taken” go on, “back” goes back. The browser may send what it hears to its maker."
            onClick={voice.toggle}
            sx={{ ml: 'auto' }}
          >
            {voice.listens ? 'Listening' : 'Listen'}
          </Button>
        )}
      </Box>
      <Pieces shot={shot} />
      <Box sx={{ flex: 1, display: 'flex', flexDirection: 'column', justifyContent: 'center', py: 2 }}>
        {!step ? (
          <TakeIt picture={picture} />
        ) : 'plate' in step ? (
          <FrameAtTable frame={step} before={plates[now - steps.length - 1] ?? null} shot={shot} />
        ) : (
          <StepAtTable step={step} set={picture.set} />
        )}
      </Box>
      <Box
        sx={{ display: 'flex', gap: 2, position: 'sticky', bottom: 0, py: 1, bgcolor: 'background.default' }}
      >
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
          {!step ? 'Taken' : 'plate' in step ? 'This one is taken' : 'Done'}
        </Button>
      </Box>
    </>
  );
}

function StepAtTable({ step, set }: { step: BuildStep; set: SetDocument }) {
  const { tapesFrom } = useDayAtHand().job.day;
  const { title, numbers, notes } = buildWords(step, set, tapesFrom);
  const rest = numbers.slice(READ_FROM_AFAR).map(({ label, value }) => `${value} ${label}.`);
  return (
    <>
      {step.cautions.map((caution) => (
        <Alert key={caution.code} role="note" severity="warning" sx={{ mb: 1, fontSize: '1.125rem' }}>
          {setCautionWords(caution)}
        </Alert>
      ))}
      <Title>{title}</Title>
      <Numbers numbers={numbers.slice(0, READ_FROM_AFAR)} />
      <Box sx={{ mt: 2, fontSize: 'clamp(18px, 3.2vmin, 30px)', maxWidth: '60ch' }}>
        {[...notes, ...rest].join(' ')}
      </Box>
    </>
  );
}

/** One of the frames that the picture is put together from. */
function FrameAtTable({
  frame,
  before,
  shot,
}: {
  frame: PlannedFrame;
  before: PlannedFrame | null;
  shot: Shot;
}) {
  const { title, numbers, notes } = frameStepWords(frame, before);
  return (
    <>
      <Title>{title}</Title>
      <Numbers numbers={numbers} />
      <Box sx={{ mt: 2, fontSize: 'clamp(18px, 3.2vmin, 30px)', maxWidth: '60ch' }}>{notes.join(' ')}</Box>
      <Tries shot={shot} />
    </>
  );
}

function Title({ children }: { children: string }) {
  return (
    <Box component="h1" sx={{ m: 0, mb: 2, fontSize: 'clamp(30px, 6vmin, 60px)', lineHeight: 1.1 }}>
      {children}
    </Box>
  );
}

function TakeIt({ picture: { set, shot, frames } }: { picture: PictureSteps }) {
  if (frames.length > 1) {
    return (
      <>
        <Title>All frames are taken</Title>
        <Box sx={{ fontSize: 'clamp(18px, 3.2vmin, 30px)', maxWidth: '60ch' }}>
          {frames.map(({ plate }) => plate?.name ?? 'the set as it stands').join(', ')}. Look through them
          before anything is moved. {putBackWords(frames)}
        </Box>
        <Tries shot={shot} />
      </>
    );
  }
  const { fNumber, shutterS, iso } = set.camera;
  return (
    <>
      <Title>Take it</Title>
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
      <Tries shot={shot} />
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

/** Frames that were tried and not kept, counted by one press. */
function Tries({ shot: { id, tries } }: { shot: Shot }) {
  const { act } = useDayAtHand();
  const set = (next: number) => act({ kind: 'tries', shot: id, tries: next });
  return (
    <Box sx={{ display: 'flex', gap: 2, alignItems: 'center', flexWrap: 'wrap', mt: 2 }}>
      <Box sx={{ fontSize: 'clamp(18px, 3.2vmin, 30px)' }}>
        Not kept so far: <span className="number">{tries}</span>
      </Box>
      <Button variant="outlined" size="large" onClick={() => set(tries + 1)}>
        One more not kept
      </Button>
      {tries > 0 && (
        <Button size="large" color="inherit" onClick={() => set(tries - 1)}>
          One less
        </Button>
      )}
    </Box>
  );
}
