import Button from '@mui/material/Button';
import { Link, useParams } from 'react-router';
import { DeskDay } from '../day/dayAtHand';
import { AtTable } from './AtTable';

/** The day at the table on this machine: one step at a time, to be read from two metres and gone on by one press. */
export function SetSideView() {
  const { jobId } = useParams();
  return (
    <DeskDay>
      <AtTable
        foot={
          <Button component={Link} to={`/jobs/${jobId}/day`} size="small" color="inherit">
            Back to the day
          </Button>
        }
      />
    </DeskDay>
  );
}
