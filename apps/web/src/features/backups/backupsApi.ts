import type { Backup, BackupList, BackupLook } from '@fendrix/contract';
import { serverApi } from '../../shared/api';

const at = (name: string, what = '') => `backups/${encodeURIComponent(name)}${what}`;

/** Backups of the whole studio on the server. */
export const backupsApi = serverApi.injectEndpoints({
  endpoints: (build) => ({
    listBackups: build.query<BackupList, void>({ query: () => 'backups', providesTags: ['Backups'] }),
    makeBackup: build.mutation<Backup, void>({
      query: () => ({ url: 'backups', method: 'POST', body: {} }),
      invalidatesTags: ['Backups'],
    }),
    bringBackup: build.mutation<Backup, Blob>({
      query: (file) => ({
        url: 'backups/bring',
        method: 'POST',
        body: file,
        headers: { 'content-type': 'application/zip' },
      }),
      invalidatesTags: ['Backups'],
    }),
    lookIntoBackup: build.query<BackupLook, string>({
      query: (name) => at(name, '/look'),
      keepUnusedDataFor: 0,
    }),
    verifyBackup: build.mutation<Backup, string>({
      query: (name) => ({ url: at(name, '/verify'), method: 'POST', body: {} }),
    }),
    /** All that was read of the studio is read anew afterwards. */
    restoreBackup: build.mutation<Backup, string>({
      query: (name) => ({ url: at(name, '/restore'), method: 'POST', body: {} }),
      invalidatesTags: ['Backups', 'JobList', 'SetList', 'Kit', 'Frames'],
    }),
    removeBackup: build.mutation<void, string>({
      query: (name) => ({ url: at(name), method: 'DELETE' }),
      invalidatesTags: ['Backups'],
    }),
  }),
});

/** Where the file of a backup is read from. */
export const backupUrl = (name: string): string => `/api/${at(name)}`;
