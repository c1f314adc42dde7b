import { useState } from 'react';
import { useAttempt } from '../../shared/useAttempt';
import { backupsApi } from './backupsApi';

/** What can be done with backups, one thing at a time; what is under way is said in words. */
export function useBackupActions() {
  const attempt = useAttempt();
  const [busy, setBusy] = useState<string | null>(null);
  const [make] = backupsApi.useMakeBackupMutation();
  const [bring] = backupsApi.useBringBackupMutation();
  const [verify] = backupsApi.useVerifyBackupMutation();
  const [restore] = backupsApi.useRestoreBackupMutation();
  const [remove] = backupsApi.useRemoveBackupMutation();
  const [list] = backupsApi.useLazyListBackupsQuery();

  const during = (words: string, work: () => Promise<void>) =>
    attempt(async () => {
      setBusy(words);
      try {
        await work();
      } finally {
        setBusy(null);
      }
    });

  return {
    busy,
    make: () =>
      during('The studio is being backed up.', async () => {
        await make().unwrap();
      }),
    bring: (file: File) =>
      during('The backup is being read and checked.', async () => {
        await bring(file).unwrap();
      }),
    verify: (name: string, onSound: () => void) =>
      during('All of the backup is being read.', async () => {
        await verify(name).unwrap();
        onSound();
      }),
    /** @param onDone told the backup of what stood there before */
    restore: (name: string, onDone?: (before: string | undefined) => void) =>
      during('The backup is being put back.', async () => {
        await restore(name).unwrap();
        const { backups } = await list().unwrap();
        onDone?.(backups.find(({ reason }) => reason === 'before a restore')?.name);
      }),
    remove: (name: string) =>
      during('The backup is being removed.', async () => {
        await remove(name).unwrap();
      }),
  };
}
