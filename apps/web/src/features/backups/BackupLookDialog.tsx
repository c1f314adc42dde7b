import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import { failureMessage } from '../../shared/api';
import { backupsApi } from './backupsApi';

/** What putting a backup back would change, before it is done. */
export function BackupLookDialog({
  name,
  onPutBack,
  onClose,
}: {
  name: string;
  onPutBack(): void;
  onClose(): void;
}) {
  const { data, error } = backupsApi.useLookIntoBackupQuery(name, { refetchOnMountOrArgChange: true });
  const same = data && data.lost.length + data.back.length + data.changed.length === 0;
  return (
    <Dialog open onClose={onClose} aria-labelledby="look-title" maxWidth="sm" fullWidth>
      <DialogTitle id="look-title">What would change</DialogTitle>
      <DialogContent>
        {error ? (
          <Alert severity="error">{failureMessage(error)}</Alert>
        ) : !data ? (
          <LinearProgress aria-label="The backup is being looked into" />
        ) : same ? (
          <Box>All jobs and sets are the same as now. The kit is put back with them.</Box>
        ) : (
          <>
            <Names title="Would be gone: they are not in the backup" names={data.lost} />
            <Names title="Would be as they were then" names={data.changed} />
            <Names title="Would come back" names={data.back} />
            <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', mt: 1 }}>
              Kit, room and frames are put back too. The studio as it is now is backed up first: that one can
              be put back the same way.
            </Box>
          </>
        )}
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Leave it</Button>
        <Button variant="contained" disabled={!data} onClick={onPutBack}>
          Put it back
        </Button>
      </DialogActions>
    </Dialog>
  );
}

function Names({ title, names }: { title: string; names: readonly string[] }) {
  if (names.length === 0) return null;
  return (
    <Box sx={{ mb: 1 }}>
      <Box sx={{ fontWeight: 650 }}>{title}</Box>
      <Box component="ul" sx={{ m: 0, pl: 2.5 }}>
        {names.map((name, i) => (
          <li key={`${i} ${name}`}>{name}</li>
        ))}
      </Box>
    </Box>
  );
}
