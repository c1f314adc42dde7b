import { openPairingBody, pairingQuery } from '@fendrix/contract';
import Router from '@koa/router';
import type { SetSide } from '../setSide/setSide.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes by which the desk opens a day to phones, sees who is there, and throws them out. */
export function pairingRoutes(setSide: SetSide): Router {
  const router = new Router({ prefix: '/api/pairing' });
  router.get('/', async (ctx) => {
    ctx.body = await setSide.status(requireValid(pairingQuery, { ...ctx.query }, 'query').job);
  });
  router.post('/', async (ctx) => {
    const { job } = requireValid(openPairingBody, ctx.request.body, 'body');
    await setSide.open(job);
    ctx.body = await setSide.status(job);
  });
  router.delete('/', async (ctx) => {
    await setSide.close();
    ctx.status = 204;
  });
  router.delete('/devices/:id', async (ctx) => {
    setSide.throwOut(documentId(ctx.params.id));
    ctx.status = 204;
  });
  return router;
}
