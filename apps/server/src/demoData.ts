import type { Job, Stored } from '@fendrix/contract';
import { type DemoName, demoJob, demoNames, demoSet } from '@fendrix/demo';
import { eq } from 'drizzle-orm';
import type { Database } from './db/database.js';
import { facts } from './db/schema.js';
import { createJobStore, type JobStore } from './domain/jobs.js';
import { createSetStore, type SetStore } from './domain/sets.js';

const LOADED = 'demo-loaded';

/** Loads the demo job once in the life of a database, so that what was changed or deleted stays so. */
export async function loadDemoOnce(database: Database): Promise<void> {
  const [fact] = await database.query.select().from(facts).where(eq(facts.name, LOADED));
  if (fact) return;
  await createDemoJob(createSetStore(database), createJobStore(database));
  await database.write((query) =>
    query.insert(facts).values({ name: LOADED, value: new Date().toISOString() }),
  );
}

/** Makes the demo job and all demo sets anew. */
export async function createDemoJob(sets: SetStore, jobs: JobStore): Promise<Stored<Job>> {
  const ids = new Map<DemoName, string>();
  // The first of them is opened first: it is stored last.
  for (const name of [...demoNames].reverse()) ids.set(name, (await sets.create(demoSet(name))).id);
  return jobs.create(demoJob((name) => ids.get(name) ?? ''));
}
