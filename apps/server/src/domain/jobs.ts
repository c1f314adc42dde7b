import { type Job, type JobList, jobDocument } from '@fendrix/contract';
import { jobProgress } from '@fendrix/core';
import { and, count, desc, eq, like, or, sql } from 'drizzle-orm';
import type { Database } from '../db/database.js';
import { jobs } from '../db/schema.js';
import { anywhere, createDocumentStore, type DocumentStore } from './documents.js';
import type { ListOptions } from './sets.js';

/** Stored jobs, the next one due first. */
export interface JobStore extends DocumentStore<Job> {
  list(options: ListOptions & { archived: 'yes' | 'no' }): Promise<JobList>;
}

/** What lists show of a job. */
export const jobColumns = (job: Job) => ({
  client: job.client,
  ...jobProgress(job),
  dueOn: job.dueOn ?? null,
  archived: job.archived,
  shots: job.shots.length,
});

export function createJobStore(database: Database): JobStore {
  return {
    ...createDocumentStore(database, { table: jobs, schema: jobDocument, noun: 'job', columns: jobColumns }),
    async list({ search, limit, offset, archived }) {
      const words =
        search === ''
          ? undefined
          : or(like(jobs.name, anywhere(search)), like(jobs.client, anywhere(search)));
      const matches = and(eq(jobs.archived, archived === 'yes'), words);
      const shown = {
        id: jobs.id,
        name: jobs.name,
        client: jobs.client,
        revision: jobs.revision,
        state: jobs.state,
        picture: jobs.picture,
        waiting: jobs.waiting,
        dueOn: jobs.dueOn,
        archived: jobs.archived,
        shots: jobs.shots,
        updatedAt: jobs.updatedAt,
      };
      const rows = await database.query
        .select(shown)
        .from(jobs)
        .where(matches)
        .orderBy(sql`${jobs.dueOn} is null`, jobs.dueOn, desc(jobs.updatedAt), jobs.id)
        .limit(limit)
        .offset(offset);
      const [total] = await database.query.select({ value: count() }).from(jobs).where(matches);
      return { jobs: rows, total: total?.value ?? 0 };
    },
  };
}
