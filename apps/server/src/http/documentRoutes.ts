import { createBody, saveBody } from '@fendrix/contract';
import type Router from '@koa/router';
import type { DocumentStore } from '../domain/documents.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes that all documents have: read, create, save over a revision, delete. */
export function addDocumentRoutes<D>(router: Router, store: DocumentStore<D>): void {
  router.get('/:id', async (ctx) => {
    ctx.body = await store.read(documentId(ctx.params.id));
  });
  router.get('/:id/raw', async (ctx) => {
    const { name, text } = await store.raw(documentId(ctx.params.id));
    ctx.attachment(`${name.replace(/[^\p{L}\p{N} ,.-]/gu, '').trim() || 'document'}.json`);
    ctx.type = 'application/json';
    ctx.body = text;
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
}
