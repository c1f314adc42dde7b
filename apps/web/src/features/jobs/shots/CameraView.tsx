import type { Framing, Job, Shot, Studio } from '@fendrix/contract';
import {
  checkPlace,
  type FrameRect,
  formatLength,
  formatsOf,
  lensFigures,
  type StagedShot,
  tapeMarks,
  viewOf,
} from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Skeleton from '@mui/material/Skeleton';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { changeRow } from '../../../shared/rows';
import { Section } from '../../../shared/Section';
import { useAttempt } from '../../../shared/useAttempt';
import { useEquipment } from '../../kit';
import { setsApi } from '../../sets';
import { ReferenceStrip } from '../brief/ReferenceStrip';
import { useEditJob, useJob } from '../state/openJob';
import { Arrangement } from './Arrangement';
import { CameraChoice } from './CameraChoice';
import { DepthDesk } from './DepthDesk';
import { FrameOverlay } from './FrameOverlay';
import { Overhead } from './Overhead';
import { PlaceChecks } from './PlaceChecks';
import { type Staged, stage, useFraming } from './useStaged';

const PICTURE_WIDTH = 420;

/** Lens and place of one picture: the camera put where it fits, what that meets, and depth. */
export function CameraView() {
  const { shotId } = useParams();
  const job = useJob();
  const shot = job.shots.find(({ id }) => id === shotId);
  if (!shot) {
    return (
      <Alert
        severity="info"
        action={
          <Button component={Link} to=".." relative="path">
            All pictures
          </Button>
        }
      >
        This picture is not in the job any more.
      </Alert>
    );
  }
  return <Placing job={job} shot={shot} />;
}

function Placing({ job, shot }: { job: Job; shot: Shot }) {
  const equipment = useEquipment();
  const framing = useFraming(job, shot);
  const studio = equipment?.studio;
  const result = useMemo(
    () => (framing ? stage(job, shot, framing, studio) : null),
    [job, shot, framing, studio],
  );
  if (!equipment || !framing || !result) return <Skeleton height={320} />;
  if (!result.ok) return <Alert severity="warning">This picture cannot be staged: {result.why}.</Alert>;
  return <Placed {...{ job, shot, framing, result, equipment }} />;
}

interface PlacedProps {
  job: Job;
  shot: Shot;
  framing: Framing;
  result: Extract<Staged, { ok: true }>;
  equipment: NonNullable<ReturnType<typeof useEquipment>>;
}

