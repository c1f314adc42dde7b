import type { Devices } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Typography from '@mui/material/Typography';
import { useDispatch, useSelector } from 'react-redux';
import { Choice } from '../../shared/Choice';
import { chooseFrame, chosenFrame, DeviceDesks, PlateChoice, StandIns } from '../devices';
import { setsApi } from '../sets';
import { useJob } from './state/openJob';

/** Stand-in devices at work on the pictures of a job. */
export const JobDevices = ({ job }: { job: string }) => (
  <StandIns>{(devices) => <OnPicture job={job} devices={devices} />}</StandIns>
);

/** The devices that are on, at work on one picture. */
function OnPicture({ job, devices }: { job: string; devices: Devices }) {
  const { shots } = useJob();
  const ready = shots.filter(({ setId }) => setId !== undefined);
  const chosen = useSelector(chosenFrame(job));
  const dispatch = useDispatch();
  const shot = ready.find(({ id }) => id === chosen?.shot) ?? ready.find(({ done }) => !done) ?? ready[0];
  const stored = setsApi.useReadSetQuery(shot?.setId ?? '', { skip: shot?.setId === undefined });
  const set = stored.currentData?.document;
  if (shot?.setId === undefined)
    return <Typography sx={{ mt: 1 }}>No picture has a set yet: there is nothing to take.</Typography>;
  const frame = chosen?.shot === shot.id ? chosen : { job, shot: shot.id };
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
          set={set}
          plate={frame.plate ?? null}
          onChoose={(plate) =>
            dispatch(chooseFrame({ job, shot: shot.id, ...(plate === null ? {} : { plate }) }))
          }
        />
      </Box>
      <DeviceDesks frame={frame} set={set} devices={devices} />
    </>
  );
}
