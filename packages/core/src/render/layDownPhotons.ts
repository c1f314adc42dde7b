import {
  BUNDLED_FILM,
  BUNDLED_FLUX,
  BUNDLED_STRIDE,
  BUNDLED_WAY,
  PHOTON_FILM,
  PHOTON_FLUX,
  PHOTON_POINT,
  PHOTON_STRIDE,
  PHOTON_SURFACE,
  PHOTON_WAY,
  TEXEL_KEY,
} from '../engine/layouts.js';
import { acrossOf, alongOf, texelSlot } from '../engine/path/caustics.js';
import type { SceneTables } from '../engine/tables.js';

/** So many sizes of texel, each larger than the one before by this. */
const LEVELS = 7;
const LARGER = 2;
/** Photons in a texel from which on it is not too fine for them. */
const CROWD = 10;

/** Texels by their keys, numbered as they come: an open table, kept at most half full. */
class Texels {
  count = 0;
  slots = 1 << 12;
  keys = new Int32Array(TEXEL_KEY * this.slots).fill(-1);
  private numbers = new Int32Array(this.slots);

  numberOf(surface: number, u: number, v: number): number {
    if (2 * this.count >= this.slots) this.grow();
    const slot = texelSlot(this.keys, this.slots, surface, u, v);
    if ((this.keys[TEXEL_KEY * slot] as number) < 0) this.put(slot, surface, u, v, this.count++);
    return this.numbers[slot] as number;
  }

  /** Slot of each, by its number. */
  slotsByNumber(): Int32Array {
    const slotOf = new Int32Array(this.count);
    for (let slot = 0; slot < this.slots; slot++)
      if ((this.keys[TEXEL_KEY * slot] as number) >= 0) slotOf[this.numbers[slot] as number] = slot;
    return slotOf;
  }

  private put(slot: number, surface: number, u: number, v: number, number: number): void {
    const k = TEXEL_KEY * slot;
    this.keys[k] = surface;
    this.keys[k + 1] = u;
    this.keys[k + 2] = v;
    this.numbers[slot] = number;
  }

  private grow(): void {
    const { keys, numbers, slots } = this;
    this.slots = 2 * slots;
    this.keys = new Int32Array(TEXEL_KEY * this.slots).fill(-1);
    this.numbers = new Int32Array(this.slots);
    for (let i = 0; i < slots; i++) {
      const surface = keys[TEXEL_KEY * i] as number;
      if (surface < 0) continue;
      const u = keys[TEXEL_KEY * i + 1] as number;
      const v = keys[TEXEL_KEY * i + 2] as number;
      this.put(texelSlot(this.keys, this.slots, surface, u, v), surface, u, v, numbers[i] as number);
    }
  }
}

/**
 * Lays photons down on grids over the surfaces they lie on: in the finest level in which they lie close enough to make a mean,
 * shared out bilinearly among the four texels round each. Writes the texels into the tables.
 * @param finestM side of the finest texels, m
 * @param openPart how much of a texel light can reach, see `OpenPart.of`: photons share that out
 */
export function layDownPhotons(
  tables: SceneTables,
  photons: Float32Array,
  finestM: number,
  openPart: (photons: Float32Array, o: number, u: number, v: number, size: number) => number,
): void {
  const count = photons.length / PHOTON_STRIDE;
  const sizes = Array.from({ length: LEVELS }, (_, level) => finestM * LARGER ** level);
  const levelOf = levelsOf(photons, sizes);
  const texels = new Texels();
  // A texel keeps films and parts of the sky apart: each has an entry of its own.
  const entries = new Texels();
  const kinds = tables.channelCount * SKY_PARTS;
  const sums = new Float32Array(4 * count * BUNDLED_STRIDE);
  const texelOf = new Int32Array(4 * count);
  const shares: number[] = [];
  for (let i = 0; i < count; i++) {
    const o = i * PHOTON_STRIDE;
    const level = levelOf[i] as number;
    const surface = (photons[o + PHOTON_SURFACE] as number) * LEVELS + level;
    const kind = (photons[o + PHOTON_FILM] as number) * SKY_PARTS + skyPart(photons, o);
    const along = alongTexels(photons, o, sizes[level] as number);
    const across = acrossTexels(photons, o, sizes[level] as number);
    for (let k = 0; k < 4; k++) {
      const u = Math.floor(along) + (k & 1);
      const v = Math.floor(across) + (k >> 1);
      const entry = entries.numberOf(surface * kinds + kind, u, v);
      const texel = texels.numberOf(surface, u, v);
      texelOf[entry] = texel;
      if (texel === shares.length) shares.push(1 / openPart(photons, o, u, v, sizes[level] as number));
      const weight = (1 - Math.abs(along - u)) * (1 - Math.abs(across - v));
      addPhoton(sums, entry * BUNDLED_STRIDE, photons, o, weight);
    }
  }
  for (let entry = 0; entry < entries.count; entry++)
    scaleLight(sums, entry * BUNDLED_STRIDE, shares[texelOf[entry] as number] as number);
  pack(tables, texels, entries.count, texelOf, sums);
  tables.texelSizes = Float64Array.from(sizes);
}

