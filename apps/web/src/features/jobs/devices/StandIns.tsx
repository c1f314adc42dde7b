import type { Devices } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import Switch from '@mui/material/Switch';
import Typography from '@mui/material/Typography';
import { useDispatch, useSelector } from 'react-redux';
import { failureMessage } from '../../../shared/api';
import { Choice } from '../../../shared/Choice';
import { useJob } from '../state/openJob';
import { CameraDesk } from './CameraDesk';
import { devicesApi } from './devicesApi';
import { chooseFrame, chosenFrame } from './frame';
import { MeterDesk } from './MeterDesk';
import { RailDesk, TurntableDesk } from './MoverDesks';
import { PlateChoice } from './PlateChoice';
import { TriggerDesk } from './TriggerDesk';

/** Stand-ins for outside devices: for learning, and for trying a day out without them. */
export function StandIns({ job }: { job: string }) {
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
      {isOn && <OnPicture job={job} devices={data} />}
    </Box>
  );
}

/** The devices that are on, at work on one picture. */
function OnPicture({ job, devices }: { job: string; devices: Devices }) {
  const { shots } = useJob();
  const ready = shots.filter(({ setId }) => setId !== undefined);
  const chosen = useSelector(chosenFrame(job));
  const dispatch = useDispatch();
  const shot = ready.find(({ id }) => id === chosen?.shot) ?? ready.find(({ done }) => !done) ?? ready[0];
  if (shot?.setId === undefined)
    return <Typography sx={{ mt: 1 }}>No picture has a set yet: there is nothing to take.</Typography>;
  const frame = chosen?.shot === shot.id ? chosen : { job, shot: shot.id };
  const { setId } = shot;
  return (
    <>
      <Box sx={{ display: 'flex', flexWrap: 'wrap', gap: 1.5, my: 1 }}>
        <Choice
          shown
          label="Picture"
          value={shot.id}
          options={ready.map(({ id, name }) => ({ value: id, words: name }))}
          onChoose={(id) => dispatch(chooseFrame({ job, shot: id }))}
        />
        <PlateChoice
          label="Frame of"
          setId={setId}
          plate={frame.plate ?? null}
          onChoose={(plate) =>
            dispatch(chooseFrame({ job, shot: shot.id, ...(plate === null ? {} : { plate }) }))
          }
        />
      </Box>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: '1fr', md: 'repeat(2, minmax(0, 1fr))' },
          columnGap: 4,
        }}
      >
        {devices.camera.on && <CameraDesk frame={frame} setId={setId} devices={devices} />}
        {devices.trigger.on && <TriggerDesk frame={frame} setId={setId} devices={devices} />}
        {devices.camera.on && <MeterDesk key={shot.id} frame={frame} setId={setId} />}
        {devices.turntable.on && <TurntableDesk frame={frame} devices={devices} />}
        {devices.rail.on && <RailDesk frame={frame} devices={devices} />}
      </Box>
    </>
  );
}
