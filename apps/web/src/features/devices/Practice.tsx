import type { SetDocument, StandInCamera } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';

/** A wrong power is between these, stops: less is what dials let it be. */
const [LEAST_WRONG, MOST_WRONG] = [0.6, 1.2];

/** Sets one power wrong without saying which, to be found by the frame. */
export function Practice({
  set,
  camera,
  onChange,
}: {
  set: SetDocument | undefined;
  camera: StandInCamera;
  onChange(next: Partial<StandInCamera>): void;
}) {
  const { powerStops } = camera;
  const [isTold, setIsTold] = useState(false);
  const lights = set?.lights.filter(({ on }) => on) ?? [];
  const wrong = Object.entries(powerStops);
  const hide = () => {
    const light = lights[Math.floor(Math.random() * lights.length)];
    if (!light) return;
    const off = LEAST_WRONG + Math.random() * (MOST_WRONG - LEAST_WRONG);
    setIsTold(false);
    onChange({ powerStops: { [light.tag]: Number((Math.random() < 0.5 ? -off : off).toFixed(1)) } });
  };
  return wrong.length === 0 ? (
    <>
      <Pieces camera={camera} onChange={onChange} />
      <Button size="small" color="inherit" disabled={lights.length === 0} onClick={hide}>
        For practice: set a power wrong, unseen
      </Button>
    </>
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

/** Whether lights, camera and lens are as by their figures, or pieces of their own that a calibration finds. */
function Pieces({
  camera: { piecesSeed },
  onChange,
}: {
  camera: StandInCamera;
  onChange(next: Partial<StandInCamera>): void;
}) {
  if (piecesSeed === 0)
    return (
      <Button
        size="small"
        color="inherit"
        onClick={() => onChange({ piecesSeed: 1 + Math.floor(Math.random() * 1e6) })}
      >
        For practice: lamps and camera off their figures
      </Button>
    );
  return (
    <Box sx={{ fontSize: '0.8125rem' }}>
      <span role="status">
        Lamps, camera and lens are off their figures: a calibration (Kit) finds by what.
      </span>
      <Button size="small" color="inherit" onClick={() => onChange({ piecesSeed: 0 })}>
        As by their figures
      </Button>
    </Box>
  );
}
