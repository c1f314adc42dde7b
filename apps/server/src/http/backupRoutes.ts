import { backupName } from '@fendrix/contract';
import Router from '@koa/router';
import type { Backups } from '../backup/backups.js';
import { AppError } from '../errors.js';

/** Routes of backups: list, make, bring in, look into, check, put back, save, remove. */
export function backupRoutes(backups: Backups): Router {
  const router = new Router({ prefix: '/api/backups' });
  router.get('/', async (ctx) => {
    ctx.body = await backups.list();
  });
  router.post('/', async (ctx) => {
    ctx.body = await backups.make('by hand');
    ctx.status = 201;
  });
  router.post('/bring', async (ctx) => {
    const gone = new AbortController();
    ctx.req.once('aborted', () => gone.abort(new Error('who sent the backup is gone')));
    ctx.body = await backups.bring(ctx.req, gone.signal);
    ctx.status = 201;
  });
  router.get('/:name', async (ctx) => {
    const name = nameOf(ctx.params.name);
    const { bytes, stream } = await backups.open(name);
    ctx.attachment(name);
    ctx.type = 'application/zip';
    ctx.length = bytes;
    ctx.body = stream;
  });
  router.get('/:name/look', async (ctx) => {
    ctx.body = await backups.look(nameOf(ctx.params.name));
  });
  router.post('/:name/verify', async (ctx) => {
    ctx.body = await backups.verify(nameOf(ctx.params.name));
  });
  router.post('/:name/restore', async (ctx) => {
    ctx.body = await backups.restore(nameOf(ctx.params.name));
  });
  router.delete('/:name', async (ctx) => {
    await backups.remove(nameOf(ctx.params.name));
    ctx.status = 204;
  });
  return router;
}

function nameOf(text: string | undefined): string {
  const checked = backupName.safeParse(text);
  if (checked.success) return checked.data;
  throw new AppError('not-found', 'There is no backup with this name.');
}
