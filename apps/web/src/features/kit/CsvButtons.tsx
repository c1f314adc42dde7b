import type { KitEntry } from '@fendrix/contract';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import { useSnackbar } from 'notistack';
import { useRef } from 'react';
import { kitCsv, MOST_CSV_CHARACTERS, readKitCsv } from './kitCsv';
import { useKitChanges } from './useKitChanges';

/** Writes a part of the kit as CSV, and reads such a file into it. */
export function CsvButtons({ name, of }: { name: string; of(entry: KitEntry): boolean }) {
  const { kit, change } = useKitChanges();
  const { enqueueSnackbar } = useSnackbar();
  const file = useRef<HTMLInputElement>(null);

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

  function download() {
    const text = kitCsv((kit?.entries ?? []).filter(of));
    const url = URL.createObjectURL(new Blob([text], { type: 'text/csv' }));
    const link = document.createElement('a');
    link.href = url;
    link.download = `${name}.csv`;
    link.click();
    URL.revokeObjectURL(url);
  }

  return (
    <Box sx={{ display: 'flex', gap: 1, mb: 2 }}>
      <Button size="small" onClick={download} disabled={!kit}>
        Write CSV
      </Button>
      <Button size="small" onClick={() => file.current?.click()} disabled={!kit}>
        Read CSV
      </Button>
      <input
        ref={file}
        type="file"
        accept=".csv,text/csv"
        hidden
        disabled={!kit}
        aria-label={`CSV file of ${name}`}
        onChange={(event) => {
          const [chosen] = event.target.files ?? [];
          if (chosen) void read(chosen);
          event.target.value = '';
        }}
      />
    </Box>
  );
}
