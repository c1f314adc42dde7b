import type { Camera, Light, SetDocument } from '@fendrix/contract';
import { lightColourRgb, shiftedTemperatureK } from '../colour/whitePoint.js';
import { SUN_RADIUS_RAD } from '../engine/emitters.js';
import { lensFigures } from '../optics/lens.js';
import { type Channel, channelsOf, isPolarised } from '../photometry/channels.js';
import { lightLuminance } from '../photometry/output.js';
import { radians } from '../units/angle.js';
import { METER_K, MID_TONE } from './exposure.js';

/** Luminance times time, cd s/m2, that this camera records as mid-tone, the close-focus loss included. */
export function recordedMidToneCdSM2(camera: Camera): number {
  return (METER_K * lensFigures(camera).effectiveFNumber ** 2) / camera.iso;
}

/**
 * For each film the factors, red green blue, to luminance times time, cd s/m2: flash as it is, continuous light
 * times the shutter, colour and gels against the white balance, film and filter, nothing when switched off.
 */
export function exposureWeights(set: SetDocument): Float64Array {
  const weights: number[] = [];
  for (const channel of channelsOf(set)) {
    const light = set.lights[channel.light] as Light;
    const passes = light.on ? filterFactor(set.camera, light, channel) : 0;
    const { flash, continuous } = channelLuminance(set.camera, light, channel);
    for (let c = 0; c < 3; c++) {
      weights.push(passes * ((flash[c] as number) + (continuous[c] as number) * set.camera.shutterS));
    }
  }
  return Float64Array.from(weights);
}

/** For each film the factors to the recorded linear value, mid-tone at 0.18. */
export function displayWeights(set: SetDocument): Float64Array {
  const toLinear = MID_TONE / recordedMidToneCdSM2(set.camera);
  return exposureWeights(set).map((weight) => weight * toLinear);
}

/**
 * For each film the factors to luminance as it stands before any filter on the lens: of continuous light alone in
 * cd/m2; with any flash on, luminance times time over the exposure, cd s/m2.
 */
export function luminanceWeights(set: SetDocument): { weights: Float64Array; unit: 'cd/m2' | 'cd s/m2' } {
  const flash = set.lights.some((light) => light.on && lightLuminance(light).time === 'flash');
  const bare = { ...set.camera, polariser: undefined, ...(flash ? {} : { shutterS: 1 }) };
  const weights = exposureWeights({ ...set, camera: bare });
  return { weights, unit: flash ? 'cd s/m2' : 'cd/m2' };
}

export interface ChannelLuminance {
  /** cd s/m2 and cd/m2, red green blue; a neutral surface has the luminance the light gives it. */
  flash: [number, number, number];
  continuous: [number, number, number];
}

/** What a film of unit luminance stands for, switched on, before any filter on the lens. */
export function channelLuminance(camera: Camera, light: Light, channel: Channel): ChannelLuminance {
  const { time, luminance, modellingCdM2 } = lightLuminance(light);
  const dark: [number, number, number] = [0, 0, 0];
  if (channel.part === 'sun' && light.kind === 'window' && light.sun) {
    const disc = 2 * Math.PI * (1 - Math.cos(SUN_RADIUS_RAD));
    const sun = (light.sun.illuminanceLx / disc) * 2 ** light.powerStops;
    const rgb = colourOf(camera, light, light.sun.temperatureK ?? light.colour?.temperatureK);
    return { flash: dark, continuous: scaled(rgb, sun) };
  }
  const main = scaled(colourOf(camera, light, light.colour?.temperatureK), luminance);
  if (time === 'continuous') return { flash: dark, continuous: main };
  const modelling = 'modelling' in light ? light.modelling?.temperatureK : undefined;
  return { flash: main, continuous: scaled(colourOf(camera, light, modelling), modellingCdM2) };
}

function colourOf(camera: Camera, light: Light, temperatureK: number | undefined): [number, number, number] {
  if (temperatureK === undefined) return [1, 1, 1];
  const shift = light.colour?.gels.reduce((sum, gel) => sum + gel.miredShift, 0) ?? 0;
  return lightColourRgb(shiftedTemperatureK(temperatureK, shift), camera.whiteBalanceK);
}

const scaled = (rgb: [number, number, number], by: number): [number, number, number] => [
  rgb[0] * by,
  rgb[1] * by,
  rgb[2] * by,
];

/**
 * What a polarising filter on the lens lets through of a film: its loss for unpolarised light; for light that kept
 * the polarisation of a film on the lamp, Malus's law with the filter's extinction.
 */
function filterFactor({ polariser }: Camera, light: Light, channel: Channel): number {
  if (!polariser) return 1;
  const even = 2 ** -polariser.lossStops;
  if (channel.part !== 'kept' || !isPolarised(light) || !('polarised' in light) || !light.polarised)
    return even;
  const angle = radians(polariser.axisDeg - light.polarised.axisDeg);
  const c2 = Math.cos(angle) ** 2;
  return 2 * even * (c2 + polariser.extinction * (1 - c2));
}
