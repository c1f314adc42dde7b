import { pictureHash } from '@fendrix/contract';
import Router from '@koa/router';
import rawBody from 'raw-body';
import { MOST_PICTURE_BYTES, type PictureStore } from '../domain/pictures.js';
import { requireValid } from './requireValid.js';

/** Routes of pictures: keep, read by content. */
export function pictureRoutes(store: PictureStore): Router {
  const router = new Router({ prefix: '/api/pictures' });
  router.post('/', async (ctx) => {
    ctx.body = await store.keep(await store.check(await rawBody(ctx.req, { limit: MOST_PICTURE_BYTES })));
    ctx.status = 201;
  });
  router.get('/:sha256', async (ctx) => {
    const { sha256, mediaType, bytes } = await store.find(
      requireValid(pictureHash, ctx.params.sha256, 'address'),
    );
    ctx.type = mediaType;
    ctx.length = bytes;
    ctx.set('cache-control', 'private, max-age=31536000, immutable');
    ctx.body = store.open(sha256);
  });
  return router;
}
