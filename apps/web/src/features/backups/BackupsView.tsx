import type { Backup } from '@fendrix/contract';
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useSnackbar } from 'notistack';
import { useEffect, useState } from 'react';
import { failureMessage } from '../../shared/api';
import { FileButton } from '../../shared/FileButton';
import { Page } from '../../shared/Page';
import { PlainTable } from '../../shared/PlainTable';
import { Section } from '../../shared/Section';
import { BackupLookDialog } from './BackupLookDialog';
import { backupsApi, backupUrl } from './backupsApi';
import { RemoveDialog } from './RemoveDialog';
import { useBackupActions } from './useBackupActions';

/** The whole studio as files: made by hand and by the day, looked into, put back. */
export function BackupsView() {
  const { data, error } = backupsApi.useListBackupsQuery(undefined, { refetchOnMountOrArgChange: true });
  const [looked, setLooked] = useState<string | null>(null);
  const [leaving, setLeaving] = useState<Backup | null>(null);
  const { busy, make, bring, verify, restore, remove } = useBackupActions();
  const { enqueueSnackbar } = useSnackbar();
  useEffect(() => {
    document.title = 'Backups · Fendrix';
  }, []);

  /** The one before can be put back by the same way. */
  const putBack = (name: string) => {
    setLooked(null);
    restore(name, (before) =>
      enqueueSnackbar('The studio is as it was in that backup.', {
        autoHideDuration: 20_000,
        ...(before
          ? {
              action: (
                <Button color="inherit" onClick={() => restore(before)}>
                  Undo
                </Button>
              ),
            }
          : {}),
      }),
    );
  };
  const newest = data?.backups[0];

  return (
    <Page title="Backups" wide>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button variant="contained" disabled={busy !== null} onClick={make}>
          Make a backup
        </Button>
        <FileButton
          words="Bring a file in"
          label="Backup file to bring in"
          accept=".zip,application/zip"
          disabled={busy !== null}
          onFiles={([file]) => file && bring(file)}
        />
      </Box>
      <Box role="status" sx={{ minHeight: 24 }}>
        {busy !== null && (
          <>
            {busy}
            <LinearProgress aria-label={busy} sx={{ mt: 0.5 }} />
          </>
        )}
      </Box>
      {error && <Alert severity="error">{failureMessage(error)}</Alert>}
      {data?.damaged && (
        <Alert severity="warning" sx={{ mb: 2 }}>
          The database was damaged when this server started. It is set aside as {data.damaged.setAside},
          nothing of it is deleted, and the studio began empty.{' '}
          {newest ? (
            <Button size="small" color="inherit" variant="outlined" onClick={() => setLooked(newest.name)}>
              Look into the newest backup
            </Button>
          ) : (
            'There is no backup here: bring one in if you have it elsewhere.'
          )}
        </Alert>
      )}
      {data && (
        <Section title="What there is">
          {data.backups.length === 0 ? (
            <Box sx={{ color: 'text.secondary', maxWidth: 640 }}>
              No backup yet. One holds all jobs, sets, kit and pictures in one file. {dailyWords(data.keep)}{' '}
              Save a copy on another disk now and then: what lies on this one is gone with it.
            </Box>
          ) : (
            <PlainTable name="backups">
              <thead>
                <tr>
                  {['Made', 'Why', 'Holds', 'Size', ''].map((head) => (
                    <th key={head} scope="col">
                      {head}
                    </th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {data.backups.map((backup) => (
                  <tr key={backup.name}>
                    <th scope="row" className="number">
                      {madeWords(backup.madeAt)}
                    </th>
                    <td>{REASON_WORDS[backup.reason]}</td>
                    <td>{holdsWords(backup)}</td>
                    <td className="number">{sizeWords(backup.bytes)}</td>
                    <td style={{ textAlign: 'right', whiteSpace: 'nowrap' }}>
                      <Button
                        size="small"
                        disabled={busy !== null}
                        aria-label={`Look into that of ${madeWords(backup.madeAt)}`}
                        onClick={() => setLooked(backup.name)}
                      >
                        Look and put back
                      </Button>
                      <Button
                        size="small"
                        disabled={busy !== null}
                        aria-label={`Check that of ${madeWords(backup.madeAt)}`}
                        onClick={() =>
                          verify(backup.name, () =>
                            enqueueSnackbar('All of it was read and is as it was written.'),
                          )
                        }
                      >
                        Check
                      </Button>
                      <Button
                        size="small"
                        component="a"
                        href={backupUrl(backup.name)}
                        download
                        aria-label={`Save that of ${madeWords(backup.madeAt)}`}
                      >
                        Save
                      </Button>
                      <Button
                        size="small"
                        disabled={busy !== null}
                        aria-label={`Remove that of ${madeWords(backup.madeAt)}`}
                        onClick={() => setLeaving(backup)}
                      >
                        Remove
                      </Button>
                    </td>
                  </tr>
                ))}
              </tbody>
            </PlainTable>
          )}
          {data.unreadable.map(({ name, why }) => (
            <Alert key={name} severity="warning" sx={{ mt: 1 }}>
              {name}: {why}
            </Alert>
          ))}
          <Box sx={{ color: 'text.secondary', fontSize: '0.8125rem', mt: 1.5, maxWidth: 720 }}>
            {data.backups.length > 0 && dailyWords(data.keep)} They lie in {data.folder}. The files of your
            camera are not in them: copy those as you copy your other pictures.
          </Box>
        </Section>
      )}
      {looked !== null && (
        <BackupLookDialog name={looked} onPutBack={() => putBack(looked)} onClose={() => setLooked(null)} />
      )}
      {leaving && (
        <RemoveDialog
          made={madeWords(leaving.madeAt)}
          onRemove={() => {
            setLeaving(null);
            remove(leaving.name);
          }}
          onClose={() => setLeaving(null)}
        />
      )}
    </Page>
  );
}

const REASON_WORDS: Readonly<Record<Backup['reason'], string>> = {
  daily: 'daily',
  'by hand': 'by hand',
  'before a restore': 'before one was put back',
  'brought in': 'brought in',
};

const dailyWords = (keep: number): string =>
  keep === 0
    ? 'None is made by itself: that is switched off on this server.'
    : `One is made by itself each day while Fendrix runs, and the last ${keep} of those are kept.`;

const madeWords = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', { dateStyle: 'medium', timeStyle: 'short' });

const many = (count: number, one: string): string => `${count} ${one}${count === 1 ? '' : 's'}`;
const holdsWords = ({ jobs, sets, pictures }: Backup): string =>
  [many(jobs, 'job'), many(sets, 'set'), many(pictures, 'picture')].join(', ');

const sizeWords = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.max(1, Math.round(bytes / 1e3))} kB`
    : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`;
