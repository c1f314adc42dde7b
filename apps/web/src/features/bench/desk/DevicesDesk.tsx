import Box from '@mui/material/Box';
import { useParams } from 'react-router';
import { SetDevices } from '../../devices';
import { useSet } from '../state/hooks';

/** Devices at work on this set: fire, bracket, focus steps, spin, powers, the meter at a spot. */
export default function DevicesDesk() {
  const { id = '' } = useParams();
  const set = useSet();
  return (
    <>
      <SetDevices id={id} set={set} />
      <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem' }}>
        Frames come by the watched folder to the job that frames come to, by their time and exposure. They are
        of the set as it was last saved.
      </Box>
    </>
  );
}
