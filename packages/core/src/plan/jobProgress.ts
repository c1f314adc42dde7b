import type { Job } from '@fendrix/contract';

/** Where a job is in the order of work, and the next thing to do. */
export interface JobProgress {
  state: 'brief' | 'products' | 'shots' | 'camera' | 'shooting' | 'delivery' | 'delivered' | 'archived';
  next: string;
}

/** The first thing in the order of work that is not there yet. */
export function jobProgress(job: Job): JobProgress {
  if (job.archived) return { state: 'archived', next: 'Archived' };
  if (job.delivered) return { state: 'delivered', next: 'Send back the products, then put it away' };
  if (job.brief.deliverables.length === 0) {
    return { state: 'brief', next: 'Ask which formats are wanted' };
  }
  if (job.products.length === 0) return { state: 'products', next: 'Add the products' };
  if (job.shots.length === 0) return { state: 'shots', next: 'List the pictures' };
  const unplaced = job.shots.find(({ setId }) => setId === undefined);
  if (unplaced) return { state: 'camera', next: `Place the camera for “${unplaced.name}”` };
  const waiting = job.shots.filter(({ done }) => !done);
  const [first] = waiting;
  if (first) return { state: 'shooting', next: `Shoot “${first.name}” (${waiting.length} to go)` };
  return { state: 'delivery', next: 'Deliver the pictures' };
}
