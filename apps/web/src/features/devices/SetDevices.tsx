import type { SetDocument } from '@fendrix/contract';
import Box from '@mui/material/Box';
import { useState } from 'react';
import { DeviceDesks } from './DeviceDesks';
import { PlateChoice } from './PlateChoice';
import { StandIns } from './StandIns';

/** Devices at work on a set by itself. @param id of it  @param set as it stands */
export function SetDevices({ id, set }: { id: string; set: SetDocument }) {
  const [plate, setPlate] = useState<string | null>(null);
  return (
    <StandIns>
      {(devices) => (
        <>
          <Box sx={{ my: 1 }}>
            <PlateChoice label="Frame of" set={set} plate={plate} onChoose={setPlate} />
          </Box>
          <DeviceDesks
            narrow
            frame={{ set: id, ...(plate === null ? {} : { plate }) }}
            set={set}
            devices={devices}
          />
        </>
      )}
    </StandIns>
  );
}
