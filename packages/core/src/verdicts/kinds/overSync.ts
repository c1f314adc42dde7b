import { lightLuminance } from '../../photometry/output.js';
import { those, withShutter } from '../changes/changes.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { inStops } from '../working.js';

/** Dials are rounded: a shutter so little faster is the same. */
const SAME = 0.02;

/** A shutter faster than the sync of the body while a flash is on: a part of the real frame stays dark. */
export const overSync: Judge<'over-sync'> = {
  code: 'over-sync',
  byMaps: true,
  judge({ set, limits }) {
    const { shutterS, body } = set.camera;
    const flash = set.lights.some((light) => light.on && lightLuminance(light).time === 'flash');
    if (!flash || shutterS > body.syncSpeedS * (1 - SAME)) return [];
    const value = Math.log2(body.syncSpeedS / shutterS);
    return beyond(limits, 'over-sync', { value }, () => ({
      of: null,
      places: [],
      causes: [],
      working: inStops({ syncTime: body.syncSpeedS, shutter: shutterS }),
    }));
  },
  cures: ({ set }) => those(withShutter(set, set.camera.body.syncSpeedS)),
};
