import type { AimedLight, Camera, Light, StandingLight } from '@fendrix/contract';
import { F_NUMBERS, fStopsOf, ISO_SPEEDS, printedSetting } from '../exposure/series.js';
import { lightLuminance, onAxisLx } from '../photometry/output.js';
import { apparentAngleRad } from '../photometry/polygon.js';
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
  /** How wide its face then looks from its aim point, over how wide it looks now: above 1 softer, below 1 harder. */
  looksWider: number;
  /** How much more a spot 20 cm behind its aim point loses against it than now, stops: nearer light falls off faster. */
  fallsOffStops: number;
}

/** What stands behind the aim point for the fall-off told, m. */
const BEHIND_M = 0.2;
/** Another modifier counts as one for the same work up to this much larger or smaller across. */
const ALIKE = 1.7;
/** Kinds with a soft face: one of them does not take the place of a hard light, nor a hard one of theirs. */
const SOFT: ReadonlySet<Light['kind']> = new Set(['softbox', 'octa', 'umbrella', 'panel', 'ring', 'tube']);

const NEAREST_M = 0.15;

/**
 * Ways out when a light runs out by some stops, the cheapest first: what is taken off it, nearer to its aim point,
 * several flashes on one frame, a higher ISO, a wider f-stop; and another modifier of the kit that does the same work, soft or
 * hard alike and about as large.
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
  const add = (
    how: LightGain['how'],
    amount: number,
    gainStops: number,
    { all = false, looksWider = 1, fallsOffStops = 0, ...more }: Partial<LightGain> = {},
  ) =>
    gains.push({
      how,
      amount,
      gainStops,
      enough: gainStops >= shortStops - 0.05,
      all,
      looksWider,
      fallsOffStops,
      ...more,
    });
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
    const nearer = (d: number) =>
      add('closer', d, gainAt(d), {
        looksWider: apparentAngleRad(widest(light), d) / apparentAngleRad(widest(light), distance),
        fallsOffStops: fallOff(light, d) - fallOff(light, distance),
      });
    if (gainAt(near) < shortStops) nearer(near);
    else {
      for (let i = 0; i < 40; i++) {
        const middle = (near + far) / 2;
        if (gainAt(middle) >= shortStops) near = middle;
        else far = middle;
      }
      nearer(near);
    }
  }
  const best = strongest(light, others);
  if (best) add('modifier', 0, best.gain, best);
  if (isFlash(light)) {
    const pops = Math.ceil(2 ** shortStops - 1e-6);
    add('pops', pops, Math.log2(pops));
  }
  const iso = ISO_SPEEDS.find(({ value }) => Math.log2(value / camera.iso) >= shortStops - 0.01);
  if (iso) add('iso', iso.value, Math.log2(iso.value / camera.iso), { all: true });
  const wider = [...fStopsOf(camera.lens)]
    .reverse()
    .find(({ value }) => 2 * Math.log2(camera.fNumber / value) >= shortStops - 0.01);
  if (wider) add('f-stop', wider.value, 2 * Math.log2(camera.fNumber / wider.value), { all: true });
  return gains.sort((a, b) => Number(b.enough) - Number(a.enough));
}

/** Stops that a spot behind the aim point gets less than the aim point, with the light so far from it. */
const fallOff = (light: StandingLight, distanceM: number) =>
  Math.log2(onAxisLx(light, distanceM) / onAxisLx(light, distanceM + BEHIND_M));

/** Longer side of a face, m. */
function widest(light: Light): number {
  if ('widthM' in light) return Math.max(light.widthM, light.heightM);
  if ('outerDiameterM' in light) return light.outerDiameterM;
  if ('lengthM' in light) return light.lengthM;
  return 'diameterM' in light ? light.diameterM : 0.05;
}

interface Stronger extends Pick<LightGain, 'looksWider' | 'fallsOffStops'> {
  name: string;
  gain: number;
}

/** The light of the kit for the same work that gives most at the aim point, from the same place. */
function strongest(light: Light, others: readonly Light[]): Stronger | null {
  if (!('aimM' in light)) return null;
  const distance = length(subtract(light.positionM, light.aimM));
  const given = (own: Light) =>
    'aimM' in own ? lightLuminance({ ...own, powerStops: 0 }).luminance * onAxisLx(own, distance) : 0;
  const now = given(light);
  const sizeGap = (own: Light) => Math.abs(Math.log(widest(own) / widest(light)));
  const gains = others
    .filter((other): other is AimedLight => 'aimM' in other && other.kind !== 'window')
    .filter((other) => isFlash(other) === isFlash(light))
    .filter((other) => SOFT.has(other.kind) === SOFT.has(light.kind) && sizeGap(other) <= Math.log(ALIKE))
    .map((other) => ({
      name: other.name,
      gain: Math.log2(given(other) / now),
      looksWider: apparentAngleRad(widest(other), distance) / apparentAngleRad(widest(light), distance),
      fallsOffStops: fallOff(other, distance) - fallOff(light, distance),
    }))
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
