import { listQuery } from '@fendrix/contract';
import { setInSpace } from '@fendrix/core';
import { encodeSetGltf } from '@fendrix/files';
import { fileStem } from '@fendrix/words';
import Router from '@koa/router';
import type { SetStore } from '../domain/sets.js';
import { addDocumentRoutes } from './documentRoutes.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes of stored sets: list, read, create, save, delete, in space for other programs. */
export function setRoutes(store: SetStore): Router {
  const router = new Router({ prefix: '/api/sets' });
  router.get('/', async (ctx) => {
    ctx.body = await store.list(requireValid(listQuery, { ...ctx.query }, 'query'));
  });
  router.get('/:id/glb', async (ctx) => {
    const { document } = await store.read(documentId(ctx.params.id));
    const bytes = await encodeSetGltf(setInSpace(document));
    ctx.attachment(`${fileStem(document.name)}.glb`);
    ctx.type = 'model/gltf-binary';
    ctx.body = Buffer.from(bytes);
  });
  addDocumentRoutes(router, store);
  return router;
}
