import { setSheetQuery } from '@fendrix/contract';
import type { Paper } from '@fendrix/paper';
import { fileStem } from '@fendrix/words';
import Router from '@koa/router';
import type { SetSheets } from '../setSheet/setSheets.js';
import { documentId, requireValid } from './requireValid.js';

/** Routes of set sheets: words and figures, picture, drawings to scale, all of it as PDF. */
export function setSheetRoutes(sheets: SetSheets): Router {
  const router = new Router({ prefix: '/api/sets/:id/sheet' });
  router.get('/', async (ctx) => {
    ctx.body = await sheets.words(documentId(ctx.params.id));
  });
  router.get('/picture', async (ctx) => {
    ctx.body = await sheets.picture(documentId(ctx.params.id));
    ctx.type = 'image/jpeg';
  });
  for (const kind of ['above', 'side'] as const) {
    router.get(`/${kind}`, async (ctx) => {
      ctx.body = await sheets.plan(documentId(ctx.params.id), kind);
      ctx.type = 'image/svg+xml';
    });
  }
  const pdf = (
    path: string,
    of: (id: string, paper: Paper, link: string) => Promise<{ name: string; bytes: Uint8Array }>,
  ) =>
    router.get(path, async (ctx) => {
      const id = documentId(ctx.params.id);
      const { paper } = requireValid(setSheetQuery, { ...ctx.query }, 'query');
      const { name, bytes } = await of(id, paper, `${ctx.origin}/sets/${id}`);
      ctx.attachment(`${fileStem(name)}.pdf`);
      ctx.type = 'application/pdf';
      ctx.body = Buffer.from(bytes);
    });
  pdf('/pdf', sheets.pdf);
  pdf('/plans', sheets.plans);
  return router;
}
