import { calibrationHour, newestCardBody, standInCardBody } from '@fendrix/contract';
import Router from '@koa/router';
import type { Calibrations } from '../calibration/calibrations.js';
import { requireValid } from './requireValid.js';

/** Routes of the hour in which lights, camera and lens are calibrated by a card. */
export function calibrationRoutes(calibrations: Calibrations): Router {
  const router = new Router({ prefix: '/api/calibration' });
  router.post('/fits', async (ctx) => {
    ctx.body = await calibrations.fit(requireValid(calibrationHour, ctx.request.body, 'body'));
  });
  router.post('/newest', async (ctx) => {
    ctx.body = await calibrations.newest(requireValid(newestCardBody, ctx.request.body, 'body'));
  });
  router.post('/stand-in', async (ctx) => {
    ctx.body = await calibrations.standIn(requireValid(standInCardBody, ctx.request.body, 'body'));
  });
  return router;
}
