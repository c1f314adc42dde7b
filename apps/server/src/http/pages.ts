import { createReadStream, existsSync } from 'node:fs';
import { join } from 'node:path';
import type { Middleware } from 'koa';
import serve from 'koa-static';

/** The built web application: files as they are, any other page address gets its index. */
export function pages(root: string): Middleware {
  const files = serve(root, {
    setHeaders: (response, path) => {
      const forever = /[/\\]assets[/\\]/.test(path);
      response.setHeader('cache-control', forever ? 'public, max-age=31536000, immutable' : 'no-cache');
    },
  });
  const index = join(root, 'index.html');
  return async (ctx, next) => {
    if (ctx.path.startsWith('/api/')) return next();
    await files(ctx, async () => {
      const asksForPage = ctx.method === 'GET' && ctx.accepts('html') && !/\.\w+$/.test(ctx.path);
      if (!asksForPage || !existsSync(index)) return;
      ctx.type = 'html';
      ctx.set('cache-control', 'no-cache');
      ctx.body = createReadStream(index);
    });
  };
}
