import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';

/** A backup that is removed is gone: it is asked once more. */
export function RemoveDialog({
  made,
  onRemove,
  onClose,
}: {
  made: string;
  onRemove(): void;
  onClose(): void;
}) {
  return (
    <Dialog open onClose={onClose} aria-labelledby="remove-title">
      <DialogTitle id="remove-title">Remove the backup of {made}?</DialogTitle>
      <DialogContent>
        It cannot be brought back from here. Save it elsewhere first if you are not sure.
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Keep it</Button>
        <Button color="error" onClick={onRemove}>
          Remove it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
