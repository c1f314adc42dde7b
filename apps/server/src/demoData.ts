import { type DemoName, demoJob, demoNames, demoSet } from '@fendrix/demo';
import { eq } from 'drizzle-orm';
import type { Database } from './db/database.js';
import { facts } from './db/schema.js';
import { createJobStore } from './domain/jobs.js';
import { createSetStore } from './domain/sets.js';

const LOADED = 'demo-loaded';

/** Loads the demo sets and their job once in the life of a database, so that what was changed or deleted stays so. */
export async function loadDemoOnce(database: Database): Promise<void> {
  const [fact] = await database.query.select().from(facts).where(eq(facts.name, LOADED));
  if (fact) return;
  const store = createSetStore(database);
  // The first of them is opened first: it is stored last.
  const ids = new Map<DemoName, string>();
  for (const name of [...demoNames].reverse()) ids.set(name, (await store.create(demoSet(name))).id);
  await createJobStore(database).create(demoJob((name) => ids.get(name) ?? ''));
  await database.write((query) =>
    query.insert(facts).values({ name: LOADED, value: new Date().toISOString() }),
  );
}
