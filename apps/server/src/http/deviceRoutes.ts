import {
  type Devices,
  readMeterBody,
  standInCamera,
  type TakenFrames,
  takeFramesBody,
} from '@fendrix/contract';
import Router from '@koa/router';
import type { Camera } from '../devices/camera.js';
import type { Meter } from '../devices/meter.js';
import { requireValid } from './requireValid.js';

/** Routes of outside devices (docs/devices.md): their state, and what they do. */
export function deviceRoutes(camera: Camera, meter: Meter): Router {
  const router = new Router({ prefix: '/api/devices' });
  router.get('/', (ctx) => {
    ctx.body = { camera: camera.state() } satisfies Devices;
  });
  router.put('/camera', (ctx) => {
    camera.set(requireValid(standInCamera, ctx.request.body, 'body'));
    ctx.body = { camera: camera.state() } satisfies Devices;
  });
  router.post('/camera/frames', async (ctx) => {
    const { bracketStops, ...what } = requireValid(takeFramesBody, ctx.request.body, 'body');
    ctx.body = { names: await camera.take(what, bracketStops) } satisfies TakenFrames;
    ctx.status = 201;
  });
  router.post('/meter/readings', async (ctx) => {
    const { job, shot, spot } = requireValid(readMeterBody, ctx.request.body, 'body');
    ctx.body = await meter.read(job, shot, spot);
  });
  return router;
}
