import type { SetDocument, Spot, Vector } from '@fendrix/contract';
import { RAY_TO } from '../engine/layouts.js';
import { luminanceOf } from '../exposure/display.js';
import { incidentExposureLxS } from '../exposure/exposure.js';
import { type AmbientShare, ambientShare } from '../exposure/flash.js';
import { exposureWeights, recordedMidToneCdSM2, unfilteredWeights } from '../exposure/recording.js';
import { channelsOf } from '../photometry/channels.js';
import { bakeLightmaps, type Tracing } from '../render/prepareTracing.js';
import { writeView } from '../render/view.js';
import { setRay } from '../trace/engineCalls.js';
import { add, distance, normalise, scale, subtract } from '../units/vector.js';
import { illuminanceByLight, type LightShare, mean, toldError } from './illuminance.js';
import { type LightReading, lightReadings } from './lightReadings.js';

/** A spot as traced, free of power, shutter and exposure: those are applied by `spotReading`. */
export interface SpotTrace {
  name: string;
  /** On the surface nearest to the pinned point, or the point itself in free air. */
  pointM: Vector;
  /** Illuminance by film at unit luminance. */
  illuminance: LightShare[];
  /** Luminance towards the lens by film at unit luminance, red green blue; null when the lens does not see it. */
  seen: Rgb[] | null;
  /** The same from each of some equal, independent parts of the samples: their spread tells how sure it is. */
  seenParts: Rgb[][];
  /** The same as pictures have it, with lightmaps and bundled light, by few paths: see `standardErrorStops`. Null where that was not asked. */
  seenBaked: Rgb[] | null;
  samples: number;
}

type Rgb = [number, number, number];

/** Parts of the samples of one trace that are kept apart. */
const PARTS = 8;
/** Of so many paths on the light is also looked at as pictures have it, with a part of the paths. */
const BAKED_FROM = 1024;
const BAKED_PART = 1 / 8;

/** How far from a pinned point its surface is looked for, m. */
const PIN_REACH_M = 5e-3;
/** How near to the spot a ray from the lens must arrive to see it, m. */
const SEEN_WITHIN_M = 1e-3;

/** Traces one pinned spot with so many samples, rounded up to whole parts. */
export function traceSpot(tracing: Tracing, spot: Spot, samples: number, seed: number): SpotTrace {
  const normal = normalise(spot.normal);
  const pointM = nearestSurface(tracing, spot.pointM, normal);
  const perPart = Math.ceil(samples / PARTS);
  const seenParts = luminanceTowardsLens(tracing, pointM, perPart, seed, false);
  const baked = samples >= BAKED_FROM && seenParts.length > 0;
  if (baked) bakeLightmaps(tracing);
  return {
    name: spot.name,
    pointM,
    illuminance: illuminanceByLight(tracing, pointM, normal, { samples, seed, directOnly: false }),
    seen: meanOfParts(seenParts),
    seenParts,
    seenBaked: baked
      ? meanOfParts(luminanceTowardsLens(tracing, pointM, Math.ceil(perPart * BAKED_PART), seed, true))
      : null,
    samples,
  };
}

/** Two traces of one spot in one set, of other seeds and as many samples a part, as one. */
export function joinedTrace(one: SpotTrace, other: SpotTrace): SpotTrace {
  const samples = one.samples + other.samples;
  const weight = one.samples / samples;
  const seenParts = [...one.seenParts, ...other.seenParts];
  const illuminance = one.illuminance.map((share, film) => {
    const also = other.illuminance[film] as LightShare;
    return {
      direct: weight * share.direct + (1 - weight) * also.direct,
      indirect: weight * share.indirect + (1 - weight) * also.indirect,
      standardError: Math.hypot(weight * share.standardError, (1 - weight) * also.standardError),
    };
  });
  return {
    ...one,
    illuminance,
    seen: meanOfParts(seenParts),
    seenParts,
    seenBaked: mixed(one.seenBaked, other.seenBaked, weight),
    samples,
  };
}

/** Two means as one, the first with a weight; the one that is there where the other is not. */
function mixed(one: Rgb[] | null, other: Rgb[] | null, weight: number): Rgb[] | null {
  if (!one || !other) return one ?? other;
  return one.map((rgb, film) => {
    const at = (c: number) => weight * (rgb[c] as number) + (1 - weight) * (other[film]?.[c] ?? 0);
    return [at(0), at(1), at(2)];
  });
}

function meanOfParts(parts: readonly Rgb[][]): Rgb[] | null {
  const first = parts[0];
  if (!first) return null;
  return first.map((_, film) => {
    const at = (c: number) => mean(parts.map((part) => part[film]?.[c] ?? 0));
    return [at(0), at(1), at(2)];
  });
}

function nearestSurface({ engine }: Tracing, point: Vector, normal: Vector): Vector {
  const start = add(point, scale(normal, PIN_REACH_M));
  const inwards = scale(normal, -1);
  setRay(engine.ray, start, inwards, 2 * PIN_REACH_M);
  return engine.closestHit() < 0 ? point : add(start, scale(inwards, engine.ray[RAY_TO] as number));
}

