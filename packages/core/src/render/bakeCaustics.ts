import {
  BOX_LEAST,
  BOX_MOST,
  BOX_STRIDE,
  FLAT,
  MAP_PRIMITIVE,
  MAP_STRIDE,
  PHOTON_STRIDE,
  SURFACE_STRIDE,
} from '../engine/layouts.js';
import { BRIGHT_LIGHTMAPS, SENT_AT_ONCE } from '../engine/path/photonSource.js';
import { REFLECTS, REFRACTS, SCATTERS } from '../engine/surfaces/surfaceModel.js';
import type { SurfaceModels } from '../engine/surfaces/surfaceModels.js';
import type { SceneTables } from '../engine/tables.js';
import type { EngineCalls } from '../trace/engineCalls.js';
import { layDownPhotons } from './layDownPhotons.js';
import { OpenPart } from './openPart.js';

/** Photons sent in all, shared out among lights and things. */
export const PHOTONS = 200_000;
/** At least to each pair of them, parts of all; never more in all than the last. */
const FEWEST = 0.02;
const MOST = 3;
/** Side of the finest texels, part of the middle extent of the largest thing that bundles. */
const FINEST = 0.03;
const SEED = 0x51c3a7;

/** A thing that bundles light: its primitives that do, and the box round them, least and most x y z, m. */
interface BundlingThing {
  thing: number;
  primitives: number[];
  box: number[];
}

/** What is sent at what: from each light so many photons at each thing. */
interface Sending {
  /** Lamps by index, and `BRIGHT_LIGHTMAPS`. */
  lights: number[];
  things: BundlingThing[];
  each: number;
}

/** What there is to send, from the lamps and bright lightmaps that the tables have; null for nothing. */
function sendingOf(tables: SceneTables, models: SurfaceModels, photons = PHOTONS): Sending | null {
  const bright = new Set(
    [...tables.brightLightmap].map((map) => tables.lightmaps[map * MAP_STRIDE + MAP_PRIMITIVE] as number),
  );
  const shining = [...Array(tables.count).keys()]
    .filter((i) => (tables.emitterOf[i] as number) >= 0 || bright.has(i))
    .map((i) => boundsOf(tables, i));
  const lights = [...Array(tables.emitterCount).keys(), ...(bright.size > 0 ? [BRIGHT_LIGHTMAPS] : [])];
  const things = bundlingThings(tables, models)
    .filter(({ box }) => !shining.some((light) => overlap(light, box)))
    .sort((a, b) => middleExtent(b) - middleExtent(a))
    .slice(0, Math.floor(MOST / FEWEST / Math.max(1, lights.length)));
  if (things.length === 0 || lights.length === 0) return null;
  const each = Math.round(photons * Math.max(FEWEST, 1 / (lights.length * things.length)));
  return { lights, things, each };
}

/**
 * Sends light from each lamp and from the bright lightmaps at each thing that bundles it: what comes to rest is light that paths
 * from the lens would find by chance only. The same numbers whatever else is traced: each pair has its own sequence.
 * A thing into whose box a light reaches is left to chance, and of very many the smaller ones.
 * @param part of so many in which all is sent; one after the other they are those of all  @param photonCount in all
 * @returns `PHOTON_STRIDE` numbers for each that came to rest
 */
export function sendPhotons(
  tables: SceneTables,
  engine: EngineCalls,
  models: SurfaceModels,
  part = 0,
  of = 1,
  photonCount = PHOTONS,
): Float32Array {
  const sending = sendingOf(tables, models, photonCount);
  if (!sending) return new Float32Array(0);
  const { lights, things, each } = sending;
  markBundling(tables, things);
  engine.renewCaustics();
  engine.reseed(SEED);
  engine.setMode({});
  const runs = Math.ceil(each / SENT_AT_ONCE);
  const all = lights.length * things.length * runs;
  const from = Math.floor((part * all) / of);
  const to = Math.floor(((part + 1) * all) / of);
  const photons = new Float32Array((to - from) * SENT_AT_ONCE * PHOTON_STRIDE);
  let count = 0;
  for (let i = from; i < to; i++) {
    const pair = Math.floor(i / runs);
    const { thing, box } = things[pair % things.length] as BundlingThing;
    const lamp = lights[Math.floor(pair / things.length)] as number;
    const first = (i % runs) * SENT_AT_ONCE;
    engine.photonBox.set(box);
    const rested = engine.sendPhotons(lamp, thing, first, Math.min(SENT_AT_ONCE, each - first), each);
    photons.set(engine.photons.subarray(0, rested * PHOTON_STRIDE), count * PHOTON_STRIDE);
    count += rested;
  }
  return photons.slice(0, count * PHOTON_STRIDE);
}

/** Keeps photons where they came to rest. @param parts all that were sent, in their order */
export function keepPhotons(
  tables: SceneTables,
  engine: EngineCalls,
  models: SurfaceModels,
  parts: readonly Float32Array[],
): void {
  const sending = sendingOf(tables, models);
  if (!sending) return;
  markBundling(tables, sending.things);
  const photons = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    photons.set(part, at);
    at += part.length;
  }
  const open = new OpenPart(
    tables,
    engine,
    models,
    sending.things.map(({ box }) => box),
  );
  layDownPhotons(tables, photons, FINEST * Math.max(...sending.things.map(middleExtent)), (...texel) =>
    open.of(...texel),
  );
  engine.renewCaustics();
}

function markBundling(tables: SceneTables, things: readonly BundlingThing[]): void {
  tables.bundles = new Int32Array(tables.count);
  for (const { primitives } of things) for (const i of primitives) tables.bundles[i] = 1;
}

const middleExtent = ({ box }: BundlingThing): number =>
  [0, 1, 2].map((a) => (box[3 + a] as number) - (box[a] as number)).sort((a, b) => a - b)[1] as number;

/**
 * Bodies with clear boundaries, curved mirrors, or curved coats and metal, clear or satin; flat ones make images, by way of which
 * lights are sampled.
 */
function bundlingThings(tables: SceneTables, models: SurfaceModels): BundlingThing[] {
  const found = new Map<number, BundlingThing>();
  for (let i = 0; i < tables.count; i++) {
    const surface = tables.front[i] as number;
    const model = models.ofSurface(surface);
    const { interaction } = model;
    const row = surface * SURFACE_STRIDE;
    const shines = interaction === SCATTERS && (model.isSpecular(row) || model.bundlesByLobe(row));
    const mirrors = interaction === REFLECTS || shines;
    if (interaction !== REFRACTS && !(mirrors && tables.kind[i] !== FLAT)) continue;
    const thing = tables.thing[i] as number;
    const own = boundsOf(tables, i);
    const known = found.get(thing) ?? { thing, box: [...own], primitives: [] };
    for (let a = 0; a < 6; a++)
      known.box[a] = (a < 3 ? Math.min : Math.max)(known.box[a] as number, own[a] as number);
    known.primitives.push(i);
    found.set(thing, known);
  }
  return [...found.values()];
}

const boundsOf = ({ bounds }: SceneTables, i: number): number[] => [
  ...bounds.subarray(i * BOX_STRIDE + BOX_LEAST, i * BOX_STRIDE + BOX_LEAST + 3),
  ...bounds.subarray(i * BOX_STRIDE + BOX_MOST, i * BOX_STRIDE + BOX_MOST + 3),
];

const overlap = (one: readonly number[], other: readonly number[]): boolean =>
  [0, 1, 2].every(
    (a) => (one[a] as number) < (other[3 + a] as number) && (one[3 + a] as number) > (other[a] as number),
  );
