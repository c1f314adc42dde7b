import type { SetDocument } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { exposureWeights, recordedMidToneCdSM2 } from '../exposure/recording.js';
import type { Thing } from '../geometry/scene.js';
import { channelsOf } from '../photometry/channels.js';
import { createLook, look } from '../render/look.js';
import { bakeLightmaps, type Tracing } from '../render/prepareTracing.js';
import type { FrameRect } from '../render/view.js';
import { rayThrough, writeView } from '../render/view.js';

/** Read places of a part of the frame, free of power and exposure. */
export interface FieldTrace {
  rect: FrameRect;
  across: number;
  down: number;
  /** What each place sees, by its number among `things`; -1 for nothing. */
  thing: Int32Array;
  things: Thing[];
  /** [(place * films + film) * 3 + colour] at unit luminance. */
  unit: Float32Array;
  samples: number;
}

/**
 * Reads a grid of places in a part of the frame, path-traced with lightmaps; each sample anywhere in its cell.
 * @param samples paths a place
 */
export function traceField(
  tracing: Tracing,
  rect: FrameRect,
  { across, down, samples, seed = 1 }: { across: number; down: number; samples: number; seed?: number },
): FieldTrace {
  const { engine, view, scene } = tracing;
  bakeLightmaps(tracing);
  const width = scene.channelCount * 3;
  const unit = new Float32Array(across * down * width);
  const thing = new Int32Array(across * down);
  const direction = new Float64Array(3);
  const seen = createLook();
  writeView(engine.view, view);
  engine.reseed(seed);
  for (let place = 0; place < across * down; place++) {
    const [i, j] = [place % across, Math.floor(place / across)];
    const aim = (u: number, v: number) =>
      rayThrough(
        direction,
        view,
        rect.left + ((i + u) / across) * (rect.right - rect.left),
        rect.top + ((j + v) / down) * (rect.bottom - rect.top),
      );
    aim(0.5, 0.5);
    look(seen, tracing, view.origin, direction);
    thing[place] = seen.thing;
    engine.setMode({ lightmaps: true });
    engine.films.fill(0);
    for (let sample = 0; sample < samples; sample++) {
      engine.startSample(place, sample);
      engine.next();
      aim(engine.uv[0] as number, engine.uv[1] as number);
      engine.point.set(view.origin);
      engine.direction.set(direction);
      engine.trace(false);
    }
    for (let k = 0; k < width; k++) unit[place * width + k] = (engine.films[k] as number) / samples;
  }
  engine.setMode({});
  return { rect, across, down, thing, things: scene.things, unit, samples };
}

/** Recorded tone of each place, stops from mid-tone; -Infinity for black. No rays. */
export function fieldStops(set: SetDocument, field: FieldTrace): Float64Array {
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const width = weights.length;
  const { unit } = field;
  const stops = new Float64Array(field.thing.length);
  for (let place = 0; place < stops.length; place++) {
    let [r, g, b] = [0, 0, 0];
    for (let k = 0; k < width; k += 3) {
      const at = place * width + k;
      r += (weights[k] as number) * (unit[at] ?? 0);
      g += (weights[k + 1] as number) * (unit[at + 1] ?? 0);
      b += (weights[k + 2] as number) * (unit[at + 2] ?? 0);
    }
    stops[place] = Math.log2(luminanceOf(r, g, b) / midTone);
  }
  return stops;
}

/**
 * Mean recorded luminance of the places that see certain things, apart by light, over mid-tone (1 is mid-tone).
 * @returns one value for each light of the set, 0 for those that are off
 */
export function fieldByLight(
  set: SetDocument,
  field: FieldTrace,
  wanted: readonly Thing['kind'][],
): number[] {
  const weights = exposureWeights(set);
  const midTone = recordedMidToneCdSM2(set.camera);
  const channels = channelsOf(set);
  const sums = set.lights.map(() => 0);
  let places = 0;
  field.thing.forEach((thing, place) => {
    const kind = field.things[thing]?.kind;
    if (kind === undefined || !wanted.includes(kind)) return;
    places++;
    channels.forEach(({ light }, channel) => {
      const rgb = [0, 1, 2].map((c) => {
        const k = 3 * channel + c;
        return (weights[k] as number) * (field.unit[place * weights.length + k] ?? 0);
      }) as [number, number, number];
      sums[light] = (sums[light] ?? 0) + luminanceOf(...rgb) / midTone;
    });
  });
  return sums.map((sum) => (places === 0 ? 0 : sum / places));
}

