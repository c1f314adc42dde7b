import { saveKitBody } from '@fendrix/contract';
import Router from '@koa/router';
import type { KitStore } from '../domain/kit.js';
import { requireValid } from './requireValid.js';

/** Routes of the studio's kit: read, save. */
export function kitRoutes(store: KitStore): Router {
  const router = new Router({ prefix: '/api/kit' });
  router.get('/', async (ctx) => {
    ctx.body = await store.read();
  });
  router.put('/', async (ctx) => {
    const { revision, document } = requireValid(saveKitBody, ctx.request.body, 'body');
    ctx.body = await store.save(revision, document);
  });
  return router;
}
