import type { SetDocument, Spot, Vector } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { incidentExposureLxS } from '../exposure/exposure.js';
import { type AmbientShare, ambientShare } from '../exposure/flash.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../exposure/recording.js';
import { channelsOf } from '../photometry/channels.js';
import type { Tracing } from '../render/prepareTracing.js';
import { setRay } from '../trace/engineCalls.js';
import { add, distance, normalise, scale, subtract } from '../units/vector.js';
import { illuminanceByLight, type LightShare } from './illuminance.js';
import { type LightReading, lightReadings } from './lightReadings.js';

/** A spot as traced, free of power, shutter and exposure: those are applied by `spotReading`. */
export interface SpotTrace {
  name: string;
  /** On the surface nearest to the pinned point, or the point itself in free air. */
  pointM: Vector;
  /** Illuminance by film at unit luminance. */
  illuminance: LightShare[];
  /** Luminance towards the lens by film at unit luminance, red green blue; null when the lens does not see it. */
  seen: [number, number, number][] | null;
}

/** How far from a pinned point its surface is looked for, m. */
const PIN_REACH_M = 5e-3;
/** How near to the spot a ray from the lens must arrive to see it, m. */
const SEEN_WITHIN_M = 1e-3;

/** Traces one pinned spot with so many samples. */
export function traceSpot(tracing: Tracing, spot: Spot, samples: number, seed: number): SpotTrace {
  const normal = normalise(spot.normal);
  const pointM = nearestSurface(tracing, spot.pointM, normal);
  return {
    name: spot.name,
    pointM,
    illuminance: illuminanceByLight(tracing, pointM, normal, { samples, seed, directOnly: false }),
    seen: luminanceTowardsLens(tracing, pointM, samples, seed),
  };
}

function nearestSurface({ kernel }: Tracing, point: Vector, normal: Vector): Vector {
  const start = add(point, scale(normal, PIN_REACH_M));
  const inwards = scale(normal, -1);
  setRay(kernel.ray, start, inwards, 2 * PIN_REACH_M);
  return kernel.closestHit() < 0 ? point : add(start, scale(inwards, kernel.ray[7] as number));
}

function luminanceTowardsLens(
  { kernel, view, scene }: Tracing,
  point: Vector,
  samples: number,
  seed: number,
): [number, number, number][] | null {
  const away = distance(point, view.origin);
  const direction = normalise(subtract(point, view.origin));
  setRay(kernel.ray, view.origin, direction);
  if (kernel.closestHit() < 0 || Math.abs((kernel.ray[7] as number) - away) > SEEN_WITHIN_M) return null;
  kernel.reseed(seed);
  kernel.setMode({});
  kernel.films.fill(0);
  kernel.point.set(view.origin);
  kernel.direction.set(direction);
  for (let i = 0; i < samples; i++) {
    kernel.startSample(1, i);
    kernel.trace(false);
  }
  const { films } = kernel;
  return Array.from({ length: scene.channelCount }, (_, channel) => {
    const [r = 0, g = 0, b = 0] = films.subarray(3 * channel, 3 * channel + 3);
    return [r / samples, g / samples, b / samples];
  });
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
  ambient: AmbientShare;
}

/** Applies outputs, powers, switches and the camera's settings to a traced spot. No rays. */
export function spotReading(set: SetDocument, trace: SpotTrace): SpotReading {
  const { lights, illuminanceLx, flashExposureLxS } = lightReadings(set, trace.illuminance);
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const stops = (value: number, whole: number) => (value > 0 ? Math.log2(value / whole) : null);
  const recorded = lights.map(() => 0);
  channelsOf(set).forEach(({ light }, channel) => {
    const [r, g, b] = trace.seen?.[channel] ?? [0, 0, 0];
    const [red = 0, green = 0, blue = 0] = weights.subarray(3 * channel, 3 * channel + 3);
    recorded[light] = (recorded[light] ?? 0) + luminanceOf(r * red, g * green, b * blue);
  });
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
    stopsFromMidTone: stops(
      recorded.reduce((sum, value) => sum + value, 0),
      midTone,
    ),
    ambient: ambientShare(continuousLxS, flashExposureLxS),
  };
}
