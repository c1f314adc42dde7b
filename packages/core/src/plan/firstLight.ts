import type { Light, SetDocument, Vector } from '@fendrix/contract';
import { brighter } from '../exposure/dials.js';
import { incidentExposureLxS } from '../exposure/exposure.js';
import { nearestStep, SHUTTERS } from '../exposure/series.js';
import type { Bounds } from '../geometry/bounds.js';
import { lightLuminance, onAxisLx } from '../photometry/output.js';
import { length, subtract } from '../units/vector.js';
import { faceSizeM, type KitLight, softLightOf } from './kitLight.js';

/** The soft light of the kit that is about twice the product, from camera left, high and a little in front. */
export function firstLight({ low, high }: Bounds, middle: Vector, kit: readonly Light[]): KitLight {
  const size = Math.max(high[0] - low[0], high[1] - low[1], high[2] - low[2]);
  const side = Math.min(1, Math.max(0.4, 2 * size));
  const light = softLightOf(kit, side, side);
  const face = faceSizeM(light);
  const away = 1.3 * Math.max(face.widthM, face.heightM);
  const positionM: Vector = [-0.8 * away, -0.45 * away, middle[2] + 0.55 * away];
  return {
    ...light,
    tag: 'A',
    on: true,
    stand: false,
    positionM,
    ...('aimM' in light ? { aimM: middle } : {}),
  };
}

/** The first light as the f-stop asks, to its dial: a flash by its power, lasting light at full power by the shutter. */
export function metered(set: SetDocument): SetDocument {
  const { camera } = set;
  const [light] = set.lights as [KitLight];
  if (!('aimM' in light)) return set;
  // The meter stands where the light is aimed at, and faces it.
  const full = { ...light, powerStops: 0 };
  const { luminance, time } = lightLuminance(full);
  const reads = luminance * onAxisLx(light, length(subtract(light.positionM, light.aimM)));
  if (time === 'flash') {
    const powerStops = brighter(full, Math.log2(incidentExposureLxS(camera) / reads));
    return { ...set, lights: [{ ...light, powerStops }] };
  }
  const wanted = incidentExposureLxS(camera) / reads;
  const shutterS = SHUTTERS[nearestStep(SHUTTERS, wanted)]?.value ?? camera.shutterS;
  return { ...set, lights: [full], camera: { ...camera, shutterS } };
}