/** Parts of the sky over a surface: four quarters, each low and high. */
const SKY_PARTS = 8;
/** From this cosine on light comes from high up. */
const HIGH = 0.7;

/** The part of the sky that a photon came from. */
function skyPart(photons: Float32Array, o: number): number {
  const facing = (photons[o + PHOTON_SURFACE] as number) % 6;
  const way = (axis: number) => photons[o + PHOTON_WAY + axis] as number;
  const high = Math.abs(way(Math.floor(facing / 2))) > HIGH;
  return (way(alongOf(facing)) > 0 ? 1 : 0) + (way(acrossOf(facing)) > 0 ? 2 : 0) + (high ? 4 : 0);
}

/** Where a photon lies along the two axes of its surface's grid, in texels. */
function alongTexels(photons: Float32Array, o: number, size: number): number {
  const facing = (photons[o + PHOTON_SURFACE] as number) % 6;
  return (photons[o + PHOTON_POINT + alongOf(facing)] as number) / size;
}
function acrossTexels(photons: Float32Array, o: number, size: number): number {
  const facing = (photons[o + PHOTON_SURFACE] as number) % 6;
  return (photons[o + PHOTON_POINT + acrossOf(facing)] as number) / size;
}

/** The finest level in which a photon's texel is crowded; the coarsest where none is. */
function levelsOf(photons: Float32Array, sizes: readonly number[]): Int8Array {
  const count = photons.length / PHOTON_STRIDE;
  const levelOf = new Int8Array(count).fill(-1);
  const numberOf = new Int32Array(count);
  const crowd = new Int32Array(count);
  sizes.forEach((size, level) => {
    const texels = new Texels();
    crowd.fill(0);
    for (let i = 0; i < count; i++) {
      if ((levelOf[i] as number) >= 0) continue;
      const o = i * PHOTON_STRIDE;
      const u = Math.floor(alongTexels(photons, o, size));
      const v = Math.floor(acrossTexels(photons, o, size));
      const number = texels.numberOf(photons[o + PHOTON_SURFACE] as number, u, v);
      numberOf[i] = number;
      crowd[number] = (crowd[number] as number) + 1;
    }
    const coarsest = level === sizes.length - 1;
    for (let i = 0; i < count; i++)
      if ((levelOf[i] as number) < 0 && (coarsest || (crowd[numberOf[i] as number] as number) >= CROWD))
        levelOf[i] = level;
  });
  return levelOf;
}

function addPhoton(sums: Float32Array, at: number, photons: Float32Array, o: number, weight: number): void {
  sums[at + BUNDLED_FILM] = photons[o + PHOTON_FILM] as number;
  let all = 0;
  for (let c = 0; c < 3; c++) {
    const flux = weight * (photons[o + PHOTON_FLUX + c] as number);
    sums[at + BUNDLED_FLUX + c] = (sums[at + BUNDLED_FLUX + c] as number) + flux;
    all += flux;
  }
  for (let a = 0; a < 3; a++)
    sums[at + BUNDLED_WAY + a] =
      (sums[at + BUNDLED_WAY + a] as number) + all * (photons[o + PHOTON_WAY + a] as number);
}

function scaleLight(sums: Float32Array, at: number, by: number): void {
  for (let k = BUNDLED_FLUX; k < BUNDLED_STRIDE; k++) sums[at + k] = by * (sums[at + k] as number);
}

/** Entries in the order of the slots of their texels. */
function pack(
  tables: SceneTables,
  texels: Texels,
  entries: number,
  texelOf: Int32Array,
  sums: Float32Array,
): void {
  const slotOf = texels.slotsByNumber();
  const starts = new Int32Array(texels.slots + 1);
  const slot = (entry: number) => slotOf[texelOf[entry] as number] as number;
  for (let e = 0; e < entries; e++) starts[slot(e) + 1] = (starts[slot(e) + 1] as number) + 1;
  for (let i = 1; i < starts.length; i++) starts[i] = (starts[i] as number) + (starts[i - 1] as number);
  const next = starts.slice();
  const bundled = new Float32Array(entries * BUNDLED_STRIDE);
  for (let e = 0; e < entries; e++) {
    const at = next[slot(e)] as number;
    next[slot(e)] = at + 1;
    bundled.set(sums.subarray(e * BUNDLED_STRIDE, (e + 1) * BUNDLED_STRIDE), at * BUNDLED_STRIDE);
  }
  tables.texelKeys = texels.keys;
  tables.texelStarts = starts;
  tables.bundled = bundled;
}
