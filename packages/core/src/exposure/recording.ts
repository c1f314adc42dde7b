import type { Camera, Light, SetDocument } from '@fendrix/contract';
import { lightColourRgb, shiftedTemperatureK } from '../colour/whitePoint.js';
import { SUN_RADIUS_RAD } from '../engine/emitters.js';
import { lensFigures } from '../optics/lens.js';
import { type Channel, channelsOf, type StokesNumber } from '../photometry/channels.js';
import { dialGives, lightLuminance } from '../photometry/output.js';
import { radians } from '../units/angle.js';
import { METER_K, MID_TONE } from './exposure.js';

/** Luminance times time, cd s/m2, that this camera records as mid-tone, by its true ISO, the close-focus loss included. */
export function recordedMidToneCdSM2(camera: Camera): number {
  const iso = camera.iso * 2 ** (camera.body.response?.isoStops ?? 0);
  return (METER_K * lensFigures(camera).effectiveFNumber ** 2) / iso;
}

/**
 * For each film the factors, red green blue, to luminance times time, cd s/m2: flash as it is, continuous light
 * times the shutter, colour and gels against the white balance, film and filter, nothing when switched off.
 */
export function exposureWeights(set: SetDocument): Float64Array {
  return weightsBehind(set, set.camera.polariser, set.camera.shutterS);
}

/** The same without the filter that may be on the lens. */
export const unfilteredWeights = (set: SetDocument): Float64Array =>
  weightsBehind(set, undefined, set.camera.shutterS);

/** @param filter that the light goes through; the films are those of the set, whatever is on its lens */
function weightsBehind(set: SetDocument, filter: Camera['polariser'], shutterS: number): Float64Array {
  const weights: number[] = [];
  for (const channel of channelsOf(set)) {
    const light = set.lights[channel.light] as Light;
    const passes = light.on ? filterFactor(filter, channel.stokes) : 0;
    const { flash, continuous } = channelLuminance(set.camera, light, channel);
    for (let c = 0; c < 3; c++) {
      weights.push(passes * ((flash[c] as number) + (continuous[c] as number) * shutterS));
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
  const weights = weightsBehind(set, undefined, flash ? set.camera.shutterS : 1);
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
    const sun = (light.sun.illuminanceLx / disc) * 2 ** (light.powerStops * dialGives(light));
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
 * What a polarising filter on the lens lets through of a film: its loss for unpolarised light; Malus's law, with what passes of
 * crossed light, for the rest. The slant counts as the engine's films do, see `Stokes`.
 */
function filterFactor(filter: Camera['polariser'], stokes: StokesNumber): number {
  if (!filter) return stokes === 'all' ? 1 : 0;
  const even = 2 ** -filter.lossStops;
  const parts = (even * (1 - filter.extinction)) / (1 + filter.extinction);
  const twice = 2 * radians(filter.axisDeg);
  switch (stokes) {
    case 'all':
      return even;
    case 'plane':
      return -parts * Math.cos(twice);
    case 'slant':
      return -parts * Math.sin(twice);
  }
}
