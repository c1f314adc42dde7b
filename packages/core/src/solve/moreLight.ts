import type { Camera, Light } from '@fendrix/contract';
import { F_NUMBERS, ISO_SPEEDS, printedSetting } from '../exposure/series.js';
import { lightLuminance, onAxisLx } from '../photometry/output.js';
import { length, subtract } from '../units/vector.js';

/** A way to more light from one light, with what it gains and costs. */
export interface LightGain {
  how: 'closer' | 'iso' | 'f-stop' | 'pops' | 'grid' | 'film' | 'gels' | 'modifier';
  /** Of another modifier its name. */
  name?: string;
  /** Distance m, ISO, f-number, or number of flashes; stops for what is taken off. */
  amount: number;
  /** Stops of this light gained. */
  gainStops: number;
  /** Whether it gains all that is missing. */
  enough: boolean;
  /** Everything in the picture gets brighter with it, not this light alone. */
  all: boolean;
}

const NEAREST_M = 0.15;

/**
 * Ways out when a light runs out by some stops, the cheapest first: what is taken off it, nearer to its aim point,
 * several flashes on one frame, a higher ISO, a wider f-stop.
 * @param others lights of the kit, for the modifier that gives most on the same spot from the same place
 * Nearer by the light of its face on axis, exactly for its size; it then also looks larger and is softer.
 */
export function moreLight(
  light: Light,
  camera: Camera,
  shortStops: number,
  others: readonly Light[] = [],
): LightGain[] {
  if (!(shortStops > 0)) return [];
  const gains: LightGain[] = [];
  const add = (how: LightGain['how'], amount: number, gainStops: number, all = false) =>
    gains.push({ how, amount, gainStops, enough: gainStops >= shortStops - 0.05, all });
  if ('grid' in light && light.grid) add('grid', light.grid.lossStops, light.grid.lossStops);
  if ('polarised' in light && light.polarised)
    add('film', light.polarised.lossStops, light.polarised.lossStops);
  const gels = light.colour?.gels.reduce((sum, { lossStops }) => sum + lossStops, 0) ?? 0;
  if (gels > 0) add('gels', gels, gels);
  if ('aimM' in light && light.kind !== 'window') {
    const distance = length(subtract(light.positionM, light.aimM));
    const gainAt = (d: number) => Math.log2(onAxisLx(light, d) / onAxisLx(light, distance));
    let near = Math.min(NEAREST_M, distance);
    let far = distance;
    if (gainAt(near) < shortStops) add('closer', near, gainAt(near));
    else {
      for (let i = 0; i < 40; i++) {
        const middle = (near + far) / 2;
        if (gainAt(middle) >= shortStops) near = middle;
        else far = middle;
      }
      add('closer', near, gainAt(near));
    }
  }
  const best = strongest(light, others);
  if (best)
    gains.push({
      how: 'modifier',
      amount: 0,
      name: best.name,
      gainStops: best.gain,
      enough: best.gain >= shortStops - 0.05,
      all: false,
    });
  if (isFlash(light)) {
    const pops = Math.ceil(2 ** shortStops - 1e-6);
    add('pops', pops, Math.log2(pops));
  }
  const iso = ISO_SPEEDS.find(({ value }) => Math.log2(value / camera.iso) >= shortStops - 0.01);
  if (iso) add('iso', iso.value, Math.log2(iso.value / camera.iso), true);
  const wider = [...F_NUMBERS]
    .reverse()
    .find(({ value }) => 2 * Math.log2(camera.fNumber / value) >= shortStops - 0.01);
  if (wider) add('f-stop', wider.value, 2 * Math.log2(camera.fNumber / wider.value), true);
  return gains.sort((a, b) => Number(b.enough) - Number(a.enough));
}

/** The light of the kit of the same sort that gives most at the aim point, from the same place. */
function strongest(light: Light, others: readonly Light[]): { name: string; gain: number } | null {
  if (!('aimM' in light)) return null;
  const distance = length(subtract(light.positionM, light.aimM));
  const given = (own: Light) =>
    'aimM' in own ? lightLuminance({ ...own, powerStops: 0 }).luminance * onAxisLx(own, distance) : 0;
  const now = given(light);
  const gains = others
    .filter((other) => isFlash(other) === isFlash(light) && 'aimM' in other && other.kind !== 'window')
    .map((other) => ({ name: other.name, gain: Math.log2(given(other) / now) }))
    .filter(({ gain }) => gain > 0.1)
    .sort((a, b) => b.gain - a.gain);
  return gains[0] ?? null;
}

function isFlash({ output }: Light): boolean {
  return output.kind === 'flash-energy' || output.kind === 'guide-number' || output.kind === 'flash-exposure';
}

/** An f-number or ISO as printed on its dial. */
export const printedGain = ({ how, amount }: LightGain): string =>
  how === 'iso' ? `ISO ${printedSetting(ISO_SPEEDS, amount)}` : `f/${printedSetting(F_NUMBERS, amount)}`;
