import { logChange, logQuery, logScope } from '@fendrix/contract';
import Router from '@koa/router';
import type { LogBook } from '../log/logBook.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes of the log: entries, what is written of each by hand, its set as it was, statistics. */
export function logRoutes(logBook: LogBook): Router {
  const router = new Router({ prefix: '/api/log' });
  router.get('/', async (ctx) => {
    ctx.body = await logBook.list(requireValid(logQuery, { ...ctx.query }, 'query'));
  });
  router.get('/statistics', async (ctx) => {
    const { job } = requireValid(logScope, { ...ctx.query }, 'query');
    ctx.body = await logBook.statistics(job);
  });
  router.get('/table', async (ctx) => {
    const query = requireValid(logQuery.omit({ limit: true, offset: true }), { ...ctx.query }, 'query');
    ctx.attachment('log.csv');
    ctx.type = 'text/csv; charset=utf-8';
    ctx.body = await logBook.table(query);
  });
  router.patch('/:id', async (ctx) => {
    const change = requireValid(logChange, ctx.request.body, 'body');
    ctx.body = await logBook.change(documentId(ctx.params.id), change);
  });
  router.post('/:id/set', async (ctx) => {
    ctx.body = { id: await logBook.openSet(documentId(ctx.params.id)) };
    ctx.status = 201;
  });
  return router;
}