/** @returns the luminance by film of each part; none where the lens does not see the point */
function luminanceTowardsLens(
  { engine, view, scene }: Tracing,
  point: Vector,
  perPart: number,
  seed: number,
  lightmaps: boolean,
): Rgb[][] {
  const away = distance(point, view.origin);
  const direction = normalise(subtract(point, view.origin));
  setRay(engine.ray, view.origin, direction);
  if (engine.closestHit() < 0 || Math.abs((engine.ray[RAY_TO] as number) - away) > SEEN_WITHIN_M) return [];
  writeView(engine.view, view);
  engine.reseed(seed);
  engine.setMode({ lightmaps });
  engine.point.set(view.origin);
  engine.direction.set(direction);
  const parts = Array.from({ length: PARTS }, (_, part) => {
    engine.films.fill(0);
    for (let i = 0; i < perPart; i++) {
      engine.startSample(1 + part, i);
      engine.trace(false);
    }
    const { films } = engine;
    return Array.from({ length: scene.channelCount }, (_, channel): Rgb => {
      const [r = 0, g = 0, b = 0] = films.subarray(3 * channel, 3 * channel + 3);
      return [r / perPart, g / perPart, b / perPart];
    });
  });
  engine.setMode({});
  return parts;
}

export interface SpotReading {
  name: string;
  pointM: Vector;
  lights: (LightReading & {
    /** What this light alone is recorded as, stops from mid-tone; null when off or not seen. */
    stopsFromMidTone: number | null;
  })[];
  illuminanceLx: number;
  flashExposureLxS: number;
  /** What a flat incident meter here says against the settings, stops; null in the dark. */
  incidentStops: number | null;
  /** What the camera records, stops from mid-tone, mirror part and close-focus loss included. */
  stopsFromMidTone: number | null;
  /**
   * Standard error of that, twice which holds 95 of 100; null where there is none. From the spread of the parts by Student's t, and
   * from what the picture has here of other light than these paths have met (bundled by glass, say): half of what they differ by.
   */
  standardErrorStops: number | null;
  /** Whether that was held against the light that pictures have here: few paths alone may not have met what is bright and rare. */
  checked: boolean;
  /** What the filter on the lens takes of what comes from here, stops; null without one, and where nothing is seen. */
  filterStops: number | null;
  ambient: AmbientShare;
}

/** Tones are told to a tenth of a stop: above this standard error that tenth is not known, stops. */
const SURE_STOPS = 0.05;

/** Whether the tone of a spot is known to the tenth of a stop in which it is told. */
export const isSure = ({
  standardErrorStops,
  checked,
}: Pick<SpotReading, 'standardErrorStops' | 'checked'>): boolean =>
  standardErrorStops === null || (checked && standardErrorStops <= SURE_STOPS);

/** What a picture may be off by all over for its lightmaps, part: no more is said against the paths. */
const BAKED_BIAS = 0.012;
/** See `SpotReading.standardErrorStops`. @param baked luminance as the picture has it, null where that is not known */
function errorStops(parts: readonly number[], baked: number | null): number {
  const whole = mean(parts);
  const against = baked === null ? 0 : Math.max(0, Math.abs(baked - whole) - BAKED_BIAS * whole) / 2;
  return Math.hypot(toldError(parts), against) / (whole * Math.LN2);
}

/** Applies outputs, powers, switches and the camera's settings to a traced spot. No rays. */
export function spotReading(set: SetDocument, trace: SpotTrace): SpotReading {
  const { lights, illuminanceLx, flashExposureLxS } = lightReadings(set, trace.illuminance);
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const stops = (value: number, whole: number) => (value > 0 ? Math.log2(value / whole) : null);
  const channels = channelsOf(set);
  /** What the camera records of one film's luminance, cd/m2. */
  const recordedOf = (seen: readonly Rgb[], channel: number, by = weights) => {
    const [r, g, b] = seen[channel] ?? [0, 0, 0];
    const [red = 0, green = 0, blue = 0] = by.subarray(3 * channel, 3 * channel + 3);
    return luminanceOf(r * red, g * green, b * blue);
  };
  const wholeOf = (seen: readonly Rgb[], by = weights) =>
    channels.reduce((sum, _, channel) => sum + recordedOf(seen, channel, by), 0);
  const recorded = lights.map(() => 0);
  channels.forEach(({ light }, channel) => {
    recorded[light] = (recorded[light] ?? 0) + recordedOf(trace.seen ?? [], channel);
  });
  const whole = recorded.reduce((sum, value) => sum + value, 0);
  const continuousLxS = illuminanceLx * set.camera.shutterS;
  return {
    name: trace.name,
    pointM: trace.pointM,
    lights: lights.map((light, index) => ({
      ...light,
      stopsFromMidTone: stops(recorded[index] ?? 0, midTone),
    })),
    illuminanceLx,
    flashExposureLxS,
    incidentStops: stops(continuousLxS + flashExposureLxS, incidentExposureLxS(set.camera)),
    stopsFromMidTone: stops(whole, midTone),
    standardErrorStops:
      whole > 0
        ? errorStops(
            trace.seenParts.map((seen) => wholeOf(seen)),
            trace.seenBaked && wholeOf(trace.seenBaked),
          )
        : null,
    checked: trace.seenBaked !== null,
    filterStops:
      set.camera.polariser && trace.seen ? stops(wholeOf(trace.seen, unfilteredWeights(set)), whole) : null,
    ambient: ambientShare(continuousLxS, flashExposureLxS),
  };
}