function Placed({ job, shot, framing, result: { staged }, equipment }: PlacedProps) {
  const edit = useEditJob();
  const [format, setFormat] = useState<string | null>(null);
  const [lines, setLines] = useState(true);
  const change = (changes: Partial<Shot>, gesture: string | null = null) =>
    edit((now) => ({ ...now, shots: changeRow(now.shots, shot.id, changes) }), gesture);
  const setFraming = (changes: Partial<Framing>) => change({ framing: { ...framing, ...changes } });

  const { set, placed } = staged;
  const formats = formatsOf(job, shot);
  const fits = placed.fits.map((fit, index) => {
    const { id, name, widthPx } = formats[index] as (typeof formats)[number];
    return { ...fit, id, name, widthPx };
  });
  const highestM = Math.max(0, ...equipment.supports.map((support) => support.highestM));
  const checks = checkPlace(placed, {
    room: equipment.studio.room,
    benchHeightM: equipment.studio.benchHeightM,
    bench: set.bench,
    backdrop: set.backdrop,
    personM: framing.personM,
    mostNearFarRatio: framing.mostNearFarRatio,
    highestM: highestM > 0 ? highestM : undefined,
  });
  const height = Math.round((PICTURE_WIDTH * framing.body.sensorHeightM) / framing.body.sensorWidthM);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1.5, flexWrap: 'wrap' }}>
        <Button size="small" component={Link} to={`..?of=${shot.id}`} relative="path">
          All pictures
        </Button>
        <Typography variant="h2" sx={{ fontSize: '1.0625rem', flex: 1 }}>
          {shot.name}: lens and place
        </Typography>
        <MakeSet job={job} shot={shot} staged={staged} studio={equipment.studio} />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 340px' }, gap: 3 }}>
        <Box sx={{ minWidth: 0 }}>
          <SmallPicture
            set={set}
            width={PICTURE_WIDTH}
            samples={12}
            label={`${shot.name}, as the camera would see it`}
          >
            <FrameOverlay width={PICTURE_WIDTH} height={height} fits={fits} shown={format} lines={lines} />
          </SmallPicture>
          <Box sx={{ display: 'flex', gap: 1, alignItems: 'center', flexWrap: 'wrap', mt: 0.5 }}>
            {fits.map(({ id, name }) => (
              <Button
                key={id}
                size="small"
                color={format === id ? 'primary' : 'inherit'}
                aria-pressed={format === id}
                onClick={() => setFormat(format === id ? null : id)}
              >
                {name}
              </Button>
            ))}
            <FormControlLabel
              sx={{ ml: 'auto' }}
              control={<Switch size="small" checked={lines} onChange={(_, on) => setLines(on)} />}
              label="thirds and middle"
              slotProps={{ typography: { sx: { fontSize: '0.8125rem' } } }}
            />
          </Box>
          <PlaceFigures
            staged={staged}
            framing={framing}
            benchHeightM={equipment.studio.benchHeightM}
            crop={fits.find(({ id }) => id === format)}
          />
          <FormatFits
            fits={fits}
            heldByFormats={placed.heldByFormats}
            wanted={framing.fillPart}
            staged={staged}
          />
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <CameraChoice
            {...{ framing, equipment }}
            tiltDeg={shot.tiltDeg}
            onChange={setFraming}
            onTilt={(tiltDeg) => change({ tiltDeg })}
          />
          <ReferenceStrip />
          <PlaceChecks
            checks={checks}
            lenses={equipment.lenses}
            framing={framing}
            onTakeLens={(lens) => setFraming({ lens })}
          />
        </Box>
      </Box>
      {shot.tiltDeg > 60 && (
        <Overhead
          supports={equipment.supports}
          camera={set.camera}
          benchHeightM={equipment.studio.benchHeightM}
        />
      )}
      <Arrangement shot={shot} staged={staged} formats={formats} />
      <DepthDesk staged={staged} fits={fits} onStop={(fNumber) => setFraming({ fNumber })} />
    </>
  );
}

/** Where the camera stands, to be measured out with a tape. */
function PlaceFigures({
  staged: { placed, set },
  framing,
  benchHeightM,
  crop,
}: {
  staged: StagedShot;
  framing: Framing;
  benchHeightM: number;
  /** The format chosen; without one the whole frame is marked. */
  crop: { name: string; crop: FrameRect | null } | undefined;
}) {
  const { camera, distanceM, fill } = placed;
  const { magnification } = lensFigures(camera);
  const marks = set.bench ? tapeMarks(viewOf(camera), crop?.crop ?? WHOLE_FRAME, set.bench) : [];
  const corners = ['far left', 'far right', 'near right', 'near left'];
  const rows: [string, string][] = [
    ['lens to the middle of the product', formatLength(distanceM)],
    ['lens in front of the mark', formatLength(-camera.positionM[1])],
    ['lens over the table', formatLength(camera.positionM[2])],
    ['lens over the floor', formatLength(camera.positionM[2] + benchHeightM)],
    ['fills', `${percent(fill.width)} across, ${percent(fill.height)} up`],
    ['size on the sensor', `1 : ${Math.round(10 / magnification) / 10}`],
    ['focus at', `${formatLength(camera.focusM)}, ${Math.round(framing.lens.focalLengthM * 1000)} mm`],
  ];
  return (
    <Section title="Where it stands">
      <Box
        component="dl"
        sx={{ m: 0, display: 'grid', gridTemplateColumns: '1fr auto', fontSize: '0.8125rem' }}
      >
        {rows.map(([label, value]) => (
          <Box key={label} sx={{ display: 'contents' }}>
            <Box
              component="dt"
              sx={{ color: 'text.secondary', borderBottom: 1, borderColor: 'divider', py: 0.4 }}
            >
              {label}
            </Box>
            <Box
              component="dd"
              className="number"
              sx={{ m: 0, borderBottom: 1, borderColor: 'divider', py: 0.4, textAlign: 'right' }}
            >
              {value}
            </Box>
          </Box>
        ))}
      </Box>
      {marks.some((mark) => mark !== null) && (
        <Box sx={{ mt: 1, fontSize: '0.8125rem' }}>
          <Box sx={{ color: 'text.secondary' }}>
            Tape marks of the corners of {crop?.crop ? `“${crop.name}”` : 'the frame'} on the table, from its
            left and front edge:
          </Box>
          {marks.map((mark, index) =>
            mark ? (
              <Box key={corners[index]} component="span" className="number" sx={{ mr: 2 }}>
                {corners[index]} {formatLength(mark.fromLeftM)}, {formatLength(mark.fromFrontM)}
              </Box>
            ) : null,
          )}
        </Box>
      )}
    </Section>
  );
}

