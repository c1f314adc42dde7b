import type { Readable } from 'node:stream';
import { type Job, jobListQuery, type Stored } from '@fendrix/contract';
import Router from '@koa/router';
import type { JobStore } from '../domain/jobs.js';
import { addDocumentRoutes } from './documentRoutes.js';
import { documentId, requireValid } from './requireValid.js';

interface Whole {
  /** Makes the demo job with its sets once more. */
  demo(): Promise<Stored<Job>>;

  pack(id: string): Promise<{ name: string; bytes: Readable }>;
  unpack(archive: Readable, signal: AbortSignal): Promise<Stored<Job>>;
}

/** Routes of jobs: list, read, create, save, delete, export and import as one archive, the demo job. */
export function jobRoutes(store: JobStore, whole: Whole): Router {
  const router = new Router({ prefix: '/api/jobs' });

  router.get('/', async (ctx) => {
    ctx.body = await store.list(requireValid(jobListQuery, { ...ctx.query }, 'query'));
  });
  router.post('/import', async (ctx) => {
    const gone = new AbortController();
    ctx.req.once('aborted', () => gone.abort(new Error('who sent the archive is gone')));
    ctx.body = await whole.unpack(ctx.req, gone.signal);
    ctx.status = 201;
  });
  router.post('/demo', async (ctx) => {
    ctx.body = await whole.demo();
    ctx.status = 201;
  });
  router.get('/:id/export', async (ctx) => {
    const { name, bytes } = await whole.pack(documentId(ctx.params.id));
    ctx.attachment(name);
    ctx.type = 'application/zip';
    ctx.body = bytes;
  });
  addDocumentRoutes(router, store);
  return router;
}
