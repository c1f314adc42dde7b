import type { Devices, TakeFrames } from '@fendrix/contract';
import { formatLength, parseLengthM } from '@fendrix/core';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useState } from 'react';
import { failureMessage } from '../../shared/api';
import { Choice } from '../../shared/Choice';
import { QuantityField } from '../../shared/QuantityField';
import { Section } from '../../shared/Section';
import { devicesApi } from './devicesApi';
import type { WorkedFrame } from './frame';

const SPINS = ['8', '12', '24', '36'] as const;
const STEPS = ['3', '5', '9', '15'] as const;
/** Fine enough for most stacks. */
const FIRST_STEP_M = 0.002;

/** The stand-in turntable: a turn by hand, or a spin of frames all round. */
export function TurntableDesk({ frame, devices }: { frame: WorkedFrame; devices: Devices }) {
  const { turntable } = devices;
  const [spin, setSpin] = useState<(typeof SPINS)[number]>('12');
  const [setTurntable] = devicesApi.useSetTurntableMutation();
  const count = Number(spin);
  return (
    <Section title="Turntable">
      <QuantityField
        label="Turned by"
        hint="From where the products are planned to stand, their front towards camera right"
        shown={`${turntable.turnDeg}°`}
        parse={(text) => {
          const deg = Number(
            text
              .replace(/°|deg.*$/i, '')
              .replace('−', '-')
              .trim(),
          );
          return text.trim() !== '' && Math.abs(deg) <= 360 ? deg : null;
        }}
        example="45°"
        onCommit={(turnDeg) => void setTurntable({ ...turntable, turnDeg })}
      />
      <Choice shown label="Frames all round" figures value={spin} options={SPINS} onChoose={setSpin} />
      <Run
        words={`Take ${spin}, ${360 / count}° apart`}
        frame={frame}
        devices={devices}
        run={{ turnsDeg: Array.from({ length: count }, (_, i) => (i * 360) / count) }}
      />
      <LinkLost
        linked={turntable.linked}
        onChange={(linked) => void setTurntable({ ...turntable, linked })}
      />
    </Section>
  );
}

/** The stand-in focus rail: the camera a little forward, or a run of focus steps. */
export function RailDesk({ frame, devices }: { frame: WorkedFrame; devices: Devices }) {
  const { rail } = devices;
  const [stepM, setStepM] = useState(FIRST_STEP_M);
  const [steps, setSteps] = useState<(typeof STEPS)[number]>('5');
  const [setRail] = devicesApi.useSetRailMutation();
  const count = Number(steps);
  return (
    <Section title="Focus rail">
      <QuantityField
        label="Forward by"
        hint="Towards the products; the focus ring stays as it is"
        shown={formatLength(rail.forwardM)}
        parse={(text) => within(parseLengthM(text, 'mm'))}
        example="5 mm"
        onCommit={(forwardM) => void setRail({ ...rail, forwardM })}
      />
      <QuantityField
        label="Step"
        shown={formatLength(stepM)}
        parse={(text) => within(parseLengthM(text, 'mm'))}
        example="2 mm"
        onCommit={setStepM}
      />
      <Choice shown label="Frames" figures value={steps} options={STEPS} onChoose={setSteps} />
      <Run
        words={`Take ${steps}, from ${formatLength(-((count - 1) / 2) * stepM)} on`}
        frame={frame}
        devices={devices}
        run={{ railM: Array.from({ length: count }, (_, i) => (i - (count - 1) / 2) * stepM) }}
      />
      <LinkLost linked={rail.linked} onChange={(linked) => void setRail({ ...rail, linked })} />
    </Section>
  );
}

/** As far as the rail goes, m. */
const MOST_M = 0.3;
const within = (value: number | null): number | null =>
  value !== null && Math.abs(value) <= MOST_M ? value : null;

/** Takes a run of frames, by the camera. */
function Run({
  words,
  frame,
  devices: { camera, taking },
  run,
}: {
  words: string;
  frame: WorkedFrame;
  devices: Devices;
  run: Pick<TakeFrames, 'turnsDeg' | 'railM'>;
}) {
  const [take, taken] = devicesApi.useTakeFramesMutation();
  return (
    <Box sx={{ my: 1 }}>
      <Button
        size="small"
        variant="outlined"
        disabled={!camera.on || taking !== null || taken.isLoading}
        onClick={() => void take({ ...frame, ...run })}
      >
        {words}
      </Button>
      {!camera.on && <Box role="status">Switch the camera on to take them.</Box>}
      {taken.error && <Alert severity="warning">{failureMessage(taken.error)}</Alert>}
    </Box>
  );
}

function LinkLost({ linked, onChange }: { linked: boolean; onChange(linked: boolean): void }) {
  return (
    <Button size="small" color="inherit" onClick={() => onChange(!linked)}>
      {linked ? 'For practice: lose its link' : 'Link it again'}
    </Button>
  );
}
