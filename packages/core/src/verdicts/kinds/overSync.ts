import { lightLuminance } from '../../photometry/output.js';
import { those, withShutter } from '../changes.js';
import { excessOf, type Judge } from '../verdict.js';

/** Dials are rounded: a shutter so little faster is the same. */
const SAME = 0.02;

/** A shutter faster than the sync of the body while a flash is on: a part of the real frame stays dark. */
export const overSync: Judge<'over-sync'> = {
  code: 'over-sync',
  judge({ set, limits }) {
    const { shutterS, body } = set.camera;
    const flash = set.lights.some((light) => light.on && lightLuminance(light).time === 'flash');
    if (!flash || shutterS > body.syncSpeedS * (1 - SAME)) return [];
    const figure = {
      value: Math.log2(body.syncSpeedS / shutterS),
      error: 0,
      unit: 'stops' as const,
      limit: limits['over-sync'].limit,
      fault: 'above' as const,
    };
    return excessOf(figure) > 0 ? [{ of: null, places: [], figure, causes: [] }] : [];
  },
  cures: ({ set }) => those(withShutter(set, set.camera.body.syncSpeedS)),
};
