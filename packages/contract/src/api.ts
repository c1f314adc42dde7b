import { z } from 'zod';
import type { Job } from './job.js';
import type { Problem } from './problems.js';
import type { SetDocument } from './set.js';

export const listQuery = z.strictObject({
  search: z.string().max(80).default(''),
  limit: z.coerce.number().int().min(1).max(100).default(20),
  offset: z.coerce.number().int().min(0).max(1_000_000).default(0),
});

/** Body of a create; the document is checked on its own for its field paths. */
export const createBody = z.strictObject({ document: z.unknown() });

/** Body of a save: the revision it was made from, and the whole new document. */
export const saveBody = z.strictObject({ revision: z.int().min(1), document: z.unknown() });

/** Body of a save of the kit; revision 0 is the kit a studio starts with. */
export const saveKitBody = z.strictObject({ revision: z.int().min(0), document: z.unknown() });

export const jobListQuery = z.strictObject({
  ...listQuery.shape,
  archived: z.enum(['yes', 'no']).default('no'),
});

/** Where a job is in the order of work, and what that is about. */
export interface JobProgress {
  state: 'brief' | 'products' | 'shots' | 'camera' | 'shooting' | 'delivery' | 'delivered' | 'archived';
  /** The picture whose camera is to be placed, or that is shot next. */
  picture: string | null;
  /** Pictures still to be shot, while shooting. */
  waiting: number;
}

export interface JobSummary extends JobProgress {
  id: string;
  name: string;
  client: string;
  revision: number;
  /** YYYY-MM-DD, or null without one. */
  dueOn: string | null;
  archived: boolean;
  shots: number;
  /** ISO 8601, UTC. */
  updatedAt: string;
}

export interface JobList {
  jobs: JobSummary[];
  total: number;
}

/** A picture kept by its content. */
export interface StoredPicture {
  sha256: string;
  mediaType: 'image/jpeg' | 'image/png' | 'image/webp';
  widthPx: number;
  heightPx: number;
  bytes: number;
}

/** What the server says of a document that it keeps. */
export interface Saved {
  id: string;
  name: string;
  revision: number;
  /** ISO 8601, UTC. */
  updatedAt: string;
}

/** The paper that a set sheet is laid out for. */
export const setSheetQuery = z.strictObject({ paper: z.enum(['A4', 'Letter']).default('A4') });

/** A document with what the server adds to it. */
export interface Stored<D> extends Saved {
  document: D;
}

export type StoredSet = Stored<SetDocument>;
export type StoredJob = Stored<Job>;

export interface SetList {
  sets: Saved[];
  total: number;
}

/** Every answer that is not a success. */
export interface ApiError {
  error: {
    code:
      | 'bad-input'
      | 'not-found'
      | 'conflict'
      | 'too-large'
      | 'forbidden'
      | 'not-paired'
      | 'too-many'
      | 'not-allowed'
      | 'unsupported'
      | 'unreadable'
      | 'storage'
      | 'unavailable'
      | 'internal';
    /** A sentence a photographer understands. */
    message: string;
    /** What to do about it. */
    hint?: string;
    problems?: Problem[];
    /** With `conflict`: the newer stored document. */
    newer?: Stored<unknown>;
  };
}
