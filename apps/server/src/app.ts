import type { Readable } from 'node:stream';
import bodyParser from '@koa/bodyparser';
import Router from '@koa/router';
import Koa from 'koa';
import type { Logger } from 'pino';
import type { Backups } from './backup/backups.js';
import { createCalibrations } from './calibration/calibrations.js';
import type { Database } from './db/database.js';
import { createDemoJob } from './demoData.js';
import { createSetLight, type SetLight } from './devices/setLight.js';
import { createStandIns } from './devices/standIns.js';
import { packJob, unpackJob } from './domain/jobArchive.js';
import { createJobStore, type JobStore } from './domain/jobs.js';
import { createKitStore } from './domain/kit.js';
import { createPictureStore } from './domain/pictures.js';
import { createSetStore } from './domain/sets.js';
import { errorExit } from './errors.js';
import { createFrames, type FramesOptions } from './frames/frames.js';
import { backupRoutes } from './http/backupRoutes.js';
import { calibrationRoutes } from './http/calibrationRoutes.js';
import { deviceRoutes } from './http/deviceRoutes.js';
import { frameRoutes } from './http/frameRoutes.js';
import { hostAndOriginGuard } from './http/guards.js';
import { noStore, securityHeaders } from './http/headers.js';
import { jobRoutes } from './http/jobRoutes.js';
import { kitRoutes } from './http/kitRoutes.js';
import { logRoutes } from './http/logRoutes.js';
import { pages } from './http/pages.js';
import { pairingRoutes } from './http/pairingRoutes.js';
import { pictureRoutes } from './http/pictureRoutes.js';
import { rebuildRoutes } from './http/rebuildRoutes.js';
import { setRoutes } from './http/setRoutes.js';
import { setSheetRoutes } from './http/setSheetRoutes.js';
import { createLogBook } from './log/logBook.js';
import { createSetSheets } from './setSheet/setSheets.js';
import { createSetSide, type SetSideOptions } from './setSide/setSide.js';

export interface AppOptions {
  database: Database;
  log: Logger;
  /** Folder of pictures, beside the database. */
  pictureFolder: string;
  /** Folder of the built web application; none in development. */
  webRoot?: string;
  hosts: readonly string[];
  origins: readonly string[];
  /** Where phones and tablets find the day of a job, once it is switched on. */
  setSide: Pick<SetSideOptions, 'host' | 'port'>;
  /** Folder that cameras write to, and that of small pictures of what is in it. */
  frames: Pick<FramesOptions, 'folder' | 'kept'>;
  backups: Backups;
  /** What traces light; one of its own by default. */
  light?: SetLight;
}

/** Largest request body: a set with a large mesh. */
const BODY_LIMIT = '24mb';

export function createApp(options: AppOptions): { app: Koa; close(): Promise<void> } {
  const { database, log, pictureFolder, webRoot, hosts, origins, light = createSetLight() } = options;
  const app = new Koa();
  app.on('error', (error) => {
    // Whoever listened to events has gone: that is how they end.
    if (error.code === 'ERR_STREAM_PREMATURE_CLOSE') log.debug('a listener has gone');
    else log.error({ err: error }, 'connection failed');
  });
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
  const sets = createSetStore(database);
  const ownJobs = createJobStore(database);
  const pictures = createPictureStore(database, pictureFolder);
  const kit = createKitStore(database);
  const logBook = createLogBook({ database, jobs: ownJobs, sets, kit, light, log });
  const jobs: JobStore = {
    ...ownJobs,
    // The log follows what a job says of its pictures.
    async save(id, revision, document) {
      const saved = await ownJobs.save(id, revision, document);
      await logBook.jobSaved(id);
      return saved;
    },
  };
  const stores = { database, jobs, sets, pictures };
  const setSide = createSetSide({
    ...options.setSide,
    stores: { jobs, sets, kit },
    log,
    ...(webRoot === undefined ? {} : { webRoot }),
  });
  const whole = {
    demo: () => createDemoJob(sets, jobs),
    pack: (id: string) => packJob(stores, id),
    unpack: (archive: Readable, signal: AbortSignal) => unpackJob(stores, archive, signal),
  };
  const cards = async () => {
    const { calibration } = (await kit.read()).document;
    return new Set(calibration?.readings.flatMap(({ frame }) => frame ?? []) ?? []);
  };
  const frames = createFrames({ ...options.frames, database, jobs, sets, kit, light, cards, logBook, log });
  const standIns = createStandIns({ jobs, sets, kit }, light, options.frames.folder);
  const devices = deviceRoutes(standIns);
  const calibrations = createCalibrations({
    kit,
    light,
    folder: options.frames.folder,
    piecesSeed: () => standIns.state().camera.piecesSeed,
  });
  const routers = [
    health,
    jobRoutes(jobs, whole),
    setRoutes(sets),
    setSheetRoutes(createSetSheets(sets, kit, light)),
    rebuildRoutes(sets, light),
    kitRoutes(kit),
    calibrationRoutes(calibrations),
    pairingRoutes(setSide),
    frameRoutes(frames),
    logRoutes(logBook),
    devices.router,
    pictureRoutes(pictures),
    backupRoutes(options.backups),
  ];
  for (const router of routers) {
    app.use(router.routes());
    app.use(router.allowedMethods());
  }
  if (webRoot) app.use(pages(webRoot));
  return {
    app,
    async close() {
      light.close();
      devices.close();
      await Promise.all([setSide.close(), frames.close()]);
    },
  };
}
