import type { Framing, Job, Shot } from '@fendrix/contract';
import { checkPlace, formatsOf, isUpright } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import FormControlLabel from '@mui/material/FormControlLabel';
import Skeleton from '@mui/material/Skeleton';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { SmallPicture } from '../../../shared/render/SmallPicture';
import { changeRow } from '../../../shared/rows';
import { useEquipment } from '../../kit';
import { ReferenceStrip } from '../brief/ReferenceStrip';
import { useEditJob, useJob } from '../state/openJob';
import { Arrangement } from './Arrangement';
import { CameraChoice } from './CameraChoice';
import { DepthDesk } from './DepthDesk';
import { FrameOverlay } from './FrameOverlay';
import { MakeSet } from './MakeSet';
import { Overhead } from './Overhead';
import { PlaceChecks } from './PlaceChecks';
import { FormatFits, PlaceFigures } from './PlaceFigures';
import { type Staged, stage, useFraming } from './useStaged';

const PICTURE_WIDTH = 420;
const UPRIGHT_WIDTH = 300;

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
  const lights = equipment?.lights;
  const result = useMemo(
    () => (framing ? stage(job, shot, framing, studio, lights) : null),
    [job, shot, framing, studio, lights],
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
  const { body } = placed.camera;
  const width = isUpright(body) ? UPRIGHT_WIDTH : PICTURE_WIDTH;
  const height = Math.round((width * body.sensorHeightM) / body.sensorWidthM);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', gap: 2, mb: 1.5, flexWrap: 'wrap' }}>
        <Button size="small" component={Link} to={`..?of=${shot.id}`} relative="path">
          All pictures
        </Button>
        <Typography variant="h2" sx={{ fontSize: '1.0625rem', flex: 1 }}>
          {shot.name}: lens and position
        </Typography>
        <MakeSet job={job} shot={shot} staged={staged} />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: 'minmax(0, 1fr) 340px' }, gap: 3 }}>
        <Box sx={{ minWidth: 0 }}>
          {/* An upright picture is as high as the window has room for. */}
          <Box sx={{ mx: 'auto', maxWidth: `calc((100vh - 240px) * ${width / height})` }}>
            <SmallPicture
              set={set}
              width={width}
              samples={12}
              label={`${shot.name}, as the camera would see it`}
            >
              <FrameOverlay width={width} height={height} fits={fits} shown={format} lines={lines} />
            </SmallPicture>
          </Box>
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
            {...{ framing, equipment, body }}
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
