import type { Devices, SetDocument } from '@fendrix/contract';
import Box from '@mui/material/Box';
import { CameraDesk } from './CameraDesk';
import type { WorkedFrame } from './frame';
import { MeterDesk } from './MeterDesk';
import { RailDesk, TurntableDesk } from './MoverDesks';
import { TriggerDesk } from './TriggerDesk';

/** The devices that are on, at work on one frame. @param narrow one below the other */
export function DeviceDesks({
  frame,
  set,
  devices,
  narrow = false,
}: {
  frame: WorkedFrame;
  /** What stands by its plan; undefined while it is read. */
  set: SetDocument | undefined;
  devices: Devices;
  narrow?: boolean;
}) {
  return (
    <Box
      sx={{
        display: 'grid',
        gridTemplateColumns: narrow ? '1fr' : { xs: '1fr', md: 'repeat(2, minmax(0, 1fr))' },
        columnGap: 4,
      }}
    >
      {devices.camera.on && <CameraDesk frame={frame} set={set} devices={devices} />}
      {devices.trigger.on && <TriggerDesk frame={frame} set={set} devices={devices} />}
      {devices.camera.on && (
        <MeterDesk key={'shot' in frame ? frame.shot : frame.set} frame={frame} set={set} />
      )}
      {devices.turntable.on && <TurntableDesk frame={frame} devices={devices} />}
      {devices.rail.on && <RailDesk frame={frame} devices={devices} />}
    </Box>
  );
}
