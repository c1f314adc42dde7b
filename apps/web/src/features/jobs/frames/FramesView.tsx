import type { Frame, FrameChange, FrameList, Shot } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, useParams } from 'react-router';
import { failureMessage } from '../../../shared/api';
import { Pager } from '../../../shared/Pager';
import { Section } from '../../../shared/Section';
import { JobDevices } from '../JobDevices';
import { useJob } from '../state/openJob';
import { FrameAlone } from './FrameAlone';
import { FrameGrid } from './FrameGrid';
import { framesApi } from './framesApi';
import { useFrames } from './useFrames';

/** Frames of a page. */
const PAGE = 200;
/** What is said of a frame is long: the frames stay beside it, to go to the next one. */
const BESIDE_ANSWER = {
  order: { xs: 2, md: 1 },
  minWidth: 0,
  alignSelf: 'start',
  position: { md: 'sticky' },
  top: { md: 16 },
  maxHeight: { md: 'calc(100vh - 32px)' },
  overflowY: { md: 'auto' },
} as const;

/** What cameras wrote for this job: frame by frame with its picture, kept or not. */
export function FramesView() {
  const { jobId: job = '' } = useParams();
  const [offset, setOffset] = useState(0);
  const { list: data, error, refused, change } = useFrames({ job, limit: PAGE, offset });
  if (error && !data) return <Alert severity="error">{failureMessage(error)}</Alert>;
  if (!data) return <LinearProgress aria-label="The frames are being read" />;
  return (
    <>
      <Folder list={data} job={job} />
      <JobDevices job={job} />
      {data.frames.length > 0 && <Frames frames={data.frames} refused={refused} change={change} />}
      <Pager offset={offset} page={PAGE} total={data.total} words={['Newer', 'Older']} onMove={setOffset} />
    </>
  );
}

/** Where cameras write, whether it comes here, and what could not be read. */
function Folder({
  list: { folder, job: comesTo, reading, unreadable, total },
  job,
}: {
  list: FrameList;
  job: string;
}) {
  const [send, sending] = framesApi.useSendFramesToMutation();
  const isHere = comesTo === job;
  return (
    <Section
      title={`Frames (${total})`}
      action={
        <>
          {total > 0 && (
            <Button size="small" color="inherit" component={Link} to={`/jobs/${job}/match`}>
              Hold the series together
            </Button>
          )}
          <Button
            size="small"
            variant={isHere ? 'text' : 'contained'}
            disabled={sending.isLoading}
            onClick={() => void send(isHere ? null : job)}
          >
            {isHere ? 'Frames come here: stop' : 'Let frames come to this job'}
          </Button>
        </>
      }
    >
      {sending.error && <Alert severity="error">{failureMessage(sending.error)}</Alert>}
      {!folder.there && (
        <Alert severity="warning" sx={{ mb: 1, maxWidth: 640 }}>
          The watched folder is not there: {folder.path}. It is looked for again and again.
        </Alert>
      )}
      {total === 0 && (
        <Typography sx={{ color: 'text.secondary', maxWidth: 640 }}>
          Let the program that takes pictures off your camera save them to <code>{folder.path}</code>. JPEG,
          PNG, TIFF, and the previews of raw files are read as they come; the files themselves are never
          touched. Each goes to the picture that is being taken at its time, or to the next one that is
          exposed so.
        </Typography>
      )}
      {reading > 0 && (
        <Typography role="status">
          {reading} {reading === 1 ? 'file is' : 'files are'} being read.
        </Typography>
      )}
      {unreadable.length > 0 && (
        <Alert severity="warning" sx={{ mt: 1, maxWidth: 640 }}>
          Not read: {unreadable.map(({ name, why }) => `${name} (${why})`).join(', ')}.
        </Alert>
      )}
    </Section>
  );
}

function Frames({
  frames,
  refused,
  change,
}: { frames: readonly Frame[] } & Pick<ReturnType<typeof useFrames>, 'refused' | 'change'>) {
  const { shots } = useJob();
  const [chosen, setChosen] = useState<string | null>(null);
  /** What was changed here, and how it was before: the last is taken back first. */
  const [before, setBefore] = useState<readonly { id: string; change: FrameChange }[]>([]);
  const groups = groupsOf(frames, shots);
  const inOrder = groups.flatMap((group) => group.frames);
  const frame = inOrder.find(({ id }) => id === chosen) ?? inOrder[0];

  const set = (own: Frame, next: FrameChange) => {
    const was = Object.fromEntries(
      Object.keys(next).map((key) => [key, own[key as keyof FrameChange & keyof Frame]]),
    );
    setBefore([...before, { id: own.id, change: was as FrameChange }]);
    change(own.id, next);
  };
  const takeBack = () => {
    const last = before.at(-1);
    if (!last) return;
    setBefore(before.slice(0, -1));
    setChosen(last.id);
    change(last.id, last.change);
  };
  const step = (by: 1 | -1) => {
    const at = inOrder.findIndex(({ id }) => id === frame?.id);
    const next = inOrder[Math.min(inOrder.length - 1, Math.max(0, at + by))];
    if (next) setChosen(next.id);
  };
  const think = (state: Frame['state']) => {
    if (!frame) return;
    set(frame, { state: frame.state === state ? 'new' : state });
    step(1);
  };
  useHotkeys('left, up', () => step(-1), { preventDefault: true });
  useHotkeys('right, down', () => step(1), { preventDefault: true });
  useHotkeys('k', () => think('kept'));
  useHotkeys('r', () => think('rejected'));
  useHotkeys('s', () => frame && set(frame, { starred: !frame.starred }));
  useHotkeys('u', takeBack);

  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr', md: '1fr minmax(320px, 44%)' }, gap: 3 }}>
      <Box sx={BESIDE_ANSWER}>
        {groups.map(({ shot, frames: own }) => (
          <FrameGrid
            key={shot?.id ?? ''}
            name={shot?.name ?? 'Of no picture yet'}
            frames={own}
            chosen={frame?.id ?? null}
            onChoose={setChosen}
          />
        ))}
      </Box>
      {frame && (
        <Box sx={{ order: { xs: 1, md: 2 }, alignSelf: 'start', position: { md: 'sticky' }, top: 16 }}>
          {refused !== null && <Alert severity="error">{failureMessage(refused)}</Alert>}
          <FrameAlone
            frame={frame}
            onThink={think}
            onStar={() => set(frame, { starred: !frame.starred })}
            onMove={(shot) => set(frame, { shot, plate: null })}
            onPlate={(plate) => set(frame, { plate })}
            onGiveTo={(to) => set(frame, { job: to, shot: null, plate: null })}
            onTakeBack={before.length > 0 ? takeBack : null}
          />
        </Box>
      )}
    </Box>
  );
}

/** Frames by picture in the order of the job; those of none first. */
function groupsOf(
  frames: readonly Frame[],
  shots: readonly Shot[],
): { shot: Shot | null; frames: Frame[] }[] {
  const known = new Set(shots.map(({ id }) => id));
  const groups = [null, ...shots].map((shot) => ({
    shot,
    frames: frames.filter((frame) =>
      shot ? frame.shot === shot.id : frame.shot === null || !known.has(frame.shot),
    ),
  }));
  return groups.filter((group) => group.frames.length > 0);
}
