import type { KitEntry } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import type { ReactNode } from 'react';
import { FileButton } from '../../shared/FileButton';
import { fileName, saveFile } from '../../shared/saveFile';
import { kitCsv, MOST_CSV_CHARACTERS, readKitCsv } from './kitCsv';
import { useKitChanges } from './useKitChanges';

/** Writes a part of the kit as CSV, and reads such a file into it. */
export function CsvButtons({
  name,
  of,
  children,
}: {
  name: string;
  of(entry: KitEntry): boolean;
  children?: ReactNode;
}) {
  const { kit, change } = useKitChanges();
  const { enqueueSnackbar } = useSnackbar();

  async function read(chosen: File) {
    if (!kit) return;
    if (chosen.size > 2 * MOST_CSV_CHARACTERS) {
      const words = `The file was not read. It is larger than ${MOST_CSV_CHARACTERS / 1e6} MB.`;
      enqueueSnackbar(words, { variant: 'warning' });
      return;
    }
    const result = readKitCsv(kit.entries, await chosen.text());
    if (!result.ok) {
      enqueueSnackbar(`The file was not read. ${result.why}`, { variant: 'warning' });
      return;
    }
    const words = `${result.added} added, ${result.changed} changed.`;
    await change(words, (all) => ({ ...all, entries: result.entries }));
  }

  const download = () => saveFile(kitCsv((kit?.entries ?? []).filter(of)), fileName(name, 'csv'), 'text/csv');

  return (
    <Box sx={{ display: 'flex', gap: 1, mb: 2 }}>
      <Button size="small" onClick={download} disabled={!kit}>
        Export CSV
      </Button>
      <FileButton
        size="small"
        words="Import CSV"
        label={`CSV file of ${name}`}
        accept=".csv,text/csv"
        disabled={!kit}
        onFiles={([chosen]) => chosen && void read(chosen)}
      />
      {children}
    </Box>
  );
}
