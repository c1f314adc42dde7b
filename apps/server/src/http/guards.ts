import type { Middleware } from 'koa';
import { AppError } from '../errors.js';

/** What addresses take that do not take JSON, as written here or in other letters or with a slash more. None of it can be sent from another site without being asked first. */
const TYPES: Record<string, string> = {
  '/api/pictures': 'image/*',
  '/api/jobs/import': 'application/zip',
  '/api/backups/bring': 'application/zip',
};

const CHANGING = new Set(['POST', 'PUT', 'PATCH', 'DELETE']);

/**
 * Answers only to names this server is known by, and takes changes only from its own pages: keeps other sites
 * from reaching a server on this machine through the browser (DNS rebinding, forged requests).
 * @param hosts `name:port` as in the Host header  @param origins as in the Origin header
 */
export function hostAndOriginGuard(hosts: readonly string[], origins: readonly string[]): Middleware {
  return async (ctx, next) => {
    if (!hosts.includes(ctx.get('host').toLowerCase())) {
      throw new AppError('forbidden', 'This server does not answer to that name.', {
        hint: 'Open it by the address it printed at the start.',
      });
    }
    const origin = ctx.get('origin').toLowerCase();
    const foreign = origin === '' ? ctx.get('sec-fetch-site') === 'cross-site' : !origins.includes(origin);
    if (CHANGING.has(ctx.method) && foreign) {
      throw new AppError('forbidden', 'Changes are taken from this application only.');
    }
    const type = TYPES[ctx.path.toLowerCase().replace(/\/+$/, '')] ?? 'application/json';
    if ((ctx.method === 'POST' || ctx.method === 'PUT') && !ctx.is(type)) {
      throw new AppError('bad-input', `The request must be ${type}.`, { hint: `Send content-type ${type}.` });
    }
    await next();
  };
}
