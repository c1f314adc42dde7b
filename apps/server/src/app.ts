import type { Readable } from 'node:stream';
import bodyParser from '@koa/bodyparser';
import Router from '@koa/router';
import Koa from 'koa';
import helmet from 'koa-helmet';
import type { Logger } from 'pino';
import type { Database } from './db/database.js';
import { createDemoJob } from './demoData.js';
import { packJob, unpackJob } from './domain/jobArchive.js';
import { createJobStore } from './domain/jobs.js';
import { createKitStore } from './domain/kit.js';
import { createPictureStore } from './domain/pictures.js';
import { createSetStore } from './domain/sets.js';
import { errorExit } from './errors.js';
import { hostAndOriginGuard } from './http/guards.js';
import { jobRoutes } from './http/jobRoutes.js';
import { kitRoutes } from './http/kitRoutes.js';
import { pages } from './http/pages.js';
import { pictureRoutes } from './http/pictureRoutes.js';
import { setRoutes } from './http/setRoutes.js';

export interface AppOptions {
  database: Database;
  log: Logger;
  /** Folder of pictures, beside the database. */
  pictureFolder: string;
  /** Folder of the built web application; none in development. */
  webRoot?: string;
  hosts: readonly string[];
  origins: readonly string[];
}

/** Largest request body: a set with a large mesh. */
const BODY_LIMIT = '24mb';

export function createApp({ database, log, pictureFolder, webRoot, hosts, origins }: AppOptions): Koa {
  const app = new Koa();
  app.on('error', (error) => log.error({ err: error }, 'connection failed'));
  app.use(securityHeaders());
  app.use(noStore());
  app.use(errorExit(log));
  app.use(hostAndOriginGuard(hosts, origins));
  app.use(bodyParser({ enableTypes: ['json'], jsonLimit: BODY_LIMIT }));

  const health = new Router();
  health.get('/api/health', async (ctx) => {
    await database.query.run('select 1');
    ctx.body = { ok: true };
  });
  const jobs = createJobStore(database);
  const sets = createSetStore(database);
  const pictures = createPictureStore(database, pictureFolder);
  const stores = { database, jobs, sets, pictures };
  const whole = {
    demo: () => createDemoJob(sets, jobs),
    pack: (id: string) => packJob(stores, id),
    unpack: (archive: Readable, signal: AbortSignal) => unpackJob(stores, archive, signal),
  };
  const routers = [
    health,
    jobRoutes(jobs, whole),
    setRoutes(sets),
    kitRoutes(createKitStore(database)),
    pictureRoutes(pictures),
  ];
  for (const router of routers) {
    app.use(router.routes());
    app.use(router.allowedMethods());
  }
  if (webRoot) app.use(pages(webRoot));
  return app;
}

/** Answers of the interface are of the moment: nothing keeps them, unless a route says so. */
function noStore(): Koa.Middleware {
  return async (ctx, next) => {
    if (ctx.path.toLowerCase().startsWith('/api/')) ctx.set('cache-control', 'no-store');
    await next();
  };
}

function securityHeaders(): Koa.Middleware {
  return helmet({
    contentSecurityPolicy: {
      directives: {
        defaultSrc: ["'self'"],
        // The engine is WebAssembly; scripts from elsewhere and made of text stay barred.
        scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
        // Style tags are made at run time by the interface library.
        styleSrc: ["'self'", "'unsafe-inline'"],
        imgSrc: ["'self'", 'data:', 'blob:'],
        workerSrc: ["'self'"],
        connectSrc: ["'self'"],
        upgradeInsecureRequests: null,
      },
    },
    crossOriginEmbedderPolicy: true,
    // Served over plain HTTP on this machine; a proxy that adds TLS adds this too.
    strictTransportSecurity: false,
  });
}
