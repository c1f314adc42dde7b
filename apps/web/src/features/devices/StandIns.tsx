import type { Devices } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import type { ReactNode } from 'react';
import { failureMessage } from '../../shared/api';
import { devicesApi } from './devicesApi';

/** Stand-ins for outside devices: for learning, and for trying a day out without them. */
export function StandIns({ children }: { children(devices: Devices): ReactNode }) {
  const { data, error } = devicesApi.useReadDevicesQuery();
  const [setCamera] = devicesApi.useSetCameraMutation();
  const [setTrigger] = devicesApi.useSetTriggerMutation();
  const [setTurntable] = devicesApi.useSetTurntableMutation();
  const [setRail] = devicesApi.useSetRailMutation();
  if (error) return <Alert severity="warning">{failureMessage(error)}</Alert>;
  if (!data) return null;
  const { camera, trigger, turntable, rail } = data;
  const switches = [
    { name: 'camera and meter', on: camera.on, flip: (on: boolean) => setCamera({ ...camera, on }) },
    { name: 'flash trigger', on: trigger.on, flip: (on: boolean) => setTrigger({ ...trigger, on }) },
    { name: 'turntable', on: turntable.on, flip: (on: boolean) => setTurntable({ ...turntable, on }) },
    { name: 'focus rail', on: rail.on, flip: (on: boolean) => setRail({ ...rail, on }) },
  ];
  const isOn = switches.some(({ on }) => on);
  return (
    <Box component="details" sx={{ mb: 2, '@media print': { display: 'none' } }} open={isOn}>
      <Box component="summary" sx={{ cursor: 'pointer', fontSize: '0.875rem' }}>
        Stand-in devices {isOn ? '' : '(off)'}
      </Box>
      <Typography sx={{ color: 'text.secondary', fontSize: '0.8125rem', maxWidth: 640, my: 0.5 }}>
        They work on the set as somebody built it: everything a little off its plan. For trying a day out
        without devices; frames come by the watched folder as those of any other camera.
      </Typography>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', columnGap: 2 }}>
        {switches.map(({ name, on, flip }) => (
          <FormControlLabel
            key={name}
            control={<Switch size="small" checked={on} onChange={(_, next) => void flip(next)} />}
            label={name}
          />
        ))}
      </Box>
      {isOn && children(data)}
    </Box>
  );
}
