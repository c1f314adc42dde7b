import type { Devices, SetDocument, StandInCamera } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import { failureMessage } from '../../shared/api';
import { Choice } from '../../shared/Choice';
import { Section } from '../../shared/Section';
import { devicesApi, liveUrl } from './devicesApi';
import type { WorkedFrame } from './frame';
import { Practice } from './Practice';

const BRACKETS = { one: [0], three: [-1, 0, 1], five: [-2, -1, 0, 1, 2] } as const;
type Bracket = keyof typeof BRACKETS;

/** The stand-in camera: release and bracket, live view, battery, card and cable. */
export function CameraDesk({
  frame,
  set,
  devices: { camera, taking, misfired },
}: {
  frame: WorkedFrame;
  set: SetDocument | undefined;
  devices: Devices;
}) {
  const [bracket, setBracket] = useState<Bracket>('one');
  const [waits, setWaits] = useState(true);
  const [isLive, setIsLive] = useState(false);
  const [setCamera] = devicesApi.useSetCameraMutation();
  const [take, taken] = devicesApi.useTakeFramesMutation();
  const change = (next: Partial<StandInCamera>) => void setCamera({ ...camera, ...next });
  return (
    <Section
      title="Camera"
      action={
        <Button size="small" aria-pressed={isLive} onClick={() => setIsLive(!isLive)}>
          {isLive ? 'End the live view' : 'Live view'}
        </Button>
      }
    >
      {isLive && <LiveView key={JSON.stringify(frame)} frame={frame} />}
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
      <Choice
        shown
        label="Releases"
        hint="A flash that is not ready gives less, or nothing"
        value={waits ? 'ready' : 'now'}
        options={[
          { value: 'ready', words: 'when all flashes are ready' },
          { value: 'now', words: 'at once' },
        ]}
        onChoose={(value) => setWaits(value === 'ready')}
      />
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1, alignItems: 'center', my: 1 }}>
        <Button
          variant="contained"
          size="small"
          disabled={taking !== null || taken.isLoading}
          onClick={() => void take({ ...frame, bracketStops: [...BRACKETS[bracket]], waits })}
        >
          Take it
        </Button>
        <TakingWords taking={taking} />
      </Box>
      {misfired.length > 0 && (
        <Alert severity="warning" sx={{ py: 0 }}>
          {misfired.join(' and ')} did not fire in the last frame.
        </Alert>
      )}
      {taken.error && <Alert severity="warning">{failureMessage(taken.error)}</Alert>}
      <Box role="status" sx={{ fontSize: '0.8125rem' }}>
        Battery <span className="number">{Math.round(100 * camera.batteryPart)} %</span>, room for{' '}
        <span className="number">{camera.framesLeft}</span> frames
        {camera.linked ? '' : ', the cable is off'}
      </Box>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 0.5 }}>
        <Button
          size="small"
          color="inherit"
          onClick={() => change({ batteryPart: 1, framesLeft: 500, linked: true })}
        >
          New battery, empty card, cable in
        </Button>
        <Button size="small" color="inherit" onClick={() => change({ batteryPart: 0 })}>
          For practice: battery flat
        </Button>
        <Practice set={set} camera={camera} onChange={change} />
      </Box>
    </Section>
  );
}

/** How far a run of frames is. */
export function TakingWords({ taking }: { taking: Devices['taking'] }) {
  if (!taking) return null;
  return (
    <span role="status">
      {taking.of > 1 ? `Frame ${Math.min(taking.done + 1, taking.of)} of ${taking.of} is` : 'It is'} being
      taken
    </span>
  );
}

/** The next one is asked for when one is there; so that a slow machine is not asked for ever more. */
const BETWEEN_MS = 400;

function LiveView({ frame }: { frame: WorkedFrame }) {
  const url = liveUrl(frame);
  const [shown, setShown] = useState<string | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    const stop = new AbortController();
    let shownUrl: string | null = null;
    const look = async () => {
      while (!stop.signal.aborted) {
        const answer = await fetch(url, { signal: stop.signal }).catch(() => null);
        if (stop.signal.aborted) return;
        setFailed(!answer?.ok);
        if (answer?.ok) {
          const next = URL.createObjectURL(await answer.blob());
          if (shownUrl) URL.revokeObjectURL(shownUrl);
          shownUrl = next;
          setShown(next);
        }
        await new Promise((resolve) => setTimeout(resolve, answer?.ok ? BETWEEN_MS : 5 * BETWEEN_MS));
      }
    };
    void look();
    return () => {
      stop.abort();
      if (shownUrl) URL.revokeObjectURL(shownUrl);
    };
  }, [url]);
  return (
    <Box sx={{ mb: 1, maxWidth: 480 }}>
      {shown ? (
        <Box
          component="img"
          src={shown}
          alt="Live view of what stands"
          sx={{ display: 'block', width: '100%', bgcolor: 'action.hover' }}
        />
      ) : (
        <Box sx={{ py: 4, textAlign: 'center', bgcolor: 'action.hover' }}>
          {failed ? 'There is no live view.' : 'The live view is on its way.'}
        </Box>
      )}
      {failed && <Box role="status">The camera does not answer: see to battery, card and cable.</Box>}
    </Box>
  );
}
