import type { MeshUnit, MeshUp } from '@fendrix/files';
import { messageOf } from '@fendrix/workers';
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';
import Dialog from '@mui/material/Dialog';
import DialogActions from '@mui/material/DialogActions';
import DialogContent from '@mui/material/DialogContent';
import DialogTitle from '@mui/material/DialogTitle';
import LinearProgress from '@mui/material/LinearProgress';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { useSnackbar } from 'notistack';
import { useRef, useState } from 'react';
import { type Imported, importFile } from './importing/importFile';

const UNITS: [MeshUnit, string][] = [
  ['mm', 'millimetres'],
  ['cm', 'centimetres'],
  ['m', 'metres'],
  ['in', 'inches'],
  ['ft', 'feet'],
];

interface ImportDialogProps {
  onTake(imported: Imported): void;
  onClose(): void;
}

/** A body or a measured light from a file; asks what it is measured in where the file does not say. */
export function ImportDialog({ onTake, onClose }: ImportDialogProps) {
  const { enqueueSnackbar } = useSnackbar();
  const [file, setFile] = useState<File | null>(null);
  const [unit, setUnit] = useState<MeshUnit>('mm');
  const [up, setUp] = useState<MeshUp>('z');
  const [failure, setFailure] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const reading = useRef<AbortController | null>(null);
  const asks = file !== null && /\.(obj|stl)$/i.test(file.name);

  async function take() {
    if (!file) return;
    const asked = new AbortController();
    reading.current = asked;
    setBusy(true);
    setFailure(null);
    try {
      const imported = await importFile(file, { unit, up }, asked.signal);
      if (imported.note) enqueueSnackbar(imported.note, { variant: 'info' });
      onTake(imported);
    } catch (error) {
      if (!asked.signal.aborted) setFailure(messageOf(error));
    } finally {
      setBusy(false);
    }
  }

  function cancel() {
    if (busy) reading.current?.abort();
    else onClose();
  }

  return (
    <Dialog open onClose={cancel} aria-labelledby="import-title">
      <DialogTitle id="import-title">From a file</DialogTitle>
      <DialogContent>
        <Stack spacing={2} sx={{ pt: 0.5, maxWidth: 420 }}>
          <Typography variant="body2" sx={{ color: 'text.secondary' }}>
            A body as glTF (.glb, .gltf), OBJ or STL, stood at the centre; or a light by its measured
            intensities (.ies).
          </Typography>
          <Button component="label" variant="outlined">
            {file ? file.name : 'Choose a file'}
            <input
              type="file"
              hidden
              aria-label="File to import"
              accept=".glb,.gltf,.obj,.stl,.ies"
              onChange={(event) => {
                setFile(event.target.files?.[0] ?? null);
                setFailure(null);
              }}
            />
          </Button>
          {asks && (
            <Stack direction="row" spacing={2}>
              <TextField
                select
                size="small"
                label="Measured in"
                value={unit}
                onChange={(event) => setUnit(event.target.value as MeshUnit)}
                sx={{ flex: 1 }}
              >
                {UNITS.map(([value, words]) => (
                  <MenuItem key={value} value={value}>
                    {words}
                  </MenuItem>
                ))}
              </TextField>
              <TextField
                select
                size="small"
                label="Up is"
                value={up}
                onChange={(event) => setUp(event.target.value as MeshUp)}
                sx={{ flex: 1 }}
              >
                <MenuItem value="z">z</MenuItem>
                <MenuItem value="y">y</MenuItem>
              </TextField>
            </Stack>
          )}
          {busy && <LinearProgress aria-label="The file is being read" />}
          {failure && <Alert severity="warning">{failure}</Alert>}
        </Stack>
      </DialogContent>
      <DialogActions>
        <Button onClick={cancel}>{busy ? 'Stop' : 'Cancel'}</Button>
        <Button variant="contained" disabled={!file || busy} onClick={() => void take()}>
          {busy ? 'Reading' : 'Put on the set'}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
