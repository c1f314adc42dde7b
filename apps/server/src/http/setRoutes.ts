import { listQuery } from '@fendrix/contract';
import Router from '@koa/router';
import type { SetStore } from '../domain/sets.js';
import { addDocumentRoutes } from './documentRoutes.js';
import { requireValid } from './requireValid.js';

/** Routes of stored sets: list, read, create, save, delete. */
export function setRoutes(store: SetStore): Router {
  const router = new Router({ prefix: '/api/sets' });
  router.get('/', async (ctx) => {
    ctx.body = await store.list(requireValid(listQuery, { ...ctx.query }, 'query'));
  });
  addDocumentRoutes(router, store);
  return router;
}
