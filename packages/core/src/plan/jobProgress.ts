import type { Job, JobProgress } from '@fendrix/contract';

/** The first thing in the order of work that is not there yet. */
export function jobProgress(job: Job): JobProgress {
  const at = (state: JobProgress['state']): JobProgress => ({ state, picture: null, waiting: 0 });
  if (job.archived) return at('archived');
  if (job.delivered) return at('delivered');
  if (job.brief.deliverables.length === 0) return at('brief');
  if (job.products.length === 0) return at('products');
  if (job.shots.length === 0) return at('shots');
  const unplaced = job.shots.find(({ setId }) => setId === undefined);
  if (unplaced) return { ...at('camera'), picture: unplaced.name };
  const waiting = job.shots.filter(({ done }) => !done);
  const [first] = waiting;
  if (first) return { state: 'shooting', picture: first.name, waiting: waiting.length };
  return at('delivery');
}
