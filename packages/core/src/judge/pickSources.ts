import {
  MIRRORED,
  MIRRORED_WAY,
  MIRRORED_WEIGHT,
  SEEN_POINT,
  SEEN_SURFACE,
  THROUGH,
  THROUGH_FROM,
  THROUGH_WAY,
  THROUGH_WEIGHT,
} from '../engine/sight.js';
import { REFLECTS } from '../engine/surfaces/surfaceModel.js';
import { luminanceOf } from '../exposure/display.js';
import type { Thing } from '../geometry/scene.js';
import { polariseMirrored } from '../render/polariseMirrored.js';
import type { Tracing } from '../render/prepareTracing.js';
import { writeView } from '../render/view.js';

/** Where a part of the light of a spot comes from. */
export interface LightSource {
  /** By way of: the mirror, glass or net before it, or the spot's own surface. */
  how: 'mirrored' | 'through' | 'own';
  /** What is mirrored or seen through; of its own surface null. */
  thing: Thing | null;
  /** Film it is on. */
  channel: number;
  /** Luminance at unit luminance of the film: red, green, blue. Multiply by the film's weights. */
  unit: [number, number, number];
}

/** Mean light of some paths, and the variance of that mean. */
interface Traced {
  light: Float64Array;
  variance: Float64Array;
}

/** Standard errors above which a difference counts. */
const SURE = 2;

/** Rougher mirrors than this show nothing sharp: what they mirror counts as the surface's own. */
const SHARP_ALPHA = 0.15;

/**
 * Where the light comes from that a spot sends to the lens, apart by way and by film: what is mirrored, what is seen
 * through it, and the rest, which is its own surface. Path-traced along the single rays of `look`, so the parts add
 * up to what the picture shows there, within noise.
 */
export function pickSources(
  tracing: Tracing,
  origin: ArrayLike<number>,
  direction: ArrayLike<number>,
  samples: number,
): LightSource[] {
  const { scene, tables, models, engine, view } = tracing;
  const channels = scene.channelCount;
  /** Films of how light is polarised may be below 0. */
  const planes = tables.planeChannel.filter((plane) => plane >= 0);
  const isSigned = (channel: number) => planes.some((plane) => channel === plane || channel === plane + 1);
  const trace = (from: ArrayLike<number>, way: ArrayLike<number>, seed: number): Traced => {
    const sum = new Float64Array(3 * channels);
    const squares = new Float64Array(3 * channels);
    writeView(engine.view, view);
    engine.reseed(seed);
    engine.setMode({});
    for (let i = 0; i < samples; i++) {
      engine.startSample(0, i);
      for (let a = 0; a < 3; a++) {
        engine.point[a] = from[a] as number;
        engine.direction[a] = way[a] as number;
      }
      engine.films.fill(0);
      engine.trace(false);
      for (let k = 0; k < sum.length; k++) {
        const value = engine.films[k] as number;
        sum[k] = (sum[k] as number) + value / samples;
        squares[k] = (squares[k] as number) + (value * value) / samples;
      }
    }
    const variance = squares.map((square, k) => Math.max(0, square - (sum[k] as number) ** 2) / samples);
    return { light: sum, variance };
  };
  engine.point.set(Array.from(origin));
  engine.direction.set(Array.from(direction));
  engine.look();
  const sight = Float64Array.from(engine.sight);
  const part = (at: number) => sight.subarray(at, at + 3);
  const surface = scene.surfaces[sight[SEEN_SURFACE] as number];
  const { light: rest, variance } = trace(origin, direction, 1);
  const sources: LightSource[] = [];

  const take = (
    how: 'mirrored' | 'through',
    primitive: number,
    { light, variance: own }: Traced,
    weight: Float64Array,
  ) => {
    const thing = primitive < 0 ? null : (scene.things[scene.table.thing[primitive] as number] ?? null);
    for (let channel = 0; channel < channels; channel++) {
      const unit = [0, 1, 2].map((c) => {
        const k = 3 * channel + c;
        const value = (light[k] as number) * (weight[c] as number);
        rest[k] = (rest[k] as number) - value;
        variance[k] = (variance[k] as number) + (own[k] as number) * (weight[c] as number) ** 2;
        return value;
      }) as [number, number, number];
      if (luminanceOf(...unit) !== 0) sources.push({ how, thing, channel, unit });
    }
  };

  if ((sight[MIRRORED] as number) >= -1 && isSharp(surface)) {
    const light = trace(part(SEEN_POINT), part(MIRRORED_WAY), 2);
    polariseMirrored(tracing, Float64Array.from(direction), sight, light.light);
    take('mirrored', sight[MIRRORED] as number, light, part(MIRRORED_WEIGHT));
  }
  if ((sight[THROUGH] as number) >= -1) {
    const light = trace(part(THROUGH_FROM), part(THROUGH_WAY), 3);
    take('through', sight[THROUGH] as number, light, part(THROUGH_WEIGHT));
  }
  // A clear mirror has nothing of its own: what is left there is noise.
  if (surface && models.ofKind(surface.kind).interaction === REFLECTS) return sources;
  for (let channel = 0; channel < channels; channel++) {
    // What is left over is a difference of two noisy sums: below its own noise it is nothing.
    for (let k = 3 * channel; k < 3 * channel + 3; k++) {
      const left = isSigned(channel) ? Math.abs(rest[k] as number) : (rest[k] as number);
      if (left < SURE * Math.sqrt(variance[k] as number)) rest[k] = 0;
    }
    const unit = Array.from(rest.subarray(3 * channel, 3 * channel + 3)) as [number, number, number];
    if (luminanceOf(...unit) !== 0) sources.push({ how: 'own', thing: null, channel, unit });
  }
  return sources;
}

function isSharp(
  surface: { coat: { alpha: number } | null; lobe: { alphaY: number } | null } | undefined,
): boolean {
  if (!surface) return false;
  if (surface.coat) return surface.coat.alpha < SHARP_ALPHA;
  return surface.lobe === null || surface.lobe.alphaY < SHARP_ALPHA;
}
