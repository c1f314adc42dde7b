import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogContentText from '@mui/material/DialogContentText';
import DialogTitle from '@mui/material/DialogTitle';
import { memo } from 'react';
import { settleConflict } from '../state/autosave';
import { useBench, useBenchDispatch } from '../state/hooks';

/** Asks which of two versions to go on with when the set was changed elsewhere. */
export const ConflictDialog = memo(function ConflictDialog() {
  const newer = useBench((bench) => bench.newer);
  const dispatch = useBenchDispatch();
  return (
    <Dialog open={newer !== null} aria-labelledby="conflict-title">
      <DialogTitle id="conflict-title">This set was changed elsewhere</DialogTitle>
      <DialogContent>
        <DialogContentText>
          Another window saved “{newer?.name}” in the meantime. Going on with yours saves it over that one; it
          stays within reach of undo here until you close the page.
        </DialogContentText>
      </DialogContent>
      <DialogActions>
        <Button onClick={() => dispatch(settleConflict('newer'))}>Take the newer one</Button>
        <Button variant="contained" onClick={() => dispatch(settleConflict('mine'))}>
          Go on with mine
        </Button>
      </DialogActions>
    </Dialog>
  );
});
