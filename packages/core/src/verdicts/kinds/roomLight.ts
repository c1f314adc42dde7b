import type { SetDocument } from '@fendrix/contract';
import { fieldStops } from '../../judge/readField.js';
import { lightLuminance } from '../../photometry/output.js';
import { switchedOff, those, withShutter } from '../changes/changes.js';
import { type Evidence, evidenceOf, lightCauses, meanStops } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { less } from '../working.js';

const isFlash = (light: SetDocument['lights'][number]): boolean => lightLuminance(light).time === 'flash';

/** The set with nothing on but what shines on after the flash. */
const withoutFlash = (set: SetDocument): SetDocument => ({
  ...set,
  lights: set.lights.map((light) => (isFlash(light) ? { ...light, on: false } : light)),
});

/** Lasting light in a picture that is made by flash: mean tone of the frame by it, under that by the flash. */
export const roomLight: Judge<'room-light'> = {
  code: 'room-light',
  judge(evidence) {
    const { set, view } = evidence;
    const on = set.lights.filter((light) => light.on);
    if (!on.some(isFlash) || on.every(isFlash)) return [];
    const places = [...evidence.thing.keys()];
    const lasting = withoutFlash(set);
    const tones = view.batches.map((batch) => {
      const [all, still] = [set, lasting].map((own) => meanStops(fieldStops(own, batch), places));
      return { flash: Math.log2(2 ** (all as number) - 2 ** (still as number)), still: still as number };
    });
    const under = tones.map(({ flash, still }) => flash - still);
    const mean = (values: readonly number[]) => values.reduce((sum, stops) => sum + stops, 0) / values.length;
    const value = mean(under);
    const error = Math.sqrt(
      under.reduce((sum, stops) => sum + (stops - value) ** 2, 0) /
        (under.length * Math.max(1, under.length - 1)),
    );
    // Where lasting light is the main light, a flash is its help: that is no fault.
    if (!(value > 0)) return [];
    return beyond(evidence.limits, 'room-light', { value, error }, () => ({
      of: null,
      places: [],
      causes: lastingCauses(evidence, lasting, places),
      working: less({
        flashTone: mean(tones.map(({ flash }) => flash)),
        lastingTone: mean(tones.map(({ still }) => still)),
      }),
    }));
  },
  cures: ({ set }, { causes }) =>
    those(
      set.camera.shutterS > 1.01 * set.camera.body.syncSpeedS
        ? withShutter(set, set.camera.body.syncSpeedS)
        : null,
      ...causes.slice(0, 2).map(({ thing }) => switchedOff(set, thing.key)),
    ),
};

const lastingCauses = (evidence: Evidence, lasting: SetDocument, places: readonly number[]) =>
  lightCauses(evidenceOf(lasting, evidence.view, evidence), places);
