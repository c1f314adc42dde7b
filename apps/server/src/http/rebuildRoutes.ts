import { rebuildBody } from '@fendrix/contract';
import type { Rebuilt } from '@fendrix/core';
import Router from '@koa/router';
import type { SetLight } from '../devices/setLight.js';
import type { SetStore } from '../domain/sets.js';
import { AppError } from '../errors.js';
import { documentId, requireValid } from './requireValid.js';

/** How an old set is rebuilt with another product: worked out, nothing is stored. */
export function rebuildRoutes(sets: SetStore, light: Pick<SetLight, 'rebuilt'>): Router {
  const router = new Router({ prefix: '/api/sets/:id/rebuild' });
  router.post('/', async (ctx) => {
    const wish = requireValid(rebuildBody, ctx.request.body, 'body');
    const { document } = await sets.read(documentId(ctx.params.id));
    const rebuilt = await light.rebuilt(document, wish);
    if (!rebuilt)
      throw new AppError('bad-input', `This set has no product “${wish.product}”.`, {
        hint: 'Choose one that stands on it.',
      });
    ctx.body = rebuilt satisfies Rebuilt;
  });
  return router;
}
