import type { Light } from '@fendrix/contract';
import { CORRECTION_GELS, lightCasts } from '../../colour/cast.js';
import { switchedOff, those, withCamera, withLight } from '../changes/changes.js';
import { lightCauses } from '../evidence.js';
import { beyond } from '../found.js';
import type { Judge } from '../verdict.js';
import { from } from '../working.js';

/** A light that gives less of the picture than this is not seen by its colour. */
const LEAST_PART = 0.1;

/** A light whose colour is not that of the white balance, and which gives a good part of the picture. */
export const mixedColour: Judge<'mixed-colour'> = {
  code: 'mixed-colour',
  judge(evidence) {
    const all = [...evidence.thing.keys()];
    const parts = lightCauses(evidence, all);
    return lightCasts(evidence.set).flatMap(({ tag, deltaE, temperatureK }) => {
      const cause = parts.find(({ thing }) => thing.key === tag);
      if (!cause || (cause.part ?? 0) < LEAST_PART) return [];
      return beyond(evidence.limits, 'mixed-colour', { value: deltaE }, () => ({
        of: cause.thing,
        places: [],
        causes: [cause],
        working: from({
          lampColour: temperatureK,
          whiteBalance: evidence.set.camera.whiteBalanceK,
          partOfPicture: cause.part ?? 0,
        }),
      }));
    });
  },
  cures({ set }, { of }) {
    const cast = lightCasts(set).find(({ tag }) => tag === of?.key);
    const light = set.lights.find(({ tag }) => tag === of?.key);
    if (!cast || !light) return [];
    const nearest = [...CORRECTION_GELS].sort(
      (a, b) => Math.abs(a.miredShift - cast.gelMired) - Math.abs(b.miredShift - cast.gelMired),
    )[0];
    return those(
      nearest ? withGel(light, nearest) && withLight(set, light.tag, withGel(light, nearest)) : null,
      withCamera(set, { whiteBalanceK: Math.round(cast.temperatureK / 50) * 50 }),
      switchedOff(set, light.tag),
    );
  },
};

const withGel = (light: Light, gel: (typeof CORRECTION_GELS)[number]): Partial<Light> =>
  light.colour ? { colour: { ...light.colour, gels: [...light.colour.gels, { ...gel }] } } : {};
