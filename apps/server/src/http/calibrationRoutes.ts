import {
  calibrationHour,
  newestCardBody,
  setSheetQuery,
  standInCardBody,
  standInWedgeBody,
} from '@fendrix/contract';
import { WEDGE_TITLE, wedgePdf } from '@fendrix/paper';
import { fileStem } from '@fendrix/words';
import Router from '@koa/router';
import type { Calibrations } from '../calibration/calibrations.js';
import { requireValid } from './requireValid.js';

/** Routes of the hour in which lights, camera and lens are calibrated by a card, and the printer by its wedge. */
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
  router.post('/stand-in-wedge', (ctx) => {
    const { cardReflectance } = requireValid(standInWedgeBody, ctx.request.body, 'body');
    ctx.body = calibrations.standInWedge(cardReflectance);
  });
  router.get('/wedge', async (ctx) => {
    const { paper } = requireValid(setSheetQuery, { ...ctx.query }, 'query');
    ctx.attachment(`${fileStem(WEDGE_TITLE)}.pdf`);
    ctx.type = 'application/pdf';
    ctx.body = Buffer.from(await wedgePdf(paper));
  });
  return router;
}
