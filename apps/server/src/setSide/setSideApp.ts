import { createHash } from 'node:crypto';
import { dayActions, pairBody } from '@fendrix/contract';
import bodyParser from '@koa/bodyparser';
import Router from '@koa/router';
import Koa from 'koa';
import type { Logger } from 'pino';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { AppError, errorExit } from '../errors.js';
import { hostAndOriginGuard } from '../http/guards.js';
import { noStore, securityHeaders } from '../http/headers.js';
import { pages } from '../http/pages.js';
import { requireValid } from '../http/requireValid.js';
import { type DayStores, readDayAtTable, writeDayActions } from './dayAtTable.js';
import type { PairedDevices } from './pairing.js';

/** Where the token of a device is kept: pages cannot read it, other sites cannot send it. */
const COOKIE = 'fendrix-set-side';
/** Page and addresses of the set side. */
const PAGE = '/set-side';
const DAY_S = 24 * 3600;

/** Requests of one address. */
const LIMITS = {
  /** Codes in a minute: nobody types faster. */
  codes: { points: 5, duration: 60 },
  /** All else in ten seconds: a page that catches up asks some ten times. */
  requests: { points: 120, duration: 10 },
};

export interface SetSideAppOptions {
  stores: DayStores;
  devices: PairedDevices;
  log: Logger;
  webRoot?: string;
  hosts: readonly string[];
  origins: readonly string[];
}

/**
 * What is served to the network while it is switched on: the pages, pairing, and for paired devices reading the day and ticking.
 * All other addresses of the application are not there at all.
 */
export function createSetSideApp({ stores, devices, log, webRoot, hosts, origins }: SetSideAppOptions): Koa {
  const codes = new RateLimiterMemory(LIMITS.codes);
  const requests = new RateLimiterMemory(LIMITS.requests);
  const app = new Koa();
  app.on('error', (error) => log.error({ err: error }, 'connection of the set side failed'));
  app.use(securityHeaders());
  app.use(noStore());
  app.use(errorExit(log));
  app.use(hostAndOriginGuard(hosts, origins));
  app.use(async (ctx, next) => {
    if (ctx.path.startsWith('/api/')) await within(requests, ctx);
    await next();
  });
  app.use(bodyParser({ enableTypes: ['json'], jsonLimit: '512kb' }));

  const router = new Router({ prefix: `/api${PAGE}` });
  router.post('/pair', async (ctx) => {
    await within(codes, ctx);
    const { code, name } = requireValid(pairBody, ctx.request.body, 'body');
    const token = devices.pair(code, name);
    ctx.cookies.set(COOKIE, token, {
      httpOnly: true,
      sameSite: 'strict',
      path: `/api${PAGE}`,
      maxAge: 1000 * DAY_S,
      overwrite: true,
    });
    ctx.status = 204;
  });
  router.get('/day', async (ctx) => {
    const { job } = paired(ctx);
    const day = JSON.stringify(await readDayAtTable(stores, job));
    ctx.status = 200;
    ctx.etag = createHash('sha256').update(day).digest('base64url');
    if (ctx.fresh) {
      ctx.status = 304;
      return;
    }
    ctx.type = 'application/json';
    ctx.body = day;
  });
  router.post('/actions', async (ctx) => {
    const { job } = paired(ctx);
    const { actions } = requireValid(dayActions, ctx.request.body, 'body');
    ctx.body = await writeDayActions(stores, job, actions);
  });
  app.use(router.routes());
  app.use(router.allowedMethods());
  if (webRoot) {
    app.use(async (ctx, next) => {
      const isPage = ctx.method === 'GET' && !ctx.path.startsWith('/api/') && !/\.\w+$/.test(ctx.path);
      if (isPage && ctx.path !== PAGE) ctx.redirect(PAGE);
      else await next();
    });
    app.use(pages(webRoot));
  }
  return app;

  function paired(ctx: Koa.Context): { job: string } {
    const device = devices.deviceOf(ctx.cookies.get(COOKIE) ?? '');
    if (device) return device;
    throw new AppError('not-paired', 'This device is not paired.', {
      hint: 'Read the code in the day of the job, or type its words here.',
    });
  }
}

/** @throws {AppError} `too-many` */
async function within(limiter: RateLimiterMemory, ctx: Koa.Context): Promise<void> {
  const address = ctx.req.socket.remoteAddress ?? '';
  const wait = await limiter.consume(address).then(
    () => null,
    (refused: { msBeforeNext?: number }) => refused.msBeforeNext ?? 1000,
  );
  if (wait === null) return;
  ctx.set('retry-after', String(Math.ceil(wait / 1000)));
  throw new AppError('too-many', 'That was asked too often.', { hint: 'Wait a minute, then try again.' });
}
