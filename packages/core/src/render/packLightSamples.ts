import { EMITTER_CHANNEL, EMITTER_STRIDE } from '../engine/layouts.js';
import type { SceneTables } from '../engine/tables.js';
import type { Gathered } from './bakeLightmaps.js';
import type { LightmapLayout } from './lightmaps.js';

/** How far single samples of a lamp stray, as a part of all the light of its film: below this one is taken, */
const LITTLE = 0.05;
/** below this half as often as usual, */
const SOME = 0.3;
/** and above this, as in half-shadows, twice as often. */
const MUCH = 0.7;
/** Bright lightmaps are sampled so often, and this often where they bring more than this part of the light. */
const OF_BRIGHT = 2;
const OF_MANY_BRIGHT = 4;
const BRIGHT_SHARE = 0.4;

/** The fewer lamps there are, the more each of them counts. */
const usualSamples = (lamps: number): number => (lamps === 1 ? 4 : lamps <= 3 ? 2 : 1);

/**
 * Writes how often each lamp, and at the end of each row the bright lightmaps, are sampled from each patch where a path is
 * first scattered: often where they bring much and single answers differ much. The last row is for what is no lightmap.
 * The number is fixed before any sample is taken, so it changes the noise and not the mean.
 * @param parts of all patches, from `gatherPatches`
 */
export function packLightSamples(
  tables: SceneTables,
  { lightmaps, patches }: LightmapLayout,
  parts: readonly Gathered[],
): void {
  const lamps = tables.emitterCount;
  const usual = usualSamples(lamps);
  const samples = new Int32Array((patches + 1) * (lamps + 1)).fill(usual);
  const bright = new Uint8Array(patches);
  lightmaps.forEach(({ first, across, up }, index) => {
    if ((tables.brightIndex[index] as number) >= 0) bright.fill(1, first, first + across * up);
  });
  for (const part of parts) {
    for (let patch = 0; patch < part.count; patch++) {
      const row = (part.first + patch) * (lamps + 1);
      for (let lamp = 0; lamp < lamps; lamp++) {
        const stray = strayOf(tables, part, patch, lamp);
        const times = stray < LITTLE ? 1 : stray < SOME ? usual / 2 : stray > MUCH ? 2 * usual : usual;
        samples[row + lamp] = Math.max(1, times);
      }
      const much = brightShare(tables, part, patch, bright) > BRIGHT_SHARE;
      samples[row + lamps] = much ? OF_MANY_BRIGHT : OF_BRIGHT;
    }
  }
  samples[samples.length - 1] = OF_BRIGHT;
  tables.lightSamples = samples;
}

/** Standard deviation of a lamp's answers at a patch, over all the light of its film there. */
function strayOf(tables: SceneTables, { first, told }: Gathered, patch: number, lamp: number): number {
  const at = 2 * (patch * tables.emitterCount + lamp);
  const mean = told[at] as number;
  const variance = (told[at + 1] as number) - mean * mean;
  const all = lightOf(
    tables,
    first + patch,
    tables.emitters[lamp * EMITTER_STRIDE + EMITTER_CHANNEL] as number,
  );
  return variance > 0 && all > 0 ? Math.sqrt(variance) / all : 0;
}

/** Part of the light of a patch that comes from sheets marked as bright: the mean over all films that light it. */
function brightShare(
  tables: SceneTables,
  { first, rays, met, factor }: Gathered,
  patch: number,
  bright: Uint8Array,
): number {
  const { channelCount, irradiance } = tables;
  let shares = 0;
  let films = 0;
  for (let channel = 0; channel < channelCount; channel++) {
    const all = lightOf(tables, first + patch, channel);
    if (!(all > 0)) continue;
    films++;
    for (let i = 2 * patch * rays; i < 2 * (patch + 1) * rays; i++) {
      const source = met[i] as number;
      if (source < 0 || bright[source] === 0) continue;
      const at = 3 * (source * channelCount + channel);
      for (let c = 0; c < 3; c++)
        shares += ((factor[3 * i + c] as number) * (irradiance[at + c] as number)) / all;
    }
  }
  return films > 0 ? shares / films : 0;
}

/** Irradiance of a patch by one film, all colours together. */
function lightOf({ channelCount, irradiance }: SceneTables, patch: number, channel: number): number {
  const at = 3 * (patch * channelCount + channel);
  return (irradiance[at] as number) + (irradiance[at + 1] as number) + (irradiance[at + 2] as number);
}
