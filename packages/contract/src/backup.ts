import { z } from 'zod';

/** Why a backup was made. */
export const backupReason = z.enum(['daily', 'by hand', 'before a restore', 'brought in']);

const count = z.int().min(0);

/** What a backup says of itself: `backup.json` within it. */
export const backupManifest = z.strictObject({
  format: z.literal('fendrix-backup'),
  version: z.literal(1),
  madeAt: z.iso.datetime(),
  reason: backupReason,
  /** Changes to the tables that its database knows: more than this program knows is a newer one. */
  tables: count,
  jobs: count,
  sets: count,
  pictures: count,
  frames: count,
  database: z.strictObject({ bytes: count, sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
});

export type BackupManifest = z.infer<typeof backupManifest>;

/** A backup that lies in the folder of backups. */
export interface Backup extends Pick<BackupManifest, 'madeAt' | 'reason' | 'jobs' | 'sets' | 'pictures'> {
  name: string;
  bytes: number;
}

export interface BackupList {
  folder: string;
  /** Daily ones that are kept. */
  keep: number;
  backups: Backup[];
  /** Files there that cannot be read as backups. */
  unreadable: { name: string; why: string }[];
  /** The database that was found damaged when this server started, and where it lies now; none otherwise. */
  damaged: { setAside: string } | null;
}

/** What a restore would change, by names. */
export interface BackupLook {
  backup: Backup;
  /** Here, and not in it: they would be gone. */
  lost: string[];
  /** In it, and not here. */
  back: string[];
  /** In both, and not the same: that of the backup would stand. */
  changed: string[];
}

/** File names of backups, as they are given: nothing that leads elsewhere. */
export const backupName = z
  .string()
  .regex(/^[A-Za-z0-9][A-Za-z0-9 .-]{0,80}\.zip$/, 'is no name of a backup.');
