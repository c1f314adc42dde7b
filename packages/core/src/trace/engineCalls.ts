import { RAY_DIRECTION, RAY_FROM, RAY_ORIGIN, RAY_START_M, RAY_TO } from '../engine/layouts.js';
/**
 * The engine as the rest of the core sees it: numbers to write and read, and calls. Narrow on purpose, so that the
 * plain engine and the WebAssembly one are the same from outside. Arrays may be views of the engine's memory: read
 * and write them, do not keep copies of the references over `gather` or `renewLightmaps`.
 */
export interface EngineCalls {
  /** Which engine this is, for reports. */
  readonly name: 'plain' | 'wasm';
  /** The ray to ask about, see `RAY_ORIGIN` and those below it. */
  readonly ray: Float64Array;
  /** One number: rays traced since the engine was made. */
  readonly rays: Float64Array;
  /** Where traced light is added: [channel * 3 + colour]. */
  readonly films: Float64Array;
  /** 1 for each film whose light is asked for, 0 for one that may be left out. */
  readonly wanted: Float64Array;
  /** Luminance for each film that stands for bounced light in quick pictures. */
  readonly ambient: Float64Array;
  /** Where `trace` and `sampleLight` start, and the direction of `trace`. */
  readonly point: Float64Array;
  readonly direction: Float64Array;
  /** Answer of `sampleLight`, see `LIGHT_DIRECTION` and those below it. */
  readonly light: Float64Array;
  /** The sampler's last two numbers. */
  readonly uv: Float64Array;
  /** The box that photons are sent into, see `BOX_LEAST`, and those that came to rest, see `CAUSTIC_POINT`. */
  readonly photonBox: Float64Array;
  readonly photons: Float32Array;
  /** `BATCH_RAYS` rays, see `castBatch`. */
  readonly batch: Float64Array;
  /** Answer of `look`, see `SEEN` and those below it. */
  readonly sight: Float64Array;
  /** Answers of `lookTile`, row after row; see `TILE_SEEN` and those below it. */
  readonly tileWholes: Int32Array;
  readonly tileNumbers: Float32Array;
  /** Pixels for `renderPixels`, py * width + px, and its answer: what is seen sharply in each (quick pictures). */
  readonly list: Float64Array;
  /** Sums of `renderPixels`: [(pixel * channels + channel) * 3 + colour]. */
  readonly pixels: Float64Array;
  /** The camera, see `writeView`. */
  readonly view: Float64Array;

  /** Index of the nearest primitive, its distance written to `RAY_TO` of the ray; -1 for none. */
  closestHit(): number;
  /** Whether anything at all stands between the two distances; `RAY_TO` is then undefined. */
  anyHit(): boolean;
  /**
   * The same for the first `count` rays of `batch`, without a call for each: primitive or -1 (0 for
   * any hit) to `RAY_PRIMITIVE`, distance to `RAY_DISTANCE`.
   */
  castBatch(count: number, any: boolean): void;
  /** The same for rays of the camera through the middles of the pixels of a block of up to `BLOCK` by `BLOCK`. */
  castBlock(px: number, py: number, columns: number, rows: number, width: number, height: number): void;
  /** Sampler: another seed, the sequence of one sample of one pixel, its next two numbers. */
  reseed(seed: number): void;
  startSample(pixel: number, sample: number): void;
  next(): void;
  /**
   * @param quick paths end at the first matte surface  @param lightmaps at lightmaps  @param recording for baking
   * @param specular light by specular paths left out or alone, see `SPECULAR_TOO`
   */
  setMode(mode: { quick?: boolean; lightmaps?: boolean; recording?: boolean; specular?: number }): void;
  /** Adds to `films` what arrives at `point` against `direction`; see `PathTracer.trace`. */
  trace(scattered: boolean): void;
  /** What the ray from `point` along `direction` meets, mirrors and shows through. */
  look(): void;
  /** The same for the middles of the pixels of a tile of up to `TILE_PIXELS`, by the camera. */
  lookTile(px: number, py: number, columns: number, rows: number, width: number, height: number): void;
  /** Sends up to `SENT_AT_ONCE` photons; how many came to rest. See `PhotonSource`. */
  sendPhotons(lamp: number, thing: number, first: number, count: number, all: number): number;
  /** Samples one light from `point`; false where nothing arrives. */
  sampleLight(index: number): boolean;
  /** Sets `pixels` to the sums of the samples of the first pixels of `list`, up to `CALL_PIXELS`. */
  renderPixels(count: number, width: number, height: number, firstSample: number, samples: number): void;
  /** Gathers patches of lightmaps with so many rays each. */
  gather(rays: number): GatherCalls;
  /** Memory that the engine and its tables take, bytes. */
  memoryBytes(): number;
  /** Puts changed lightmaps of the tables to use; and changed bundled light. */
  renewLightmaps(): void;
  renewCaustics(): void;
}

export interface GatherCalls {
  /** See `PatchGatherer`. */
  readonly direct: Float64Array;
  readonly met: Int32Array;
  readonly factor: Float64Array;
  readonly cell: Int32Array;
  readonly near: Int32Array;
  readonly told: Float64Array;
  gather(lightmap: number, cell: number): void;
}

/** Writes a ray from a point, from just off its surface to any distance. */
export function setRay(
  ray: Float64Array,
  origin: ArrayLike<number>,
  direction: ArrayLike<number>,
  farthest = Number.POSITIVE_INFINITY,
): void {
  for (let a = 0; a < 3; a++) {
    ray[RAY_ORIGIN + a] = origin[a] as number;
    ray[RAY_DIRECTION + a] = direction[a] as number;
  }
  ray[RAY_FROM] = RAY_START_M;
  ray[RAY_TO] = farthest;
}
