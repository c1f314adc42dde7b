import type { StandInCamera } from '@fendrix/contract';
import { formatStops } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { useState } from 'react';
import { failureMessage } from '../../../shared/api';
import { Choice } from '../../../shared/Choice';
import { setsApi } from '../../sets';
import { useJob } from '../state/openJob';
import { framesApi } from './framesApi';
import { PlateChoice } from './PlateChoice';

const BRACKETS = { one: [0], three: [-1, 0, 1], five: [-2, -1, 0, 1, 2] } as const;
type Bracket = keyof typeof BRACKETS;

/** The stand-in camera: for learning and for trying a day out, without a camera. */
export function StandIn({ job }: { job: string }) {
  const { data } = framesApi.useReadDevicesQuery();
  const [setCamera] = framesApi.useSetCameraMutation();
  if (!data) return null;
  const { camera } = data;
  const change = (next: Partial<StandInCamera>) => void setCamera({ ...camera, ...next });
  return (
    <Box component="details" sx={{ mb: 2 }} open={camera.on}>
      <Box component="summary" sx={{ cursor: 'pointer', fontSize: '0.875rem' }}>
        Stand-in camera {camera.on ? '' : '(off)'}
      </Box>
      <Typography sx={{ color: 'text.secondary', fontSize: '0.8125rem', maxWidth: 640, my: 0.5 }}>
        Takes a picture of the set as somebody built it: everything a little off its plan. For trying a day
        out without a camera; its frames come by the watched folder as those of any other.
      </Typography>
      <Button size="small" variant="outlined" onClick={() => change({ on: !camera.on })}>
        {camera.on ? 'Switch it off' : 'Switch it on'}
      </Button>
      {camera.on && <Release job={job} camera={camera} onChange={change} />}
    </Box>
  );
}

function Release({
  job,
  camera,
  onChange,
}: {
  job: string;
  camera: StandInCamera;
  onChange(next: Partial<StandInCamera>): void;
}) {
  const { shots } = useJob();
  const ready = shots.filter(({ setId }) => setId !== undefined);
  const [chosen, setChosen] = useState('');
  const [bracket, setBracket] = useState<Bracket>('one');
  const [take, taking] = framesApi.useTakeFramesMutation();
  const [plate, setPlate] = useState<string | null>(null);
  const shot = ready.find(({ id }) => id === chosen) ?? ready.find(({ done }) => !done) ?? ready[0];
  if (!shot) return <Typography sx={{ mt: 1 }}>No picture has a set yet.</Typography>;
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, alignItems: 'center', mt: 1 }}>
      <Choice
        shown
        label="Picture"
        value={shot.id}
        options={ready.map(({ id, name }) => ({ value: id, words: name }))}
        onChoose={(id) => {
          setChosen(id);
          setPlate(null);
        }}
      />
      {shot.setId !== undefined && (
        <PlateChoice label="Frame of" setId={shot.setId} plate={plate} onChoose={setPlate} />
      )}
      <Choice<Bracket>
        shown
        label="Frames"
        value={bracket}
        options={[
          { value: 'one', words: 'one' },
          { value: 'three', words: 'three, a stop apart' },
          { value: 'five', words: 'five, a stop apart' },
        ]}
        onChoose={setBracket}
      />
      <Button
        variant="contained"
        size="small"
        disabled={taking.isLoading}
        onClick={() =>
          void take({
            job,
            shot: shot.id,
            ...(plate === null ? {} : { plate }),
            bracketStops: [...BRACKETS[bracket]],
          })
        }
      >
        {taking.isLoading ? 'The camera is taking it' : 'Take it'}
      </Button>
      <span role="status">
        Battery <span className="number">{Math.round(100 * camera.batteryPart)} %</span>, room for{' '}
        <span className="number">{camera.framesLeft}</span> frames
        {camera.linked ? '' : ', the cable is off'}
      </span>
      <Button
        size="small"
        color="inherit"
        onClick={() => onChange({ batteryPart: 1, framesLeft: 500, linked: true })}
      >
        New battery, empty card, cable in
      </Button>
      {shot.setId !== undefined && <Practice setId={shot.setId} camera={camera} onChange={onChange} />}
      {shot.setId !== undefined && <Meter key={shot.id} job={job} shot={shot.id} setId={shot.setId} />}
      {taking.error && <Alert severity="warning">{failureMessage(taking.error)}</Alert>}
    </Box>
  );
}

/** A wrong power is between these, stops: less is what dials let it be. */
const [LEAST_WRONG, MOST_WRONG] = [0.6, 1.2];

/** Sets one power wrong without saying which, to be found by the frame. */
function Practice({
  setId,
  camera: { powerStops },
  onChange,
}: {
  setId: string;
  camera: StandInCamera;
  onChange(next: Partial<StandInCamera>): void;
}) {
  const { data } = setsApi.useReadSetQuery(setId);
  const [isTold, setIsTold] = useState(false);
  const lights = data?.document.lights.filter(({ on }) => on) ?? [];
  const wrong = Object.entries(powerStops);
  const hide = () => {
    const light = lights[Math.floor(Math.random() * lights.length)];
    if (!light) return;
    const off = LEAST_WRONG + Math.random() * (MOST_WRONG - LEAST_WRONG);
    setIsTold(false);
    onChange({ powerStops: { [light.tag]: Number((Math.random() < 0.5 ? -off : off).toFixed(1)) } });
  };
  return wrong.length === 0 ? (
    <Button size="small" color="inherit" disabled={lights.length === 0} onClick={hide}>
      For practice: set a power wrong, unseen
    </Button>
  ) : (
    <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
      {isTold ? (
        <span role="status">
          {wrong
            .map(
              ([tag, stops]) =>
                `Light ${tag} is set ${Math.abs(stops)} stops too ${stops < 0 ? 'low' : 'high'}`,
            )
            .join(', ')}
          .
        </span>
      ) : (
        <span role="status">A power is set wrong: take a frame and find which.</span>
      )}
      <Button size="small" color="inherit" onClick={() => setIsTold(true)}>
        Tell me
      </Button>
      <Button size="small" color="inherit" onClick={() => onChange({ powerStops: {} })}>
        Put it right
      </Button>
    </Box>
  );
}

/** An incident meter, held at a pinned spot of what stands. */
function Meter({ job, shot, setId }: { job: string; shot: string; setId: string }) {
  const { data } = setsApi.useReadSetQuery(setId);
  const [chosen, setChosen] = useState('');
  const [read, { data: reading, isLoading, error }] = framesApi.useReadMeterMutation();
  const spots = data?.document.spots ?? [];
  const spot = spots.find(({ name }) => name === chosen) ?? spots[0];
  if (!spot) return null;
  const words = (stops: number | null) => (stops === null ? 'dark' : formatStops(stops));
  return (
    <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center' }}>
      <Choice
        shown
        label="Meter at"
        value={spot.name}
        options={spots.map(({ name }) => ({ value: name, words: name }))}
        onChoose={setChosen}
      />
      <Button
        size="small"
        variant="outlined"
        disabled={isLoading}
        onClick={() => void read({ job, shot, spot: spot.name })}
      >
        {isLoading ? 'Being read' : 'Read the meter'}
      </Button>
      {reading && !isLoading && (
        <span role="status">
          {reading.spot}: <span className="number">{words(reading.stops)}</span> against the settings, planned{' '}
          <span className="number">{words(reading.plannedStops)}</span>
        </span>
      )}
      {error && !isLoading && <Alert severity="warning">{failureMessage(error)}</Alert>}
    </Box>
  );
}