const WHOLE_FRAME: FrameRect = { left: 0, top: 0, right: 1, bottom: 1 };

const percent = (part: number) => `${Math.round(1000 * part) / 10} %`;

/** What each format gets out of the frame. */
function FormatFits({
  fits,
  heldByFormats,
  wanted,
  staged,
}: {
  fits: readonly { id: string; name: string; crop: unknown; pixelsWide: number; widthPx: number }[];
  heldByFormats: boolean;
  wanted: number;
  staged: StagedShot;
}) {
  const { width, height } = staged.placed.fill;
  return (
    <Section title="Formats in the frame">
      {heldByFormats && (
        <Alert severity="info" sx={{ mb: 1 }}>
          To leave every format its margin and its place for words the product fills{' '}
          {percent(Math.max(width, height))} instead of {percent(wanted)}. A format of its own picture would
          let it be larger.
        </Alert>
      )}
      {fits.length === 0 && (
        <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
          The brief has no formats yet; with them their crops are kept within the frame.
        </Box>
      )}
      {fits.map(({ id, name, crop, pixelsWide, widthPx }) => (
        <Box
          key={id}
          sx={{ display: 'flex', fontSize: '0.8125rem', borderBottom: 1, borderColor: 'divider', py: 0.4 }}
        >
          <Box sx={{ flex: 1 }}>{name}</Box>
          <Box
            className="number"
            sx={{ color: crop && pixelsWide >= widthPx ? 'text.primary' : 'warning.main' }}
          >
            {crop
              ? `${pixelsWide} px of ${widthPx}${pixelsWide < widthPx ? ', would be enlarged' : ''}`
              : 'does not fit'}
          </Box>
        </Box>
      ))}
    </Section>
  );
}

/** Makes the set of a picture, or brings its camera to the set that is there. */
function MakeSet({
  job,
  shot,
  staged,
  studio,
}: {
  job: Job;
  shot: Shot;
  staged: StagedShot;
  studio: Studio;
}) {
  const edit = useEditJob();
  const attempt = useAttempt();
  const navigate = useNavigate();
  const [create, creating] = setsApi.useCreateSetMutation();
  const [read] = setsApi.useLazyReadSetQuery();
  const [save, saving] = setsApi.useSaveSetMutation();
  const make = () =>
    attempt(async () => {
      const room = staged.inRoom ? { room: studio.room } : {};
      const { id } = await create({
        ...staged.set,
        ...room,
        name: `${job.name}: ${shot.name}`.slice(0, 80),
      }).unwrap();
      edit((now) => ({ ...now, shots: changeRow(now.shots, shot.id, { setId: id }) }));
      await navigate(`/sets/${id}`);
    });
  const bring = (id: string) =>
    attempt(async () => {
      const { revision, document } = await read(id).unwrap();
      const { positionM, aimM, focusM, body, lens, fNumber } = staged.set.camera;
      const camera = { ...document.camera, positionM, aimM, focusM, body, lens, fNumber };
      await save({ id, revision, document: { ...document, camera } }).unwrap();
      await navigate(`/sets/${id}`);
    });
  const { setId } = shot;
  return (
    <>
      {!staged.inRoom && (
        <Box sx={{ color: 'warning.main', fontSize: '0.8125rem' }}>
          The camera would stand outside of the room.
        </Box>
      )}
      {setId && (
        <>
          <Button size="small" component={Link} to={`/sets/${setId}`}>
            To its bench
          </Button>
          <Button size="small" disabled={saving.isLoading || !staged.inRoom} onClick={() => bring(setId)}>
            Bring this camera to its bench
          </Button>
        </>
      )}
      <Button size="small" variant="contained" disabled={creating.isLoading} onClick={make}>
        {setId ? 'Make another set' : 'Make its set'}
      </Button>
    </>
  );
}
