import type { SetDocument } from '@fendrix/contract';
import { luminanceOf } from '../exposure/display.js';
import { exposureWeights } from '../exposure/recording.js';
import type { Thing } from '../geometry/scene.js';
import { mirrorMapTile } from '../mirror/mirrorMap.js';
import { channelsOf } from '../photometry/channels.js';
import type { Tracing } from '../render/prepareTracing.js';
import { rayThrough } from '../render/view.js';
import { GROUND_KINDS } from './ground.js';
import { pickSources } from './pickSources.js';

/** Light of places just within the edges of the products, free of power and exposure. */
export interface RimTrace {
  places: {
    side: 'left' | 'right';
    product: string;
    /** At unit luminance of each film, [film * 3 + colour]: all of it, and what mirrors the ground. */
    all: Float64Array;
    mirrored: Float64Array;
  }[];
}

/** Picture in which the edges are looked for, px; rows read at each side of a product; paths for each part of a place. */
const MAP = { width: 240, height: 160 };
const ROWS = 6;
const SAMPLES = 96;

/**
 * Reads the edges of the products against the ground: at up to six heights, left and right, one pixel of a picture 240 wide
 * within the outline.
 * Limits: outlines finer than that pixel, and edges against other products, are left out.
 */
export function traceRims(tracing: Tracing): RimTrace {
  const { scene, view } = tracing;
  const map = mirrorMapTile(tracing, MAP.width, MAP.height, { x: 0, y: 0, ...MAP });
  const kindAt = (pixel: number): Thing['kind'] | undefined => scene.things[map.thing[pixel] as number]?.kind;
  const isGround = (pixel: number) => {
    const kind = kindAt(pixel);
    return kind !== undefined && GROUND_KINDS.includes(kind);
  };
  const found = new Map<string, number[]>();
  for (let y = 1; y < MAP.height - 1; y++) {
    for (let x = 1; x < MAP.width - 1; x++) {
      const pixel = y * MAP.width + x;
      if (kindAt(pixel) !== 'product') continue;
      const product = scene.things[map.thing[pixel] as number]?.key ?? '';
      for (const [side, beside, within] of [
        ['left', pixel - 1, pixel + 1],
        ['right', pixel + 1, pixel - 1],
      ] as const) {
        if (!isGround(beside) || map.thing[within] !== map.thing[pixel]) continue;
        const key = `${side} ${product}`;
        found.set(key, [...(found.get(key) ?? []), pixel]);
      }
    }
  }
  const direction = new Float64Array(3);
  const places: RimTrace['places'] = [];
  for (const [key, pixels] of found) {
    const [side, ...names] = key.split(' ');
    const rows = Math.min(ROWS, pixels.length);
    for (let i = 0; i < rows; i++) {
      const pixel = pixels[Math.floor(((i + 0.5) * pixels.length) / rows)] as number;
      const [x, y] = [pixel % MAP.width, Math.floor(pixel / MAP.width)];
      rayThrough(direction, view, (x + 0.5) / MAP.width, (y + 0.5) / MAP.height);
      const all = new Float64Array(3 * scene.channelCount);
      const mirrored = new Float64Array(3 * scene.channelCount);
      for (const source of pickSources(tracing, view.origin, direction, SAMPLES)) {
        const ground = source.how === 'mirrored' && source.thing && GROUND_KINDS.includes(source.thing.kind);
        source.unit.forEach((value, c) => {
          const k = 3 * source.channel + c;
          all[k] = (all[k] as number) + value;
          if (ground) mirrored[k] = (mirrored[k] as number) + value;
        });
      }
      places.push({ side: side as 'left' | 'right', product: names.join(' '), all, mirrored });
    }
  }
  return { places };
}

/** How much brighter the edges of the products are for what comes from behind. */
export interface RimWrap {
  /** Mean over the edges and the most at one place, stops; 0 where nothing comes from behind. */
  meanStops: number;
  mostStops: number;
  /** Side of the most. */
  side: 'left' | 'right';
  product: string;
}

/**
 * What the edges get from behind with the powers of a set: the light that mirrors the ground, and all light of the lamps that
 * are the ground's own, against the rest. No rays.
 * @param own tags of the lights that are the ground's own
 * @returns null where the products have no edge against the ground
 */
export function rimWrap(set: SetDocument, rims: RimTrace, own: ReadonlySet<string>): RimWrap | null {
  const weights = exposureWeights(set);
  const channels = channelsOf(set);
  const luminance = (of: (k: number, channel: number) => number) => {
    const rgb: [number, number, number] = [0, 0, 0];
    channels.forEach((_, channel) => {
      for (const c of [0, 1, 2] as const)
        rgb[c] += (weights[3 * channel + c] as number) * of(3 * channel + c, channel);
    });
    return luminanceOf(...rgb);
  };
  const isOwn = channels.map(({ light }) => own.has(set.lights[light]?.tag ?? ''));
  const read = rims.places.flatMap(({ side, product, all, mirrored }) => {
    const whole = luminance((k) => all[k] ?? 0);
    const behind = luminance((k, channel) => (isOwn[channel] ? all[k] : mirrored[k]) ?? 0);
    if (!(whole > 0)) return [];
    // An edge that has nothing else is told as four stops brighter, not as endlessly.
    return [{ side, product, stops: Math.min(MOST_STOPS, -Math.log2(Math.max(1e-9, 1 - behind / whole))) }];
  });
  const [most] = [...read].sort((a, b) => b.stops - a.stops);
  if (!most) return null;
  const meanStops = read.reduce((sum, { stops }) => sum + stops, 0) / read.length;
  return { meanStops, mostStops: most.stops, side: most.side, product: most.product };
}

const MOST_STOPS = 4;
