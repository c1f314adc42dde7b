import type { Frame } from '@fendrix/contract';
import { exposedAs, F_NUMBERS, ISO_SPEEDS, printedSetting, SHUTTERS, setOfPlate } from '@fendrix/core';
import { settingsWords } from '@fendrix/words';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import type { ComponentProps } from 'react';
import { Choice } from '../../../shared/Choice';
import { frameUrl } from '../../../shared/frameUrl';
import { PlateChoice } from '../../devices';
import { setsApi } from '../../sets';
import { jobsApi } from '../api';
import { useJob } from '../state/openJob';
import { AgainstPlan } from './AgainstPlan';

const PLACED: Readonly<Record<NonNullable<Frame['placedBy']>, string>> = {
  time: 'By its time.',
  settings: 'By its settings.',
  hand: 'By hand.',
};

/** One frame, large, with what it was exposed by against its set, and what is thought of it. */
export function FrameAlone({
  frame,
  onThink,
  onStar,
  onMove,
  onPlate,
  onGiveTo,
  onTakeBack,
}: {
  frame: Frame;
  onThink(state: Frame['state']): void;
  onStar(): void;
  onMove(shot: string | null): void;
  /** Says which plate it is; null for the frame of the set itself. */
  onPlate(plate: string | null): void;
  /** Gives it to another job. */
  onGiveTo(job: string): void;
  /** Null where nothing was changed here. */
  onTakeBack: (() => void) | null;
}) {
  const { shots, name } = useJob();
  const { data: jobs } = jobsApi.useListJobsQuery({ search: '', offset: 0, limit: 50, archived: 'no' });
  const others = [
    ...(frame.job === null ? [] : [{ value: frame.job, words: name }]),
    ...(jobs?.jobs ?? [])
      .filter(({ id }) => id !== frame.job)
      .map((own) => ({ value: own.id, words: own.name })),
  ];
  const { state, starred, placedBy } = frame;
  const shot = shots.find(({ id }) => id === frame.shot);
  const known = shots.map(({ id, name }) => ({ value: id, words: name }));
  return (
    <section aria-label="This frame">
      <Box
        component="img"
        src={frameUrl(frame.id, 'large')}
        alt={`${frame.name}, ${frame.widthPx} by ${frame.heightPx} pixels`}
        sx={{
          display: 'block',
          width: '100%',
          maxHeight: '60vh',
          objectFit: 'contain',
          bgcolor: 'action.hover',
        }}
      />
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', my: 1 }}>
        <Button
          size="small"
          variant={state === 'kept' ? 'contained' : 'outlined'}
          aria-pressed={state === 'kept'}
          onClick={() => onThink('kept')}
        >
          Keep (K)
        </Button>
        <Button
          size="small"
          color="inherit"
          variant={state === 'rejected' ? 'contained' : 'outlined'}
          aria-pressed={state === 'rejected'}
          onClick={() => onThink('rejected')}
        >
          Not kept (R)
        </Button>
        <Button size="small" color="inherit" variant="outlined" aria-pressed={starred} onClick={onStar}>
          {starred ? '★' : '☆'} Star (S)
        </Button>
        <Button size="small" color="inherit" disabled={!onTakeBack} onClick={() => onTakeBack?.()}>
          Take back (U)
        </Button>
      </Box>
      <Box sx={{ fontWeight: 650 }}>{frame.name}</Box>
      <Box className="number" sx={{ fontSize: '0.8125rem' }}>
        {settingsWords(frame)}
      </Box>
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        {[frame.body, `came at ${new Date(frame.arrivedAt).toLocaleString()}`].filter(Boolean).join(', ')}
      </Box>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', mt: 1 }}>
        <Choice
          shown
          label="Of the picture"
          value={shot?.id ?? ''}
          options={[{ value: '', words: 'none yet' }, ...known]}
          onChoose={(id) => onMove(id === '' ? null : id)}
        />
        {shot && placedBy && (
          <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>{PLACED[placedBy]}</Box>
        )}
      </Box>
      <Box sx={{ mt: 0.5 }}>
        <Choice shown label="Of the job" value={frame.job ?? ''} options={others} onChoose={onGiveTo} />
      </Box>
      {shot?.setId && (
        <Box sx={{ mt: 0.5 }}>
          <PlateOf setId={shot.setId} plate={frame.plate} onChoose={onPlate} />
        </Box>
      )}
      {shot?.setId && frame.take !== null && <OnTake take={frame.take} setId={shot.setId} />}
      {shot?.setId && <AgainstSet frame={frame} setId={shot.setId} />}
      {shot?.setId && (
        <AgainstPlan
          key={`${frame.id} ${shot.id} ${frame.plate}`}
          frame={frame}
          of={`${shot.id} ${frame.plate}`}
        />
      )}
    </section>
  );
}

/** The take that the set stood on when the frame came. */
/** Which plate of its set a frame is. */
function PlateOf({
  setId,
  ...choice
}: { setId: string } & Pick<ComponentProps<typeof PlateChoice>, 'plate' | 'onChoose'>) {
  const { data } = setsApi.useReadSetQuery(setId);
  return <PlateChoice label="It is" set={data?.document} {...choice} />;
}

function OnTake({ take, setId }: { take: string; setId: string }) {
  const { data } = setsApi.useReadSetQuery(setId);
  const own = data?.document.takes.find(({ id }) => id === take);
  if (!own) return null;
  return (
    <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
      Its set was made from the take “{own.name}”.
    </Box>
  );
}

/** What was set otherwise than the set of the picture says. */
function AgainstSet({ frame, setId }: { frame: Frame; setId: string }) {
  const { data } = setsApi.useReadSetQuery(setId);
  if (!data) return null;
  const plate = data.document.plates.find(({ id }) => id === frame.plate);
  const { camera } = plate ? setOfPlate(data.document, plate) : data.document;
  if (exposedAs(frame, camera)) return null;
  return (
    <Alert severity="info" sx={{ mt: 1 }}>
      {plate ? `“${plate.name}”` : 'Its set'} is exposed at f/{printedSetting(F_NUMBERS, camera.fNumber)},{' '}
      {printedSetting(SHUTTERS, camera.shutterS)} s, ISO {printedSetting(ISO_SPEEDS, camera.iso)}.
    </Alert>
  );
}
