import { PassThrough } from 'node:stream';
import {
  type Devices,
  liveQuery,
  readMeterBody,
  standInCamera,
  standInRail,
  standInTrigger,
  standInTurntable,
  type TakenFrames,
  takeFramesBody,
} from '@fendrix/contract';
import Router from '@koa/router';
import type { z } from 'zod';
import type { StandIns } from '../devices/standIns.js';
import { AppError } from '../errors.js';
import { requireValid } from './requireValid.js';

/** A line that keeps a link open on which nothing happens, and how often it is sent, ms. */
const STILL_HERE = ': still here\n\n';
const STILL_HERE_MS = 15_000;
/** Pages that listen at once: each holds a connection. */
const MOST_LISTENERS = 50;

/** Routes of outside devices (docs/devices.md): their state, what they do, and what they tell unasked. */
export function deviceRoutes(standIns: StandIns): { router: Router; close(): void } {
  const router = new Router({ prefix: '/api/devices' });
  const listeners = new Set<PassThrough>();
  router.get('/', (ctx) => {
    ctx.body = standIns.state() satisfies Devices;
  });
  const settable = <T>(path: string, schema: z.ZodType<T>, set: (state: T) => void) =>
    router.put(path, (ctx) => {
      set(requireValid(schema, ctx.request.body, 'body'));
      ctx.body = standIns.state() satisfies Devices;
    });
  settable('/camera', standInCamera, standIns.setCamera);
  settable('/trigger', standInTrigger, standIns.setTrigger);
  settable('/turntable', standInTurntable, standIns.setTurntable);
  settable('/rail', standInRail, standIns.setRail);
  router.post('/camera/frames', async (ctx) => {
    const what = requireValid(takeFramesBody, ctx.request.body, 'body');
    ctx.body = { names: await standIns.take(what) } satisfies TakenFrames;
    ctx.status = 201;
  });
  router.get('/camera/live', async (ctx) => {
    ctx.body = await standIns.live(requireValid(liveQuery, ctx.query, 'query'));
    ctx.type = 'image/webp';
    ctx.set('cache-control', 'no-store');
  });
  router.post('/meter/readings', async (ctx) => {
    ctx.body = await standIns.readMeter(requireValid(readMeterBody, ctx.request.body, 'body'));
  });
  router.get('/events', (ctx) => {
    if (listeners.size >= MOST_LISTENERS)
      throw new AppError('unavailable', 'Too many pages listen to the devices.', {
        hint: 'Close some of them.',
      });
    const stream = new PassThrough();
    const send = (state: Devices) => stream.write(`event: devices\ndata: ${JSON.stringify(state)}\n\n`);
    const leave = standIns.onChange(send);
    const beat = setInterval(() => stream.write(STILL_HERE), STILL_HERE_MS);
    beat.unref();
    listeners.add(stream);
    stream.on('close', () => {
      leave();
      clearInterval(beat);
      listeners.delete(stream);
    });
    ctx.type = 'text/event-stream';
    ctx.set('cache-control', 'no-store');
    ctx.body = stream;
    send(standIns.state());
  });
  return {
    router,
    close() {
      for (const stream of listeners) stream.end();
    },
  };
}
