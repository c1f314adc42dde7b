import { type Job, jobListQuery, type Stored } from '@fendrix/contract';
import Router from '@koa/router';
import rawBody from 'raw-body';
import { MOST_ARCHIVE_BYTES } from '../domain/jobArchive.js';
import type { JobStore } from '../domain/jobs.js';
import { addDocumentRoutes } from './documentRoutes.js';
import { documentId, requireValid } from './requireValid.js';

interface Whole {
  /** Makes the demo job with its sets once more. */
  demo(): Promise<Stored<Job>>;

  pack(id: string): Promise<{ name: string; bytes: Uint8Array }>;
  unpack(archive: Uint8Array): Promise<Stored<Job>>;
}

/** Routes of jobs: list, read, create, save, delete, export and import as one archive, the demo job. */
export function jobRoutes(store: JobStore, whole: Whole): Router {
  const router = new Router({ prefix: '/api/jobs' });

  router.get('/', async (ctx) => {
    ctx.body = await store.list(requireValid(jobListQuery, { ...ctx.query }, 'query'));
  });
  router.post('/import', async (ctx) => {
    ctx.body = await whole.unpack(await rawBody(ctx.req, { limit: MOST_ARCHIVE_BYTES }));
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
    ctx.body = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  });
  addDocumentRoutes(router, store);
  return router;
}