export interface FieldFigures {
  places: number;
  /** Tone of the mean luminance, and of the brightest and darkest block of places, stops from mid-tone. */
  meanStops: number;
  mostStops: number;
  leastStops: number;
  /** Brightest over darkest, stops. */
  rangeStops: number;
  /** Means of the left and right, upper and lower half, stops from mid-tone; null where a half has no place. */
  halves: { left: number | null; right: number | null; top: number | null; bottom: number | null };
  /** A place of the brightest block, parts of the frame. */
  brightest: [number, number];
}

/**
 * Level and evenness of the places that see certain things; null where none does.
 * @param wanted kinds to count; all if left out
 */
export function fieldFigures(
  field: FieldTrace,
  stops: Float64Array,
  wanted?: readonly Thing['kind'][],
): FieldFigures | null {
  const { across, down, rect } = field;
  const kept = [...stops.keys()].filter((place) => {
    const kind = field.things[field.thing[place] as number]?.kind;
    return !wanted || (kind !== undefined && wanted.includes(kind));
  });
  if (kept.length === 0) return null;
  const mean = (places: readonly number[]) =>
    places.length === 0
      ? null
      : Math.log2(places.reduce((sum, place) => sum + 2 ** (stops[place] as number), 0) / places.length);
  const blocks = blocksOf(field, kept).map((places) => ({ places, stops: mean(places) as number }));
  const most = Math.max(...blocks.map((block) => block.stops));
  const least = Math.min(...blocks.map((block) => block.stops));
  const brightest = blocks.find((block) => block.stops === most)?.places[0] ?? 0;
  const column = (place: number) => place % across;
  const row = (place: number) => Math.floor(place / across);
  return {
    places: kept.length,
    meanStops: mean(kept) ?? Number.NEGATIVE_INFINITY,
    mostStops: most,
    leastStops: least,
    rangeStops: most - least,
    halves: {
      left: mean(kept.filter((place) => column(place) < across / 2)),
      right: mean(kept.filter((place) => column(place) >= across / 2)),
      top: mean(kept.filter((place) => row(place) < down / 2)),
      bottom: mean(kept.filter((place) => row(place) >= down / 2)),
    },
    brightest: [
      rect.left + ((column(brightest) + 0.5) / across) * (rect.right - rect.left),
      rect.top + ((row(brightest) + 0.5) / down) * (rect.bottom - rect.top),
    ],
  };
}

/** Blocks across a field: extremes are told of means over them, so that noise of single places does not widen the range. */
const BLOCKS_ACROSS = 6;

function blocksOf({ across }: FieldTrace, kept: readonly number[]): number[][] {
  const side = Math.max(1, Math.round(across / BLOCKS_ACROSS));
  const blocks = new Map<string, number[]>();
  for (const place of kept) {
    const key = `${Math.floor((place % across) / side)} ${Math.floor(Math.floor(place / across) / side)}`;
    blocks.set(key, [...(blocks.get(key) ?? []), place]);
  }
  // A block that hardly has a place is as noisy as that place.
  const full = [...blocks.values()].filter((places) => places.length * 2 >= side * side);
  return full.length > 0 ? full : [...blocks.values()];
}

/**
 * What veiling glare does to a dark place: a part of the mean of the frame is spread over all of it.
 * @param veil part of the mean, 0.005 for a clean coated lens with a hood, 0.02 without
 * @returns tone of the place with the veil, stops from mid-tone
 * Source: the definition of the veiling glare index, ISO 9358.
 */
export function veiledStops(darkStops: number, meanStops: number, veil: number): number {
  return Math.log2(2 ** darkStops + veil * 2 ** meanStops);
}
