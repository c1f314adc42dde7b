import { createBody, listQuery, saveBody } from '@fendrix/contract';
import Router from '@koa/router';
import type { SetStore } from '../domain/sets.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes of stored sets: list, read, create, save, delete. */
export function setRoutes(store: SetStore): Router {
  const router = new Router({ prefix: '/api/sets' });

  router.get('/', async (ctx) => {
    ctx.body = await store.list(requireValid(listQuery, { ...ctx.query }, 'query'));
  });
  router.get('/:id', async (ctx) => {
    ctx.body = await store.read(documentId(ctx.params.id));
  });
  router.post('/', async (ctx) => {
    const { document } = requireValid(createBody, ctx.request.body, 'body');
    ctx.body = await store.create(document);
    ctx.status = 201;
  });
  router.put('/:id', async (ctx) => {
    const { revision, document } = requireValid(saveBody, ctx.request.body, 'body');
    ctx.body = await store.save(documentId(ctx.params.id), revision, document);
  });
  router.delete('/:id', async (ctx) => {
    await store.remove(documentId(ctx.params.id));
    ctx.status = 204;
  });
  return router;
}
