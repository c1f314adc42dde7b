import type { Light, SetDocument } from '@fendrix/contract';
import { shakesByHand } from '../../judge/cameraFigures.js';
import { fallSpeedMS, flashDurationS, halfDurationS, motionBlur } from '../../optics/movement.js';
import { lightLuminance } from '../../photometry/output.js';
import { byStops, switchedOff, those, withCamera, withFStop, withShutter } from '../changes/changes.js';
import { lightCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';

/** What pours or crumbles on a table has fallen this far when it is taken, m: 1.4 m/s. */
const USUAL_FALL_M = 0.1;
/** A light that gives less of the picture than this draws no blur that is seen. */
const LEAST_PART = 0.1;

const isFlash = (light: Light): boolean => lightLuminance(light).time === 'flash';

/** How long a light shines into the picture, s; null for a flash of no known duration. */
function shinesFor({ camera }: SetDocument, light: Light): number | null {
  if (!isFlash(light)) return camera.shutterS;
  const whole = flashDurationS(light);
  return whole === null ? null : Math.min(camera.shutterS, halfDurationS(whole));
}

/** What falls or pours, where it is to stand still: blurred by the light that shines longest. */
export const moves: Judge<'moves'> = {
  code: 'moves',
  judge(evidence) {
    const { set } = evidence;
    if (set.wishes.movement !== 'frozen') return [];
    const causes = lightCauses(evidence, [...evidence.thing.keys()]).filter(
      ({ part }) => (part ?? 0) >= LEAST_PART,
    );
    const longest = causes
      .flatMap((cause) => {
        const light = set.lights.find(({ tag }) => tag === cause.thing.key);
        const time = light ? shinesFor(set, light) : null;
        return time === null ? [] : [{ cause, time }];
      })
      .sort((a, b) => b.time - a.time)[0];
    if (!longest) return [];
    const value = motionBlur(set.camera, fallSpeedMS(USUAL_FALL_M), longest.time).pixels;
    return beyond(evidence.limits, 'moves', { value }, () => ({
      of: null,
      places: [],
      causes: [longest.cause],
      working: from({ fallSpeed: fallSpeedMS(USUAL_FALL_M), shineTime: longest.time }),
    }));
  },
  /** A shorter flash, the lasting light off, the shutter faster. */
  cures({ set }, { causes, figure }) {
    const tag = causes[0]?.thing.key ?? '';
    const light = set.lights.find((own) => own.tag === tag);
    if (!light) return [];
    const by = Math.log2(Math.max(1.01, figure.value / figure.limit));
    if (!isFlash(light)) {
      const shorter = withShutter(set, set.camera.shutterS / 2 ** by);
      return those(switchedOff(set, tag), shorter);
    }
    const perStop = 'duration' in light && light.duration ? light.duration.stopsPerStop : 0;
    if (!(perStop > 0)) return [];
    const down = -(by / perStop + 0.1);
    const lower = byStops(set, tag, down);
    return those(
      lower && withFStop(lower, lower.camera.fNumber * 2 ** (down / 2)),
      lower && withCamera(lower, { iso: set.camera.iso * 2 ** -down }),
      lower,
    );
  },
};

/** A shutter so long that the finger on the release shakes what lasting light draws. */
export const shaken: Judge<'shaken'> = {
  code: 'shaken',
  judge(evidence) {
    const { set, limits } = evidence;
    if (!shakesByHand(set.camera)) return [];
    const causes = lightCauses(evidence, [...evidence.thing.keys()]).filter(({ thing, part }) => {
      const light = set.lights.find(({ tag }) => tag === thing.key);
      return light !== undefined && !isFlash(light) && (part ?? 0) >= LEAST_PART;
    });
    if (causes.length === 0) return [];
    const value = set.camera.shutterS;
    return beyond(limits, 'shaken', { value }, () => ({
      of: null,
      places: [],
      causes,
      working: from({ shutter: value }),
    }));
  },
  cures: ({ set }) =>
    those(withCamera(set, { release: 'self-timer' }), withCamera(set, { release: 'cable' })),
};
