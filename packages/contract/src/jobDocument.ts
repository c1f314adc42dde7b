import { jobShape } from './job.js';
import { checkJob } from './jobRules.js';

/** A job: what the client wants, the products, and the pictures to take. Sets are documents of their own. */
export const jobDocument = jobShape.superRefine(checkJob).meta({ title: 'Fendrix job document' });
