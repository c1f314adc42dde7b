import type { z } from 'zod';
import type { Job } from './job.js';
import { checkMaterials } from './materialRules.js';
import { checkProduct } from './productRules.js';
import type { Report } from './report.js';

/** Rules that reach across the fields of a job: names that are taken, rows that are pointed at and missing. */
export function checkJob(job: Job, problems: z.core.$RefinementCtx): void {
  const report: Report = (path, message) => problems.addIssue({ code: 'custom', path, message });
  unique(job.brief.deliverables, ['brief', 'deliverables'], report);
  unique(job.products, ['products'], report);
  unique(job.shots, ['shots'], report);
  job.products.forEach((product, index) => {
    const path = ['products', index, 'body'];
    checkProduct(product.body, path, report);
    checkMaterials(product.body, path, report);
    unique(product.steps, ['products', index, 'steps'], report);
  });
  const products = new Set(job.products.map(({ id }) => id));
  job.series?.products?.forEach((id, at) => {
    if (!products.has(id))
      report(['series', 'products', at], `"${id}" is no product of this job. Choose one there is.`);
  });
  const deliverables = new Set(job.brief.deliverables.map(({ id }) => id));
  job.shots.forEach((shot, index) => {
    shot.products.forEach((id, at) => {
      if (!products.has(id))
        report(['shots', index, 'products', at], `"${id}" is no product of this job. Choose one there is.`);
    });
    shot.deliverables.forEach((id, at) => {
      if (!deliverables.has(id))
        report(
          ['shots', index, 'deliverables', at],
          `"${id}" is no format of the brief. Choose one there is.`,
        );
    });
  });
}

function unique(rows: readonly { id: string }[], path: PropertyKey[], report: Report): void {
  const known = new Set<string>();
  rows.forEach(({ id }, index) => {
    if (known.has(id)) report([...path, index, 'id'], `"${id}" is taken by an earlier row.`);
    known.add(id);
  });
}
