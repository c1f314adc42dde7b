import { frameChange, frameListQuery, framesToBody } from '@fendrix/contract';
import Router from '@koa/router';
import type { Frames } from '../frames/frames.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes of frames: those of a job, which job they come to, what is thought of each, its picture. */
export function frameRoutes(frames: Frames): Router {
  const router = new Router({ prefix: '/api/frames' });
  router.get('/', async (ctx) => {
    const { job, ...page } = requireValid(frameListQuery, { ...ctx.query }, 'query');
    ctx.body = await frames.list(job, page);
  });
  router.put('/to', async (ctx) => {
    await frames.setFramesTo(requireValid(framesToBody, ctx.request.body, 'body').job);
    ctx.status = 204;
  });
  router.patch('/:id', async (ctx) => {
    const change = requireValid(frameChange, ctx.request.body, 'body');
    ctx.body = await frames.change(documentId(ctx.params.id), change);
  });
  router.get('/:id/against-plan', async (ctx) => {
    ctx.body = await frames.againstPlan(documentId(ctx.params.id));
  });
  router.get('/:id/moves', async (ctx) => {
    ctx.body = await frames.moves(documentId(ctx.params.id));
  });
  router.get('/:id/figures', async (ctx) => {
    ctx.body = await frames.figures(documentId(ctx.params.id));
  });
  router.get('/:id/plan', async (ctx) => {
    ctx.body = await frames.planPicture(documentId(ctx.params.id));
    ctx.type = 'image/webp';
  });
  for (const size of ['small', 'large'] as const) {
    router.get(`/:id/${size}`, async (ctx) => {
      ctx.body = await frames.picture(documentId(ctx.params.id), size);
      ctx.type = 'image/webp';
      ctx.set('cache-control', 'private, max-age=31536000, immutable');
    });
  }
  return router;
}
